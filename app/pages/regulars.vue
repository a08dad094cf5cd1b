<script setup lang="ts">
import { readTypedNumber } from '#core/base/typed-number'
import { unitName } from '#core/base/unit'
import { capital, formatCount } from '#shared/words/format'
import { RHYTHM_WORDS } from '#shared/words/regulars'
import type { RegularList, TemplateView } from '#shared/contract/regulars'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

useHead({ title: 'Regulars · Rekko' })
const api = useApi()
const wording = useWording()
const undo = useUndo()
const trouble = ref('')
const { data, error, refresh } = await useAsyncData('regulars', async () => {
  const [{ lists }, { templates }] = await Promise.all([api.get('/api/regulars'), api.get('/api/templates')])
  return { lists, templates }
})
const lists = computed(() => data.value?.lists ?? [])
const templates = computed(() => data.value?.templates ?? [])
const repeating = computed(() => templates.value.filter((t) => t.nextOn !== null).length)
const sentence = computed(() => {
  if (lists.value.length === 0 && templates.value.length === 0) return 'Nothing is kept for another time yet.'
  const kept = capital(formatCount(lists.value.length, 'list of regulars', 'lists of regulars'))
  const again = formatCount(repeating.value, 'raises itself', 'raise themselves')
  return (
    `${kept} and ${formatCount(templates.value.length, 'template', 'templates')}` +
    `${repeating.value === 0 ? '' : `, of which ${again}`}.`
  )
})
type Entry = Omit<RegularList['entries'][number], 'id' | 'supplier'>
const entriesOf = (list: RegularList): Entry[] => list.entries.map(({ id: _, supplier: __, ...e }) => e)

async function act(work: () => Promise<unknown>): Promise<void> {
  trouble.value = ''
  try {
    await work()
  } catch (e) {
    trouble.value = sayError(e)
  }
  await refresh()
}
const write = (list: RegularList, name: string, entries: readonly Entry[]) =>
  api.put('/api/regulars/{id}', { params: { id: list.id }, version: list.version, body: { name, entries } })
function rename(list: RegularList, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name !== '' && name !== list.name) void act(() => write(list, name, entriesOf(list)))
}
function setQuantity(list: RegularList, at: number, event: Event): void {
  const read = readTypedNumber((event.target as HTMLInputElement).value, wording.decimalMark)
  if (read === null || Number(read) <= 0) {
    trouble.value = 'That is not a quantity; it stays as it was.'
    void refresh()
    return
  }
  void act(() =>
    write(
      list,
      list.name,
      entriesOf(list).map((e, i) => (i === at ? { ...e, quantity: read } : e)),
    ),
  )
}
function takeOff(list: RegularList, at: number): void {
  const before = entriesOf(list)
  void act(async () => {
    await write(
      list,
      list.name,
      before.filter((_, i) => i !== at),
    )
    undo.show(`“${list.entries[at]?.description ?? ''}” is off the list.`, 'Put it back', 10, () =>
      act(() => write({ ...list, version: list.version + 1 }, list.name, before)),
    )
  })
}
function removeList(list: RegularList): void {
  void act(async () => {
    await api.remove('/api/regulars/{id}', { params: { id: list.id }, version: list.version })
    undo.show(`“${list.name}” is gone.`, 'Keep it after all', 10, () =>
      act(() =>
        api.post('/api/regulars', {
          body: { name: list.name, departmentId: list.departmentId, entries: entriesOf(list) },
          key: crypto.randomUUID(),
        }),
      ),
    )
  })
}
const change = (t: TemplateView, rhythm: TemplateView['rhythm']) =>
  act(() =>
    api.put('/api/templates/{id}', {
      params: { id: t.id },
      version: t.version,
      body: { name: t.name, departmentId: t.departmentId, rhythm },
    }),
  )
function stopRhythm(t: TemplateView): void {
  const { rhythm } = t
  void change(t, null).then(() => {
    undo.show(`${t.name} is not raised by itself any more.`, 'Go on as before', 10, () =>
      change({ ...t, version: t.version + 1 }, rhythm),
    )
  })
}
const asksRemove = ref('')
function removeTemplate(t: TemplateView): void {
  void act(async () => {
    await api.remove('/api/templates/{id}', { params: { id: t.id }, version: t.version })
    asksRemove.value = ''
  })
}
function sayRhythm(t: TemplateView): string {
  if (t.rhythm === null || t.nextOn === null) return 'begun by hand'
  return (
    `raised ${RHYTHM_WORDS[t.rhythm.every]}, next on ${wording.day(t.nextOn)}; then it ` +
    `${t.rhythm.sendsItself ? 'is sent by itself' : 'waits for a look'}`
  )
}
usePlaceKeys([], () => undefined)
</script>

<template>
  <div>
    <PageNote>what you keep for another time</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="error" class="notice-red mt-3">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="lists.length === 0 && templates.length === 0" class="mt-2 max-w-[62ch] text-ink2">
        Regulars are lists of things that are bought again and again; a template is a whole request to begin from, and
        may raise itself every month. Write one on <NuxtLink class="quiet-link" to="/raise">Raise</NuxtLink>, then press
        “keep it for another time” below its lines.
      </p>
      <section v-if="templates.length > 0" class="mt-6">
        <h2 class="head border-b border-ink pb-1.5">Templates</h2>
        <ul>
          <li
            v-for="t in templates"
            :key="t.id"
            class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule py-2.5"
          >
            <span class="min-w-[240px] flex-1"
              ><b class="font-semibold">{{ t.name }}</b
              ><span class="small block"
                >{{ formatCount(t.lines, 'line', 'lines') }} ·
                {{
                  t.department === null ? 'yours alone' : `${t.mine ? 'yours' : t.owner}, shared with ${t.department}`
                }}</span
              ></span
            >
            <span class="min-w-[260px] flex-1" :class="t.nextOn === null ? 'text-ink3' : ''">{{ sayRhythm(t) }}</span>
            <span class="flex gap-3">
              <NuxtLink class="quiet-link" :to="`/raise?template=${t.id}`" :aria-label="`Begin from ${t.name}`"
                >begin from it</NuxtLink
              >
              <template v-if="t.mine">
                <button
                  v-if="t.nextOn !== null"
                  type="button"
                  class="quiet-link"
                  :aria-label="`Stop raising ${t.name}`"
                  @click="stopRhythm(t)"
                >
                  stop
                </button>
                <button
                  v-if="asksRemove !== t.id"
                  type="button"
                  class="quiet-link"
                  :aria-label="`Take ${t.name} away`"
                  @click="asksRemove = t.id"
                >
                  take away
                </button>
                <button v-else type="button" class="quiet-link font-semibold text-red" @click="removeTemplate(t)">
                  yes, take it away
                </button>
              </template>
            </span>
          </li>
        </ul>
      </section>
      <section v-for="l in lists" :key="l.id" class="mt-7" :aria-label="l.name">
        <header class="flex flex-wrap items-baseline gap-x-3 border-b border-ink pb-1">
          <h2 class="head">
            <TypedBox
              class="cell cell-fit font-[680]"
              :value="l.name"
              maxlength="80"
              :aria-label="`Name of the list ${l.name}`"
              @change="rename(l, $event)"
            />
          </h2>
          <span class="small">{{ l.department ?? 'your own' }}</span>
          <button
            type="button"
            class="small quiet-link ml-auto"
            :aria-label="`Take the list ${l.name} away`"
            @click="removeList(l)"
          >
            take the list away
          </button>
        </header>
        <ul>
          <li
            v-for="(e, i) in l.entries"
            :key="e.id"
            class="group flex items-baseline gap-3 border-b border-rule py-1.5"
          >
            <span class="min-w-0 flex-1"
              ><span class="block truncate">{{ e.description }}</span
              ><span class="small block truncate">{{
                [e.supplier ?? 'buyer decides who', e.supplierPart].filter((t) => t).join(' · ')
              }}</span></span
            >
            <TypedBox
              class="cell w-[56px]! text-right"
              inputmode="decimal"
              :value="wording.decimal(e.quantity)"
              :aria-label="`How many: ${e.description}`"
              @change="setQuantity(l, i, $event)"
            /><span class="w-[52px] text-ink2">{{ unitName(e.unit) }}</span>
            <span class="num w-[88px] max-[700px]:hidden">{{
              e.unitPrice === null ? '–' : wording.price(e.unitPrice, e.currency)
            }}</span>
            <button
              type="button"
              class="small quiet-link"
              :aria-label="`Take ${e.description} off`"
              @click="takeOff(l, i)"
            >
              take off
            </button>
          </li>
          <li v-if="l.entries.length === 0" class="py-2 text-ink3">Nothing stands on this list any more.</li>
        </ul>
      </section>
    </SheetPage>
  </div>
</template>
