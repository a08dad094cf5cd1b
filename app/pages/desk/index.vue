<script setup lang="ts">
import type { SupplierFound } from '#shared/contract/catalogue'
import { capital, formatCount, formatCounted } from '#shared/words/format'
import type { DeskLine, TrayView } from '#shared/contract/order'
import BlankChoice from '~/components/base/BlankChoice.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import SupplierPicker from '~/components/base/SupplierPicker.vue'
import ConditionsForm from '~/components/order/ConditionsForm.vue'
import DrawChoice from '~/components/order/DrawChoice.vue'
import AsideLines from '~/components/desk/AsideLines.vue'
import AskAboutLine from '~/components/desk/AskAboutLine.vue'
import LineOffers from '~/components/desk/LineOffers.vue'
import PassTray from '~/components/desk/PassTray.vue'
import TrayCard from '~/components/desk/TrayCard.vue'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { usePassTray } from '~/composables/desk/use-pass-tray'
import { useTrayWork } from '~/composables/desk/use-tray-work'
import { GROUPINGS, groupingOf, groupLines, type Grouping } from '~/composables/desk/group-lines'
import { offerFor, sayOthers } from '~/composables/desk/say-others'
import { byTray, trayFor } from '~/composables/desk/tray-for'
import { useLive } from '~/composables/live/use-live'

useHead({ title: 'Desk · Rekko' })
const api = useApi()
const MissingForOrders = defineAsyncComponent(() => import('~/components/set-up/MissingForOrders.vue'))
const wording = useWording()
const { words, typed } = useWordsFilter()
const { one, narrow } = useNarrowed()
/** What the address says of which lines stand here. */
const asked = computed(() =>
  Object.fromEntries(
    Object.entries({
      words: words.value,
      supplier: one('supplier'),
      shipToId: one('shipToId'),
      due: one('due'),
      aside: one('aside'),
    }).filter(([, v]) => v !== ''),
  ),
)
const isNarrowed = computed(() => Object.keys(asked.value).length > 0)
const { data, refresh, error } = await useAsyncData('desk', () => api.get('/api/desk', { query: asked.value }), {
  watch: [asked],
})
useLive((changes) => {
  if (changes.some((c) => c.kind !== 'absence')) void refresh()
})

const marked = ref(new Set<string>())
/** The line that has the focus, and where arrows go on from when none has. */
const focused = ref<string | null>(null)
const at = ref<string | null>(null)
const activeTray = ref<string | null>(null)
const overTray = ref<string | null>(null)
const trouble = ref('')
const supplier = shallowRef<SupplierFound | null>(null)

const by = computed(() => groupingOf(one('by')))
const groups = computed(() => groupLines(data.value?.lines ?? [], by.value))
const NONE: Partial<Record<Grouping, string>> = { '': 'No supplier yet', agreement: 'No agreement' }
const sayGroup = (shared: string) => (by.value === 'day' ? wording.day(shared) : shared || (NONE[by.value] ?? ''))
/** From which value of goods on a group's supplier pays the freight; null where that is not said, or not of one. */
const freeFrom = (list: readonly DeskLine[]) => (by.value === '' ? (list[0]?.freightFreeFrom ?? null) : null)
const lines = computed(() => groups.value.flatMap((g) => g.list))
const trays = computed(() => data.value?.trays ?? [])
/** Those that lines may be laid on: what was sent to be decided on stays as it is. */
const openTrays = computed(() => trays.value.filter((t) => t.state === 'draft'))
watch(lines, (now) => {
  marked.value = new Set([...marked.value].filter((id) => now.some((l) => l.id === id)))
})
/** A line in one breath, for a screen reader. */
const sayLine = (l: DeskLine) =>
  [l.description, wording.quantity(l.open, l.unit), l.asker, ...(marked.value.has(l.id) ? ['marked'] : [])].join(', ')
const chosen = computed(() => lines.value.filter((l) => marked.value.has(l.id)))
const needsSupplier = computed(() => chosen.value.length > 0 && chosen.value.every((l) => l.supplierId === null))
const sayWaiting = (n: number) =>
  one('aside') === 'yes'
    ? `${n === 1 ? 'line is' : 'lines are'} put aside or ${n === 1 ? 'waits' : 'wait'} for an answer`
    : `${n === 1 ? 'line waits' : 'lines wait'} to be ordered`
const sentence = computed(() => {
  const n = data.value?.total ?? 0
  if (n === 0 && one('aside') === 'yes') return 'No such line is put aside or waits for an answer.'
  if (n === 0 && isNarrowed.value) return 'No line that waits fits this.'
  if (n === 0)
    return trays.value.length > 0
      ? 'Nothing else waits; what is left lies on your trays.'
      : 'Nothing waits to be ordered.'
  return (
    `${capital(formatCounted(n))} ${sayWaiting(n)}, from ` +
    `${formatCount(new Set(lines.value.flatMap((l) => l.supplierId ?? [])).size, 'supplier', 'suppliers')}.`
  )
})

function mark(l: DeskLine): void {
  const next = new Set(marked.value)
  if (next.has(l.id)) next.delete(l.id)
  else next.add(l.id)
  marked.value = next
  at.value = l.id
}
function markGroup(list: readonly DeskLine[]): void {
  const all = list.every((l) => marked.value.has(l.id))
  const next = new Set(marked.value)
  for (const l of list) {
    if (all) next.delete(l.id)
    else next.add(l.id)
  }
  marked.value = next
}
function move(by: number): void {
  const i = lines.value.findIndex((l) => l.id === at.value)
  const to = lines.value[Math.max(0, Math.min(lines.value.length - 1, i + by))]
  at.value = to?.id ?? null
  void nextTick(() => document.getElementById(`line-${to?.id ?? ''}`)?.focus())
}
const trayAtHand = computed(() => trays.value.find((t) => t.id === activeTray.value) ?? trays.value[0] ?? null)
/** What Enter lays: exactly what is marked, or else the line that has the focus. */
const enterLays = computed(() =>
  chosen.value.length > 0 ? chosen.value : lines.value.filter((l) => l.id === focused.value),
)
const sayEnter = computed(() => {
  const [first, ...more] = enterLays.value
  if (first === undefined) return 'Space marks a line, Enter lays it on a tray'
  const what =
    chosen.value.length === 0
      ? `“${first.description}”`
      : more.length === 0
        ? 'the marked line'
        : `the ${chosen.value.length} marked lines`
  const parted = byTray(enterLays.value, supplier.value?.id ?? null)
  if (parted.length > 1) return `Enter lays ${what} on ${parted.length} trays`
  const tray = trayFor(enterLays.value, openTrays.value, activeTray.value)
  const name = enterLays.value.find((l) => l.supplier !== null)?.supplier ?? supplier.value?.name ?? null
  if (tray !== null) return `Enter lays ${what} on the tray for ${tray.supplier}`
  return name === null ? `Enter lays ${what}; choose who supplies it` : `Enter lays ${what} on a new tray for ${name}`
})
/** Lays lines on a tray, on those they fit, or on new ones: each on one for its supplier and its place. */
async function lay(parts: readonly DeskLine[], onto: TrayView | 'fitting' | 'new'): Promise<void> {
  if (parts.length === 0) {
    trouble.value = 'Mark a line first: Space, or a press on it.'
    return
  }
  trouble.value = ''
  const first = lines.value.findIndex((l) => parts.some((p) => p.id === l.id))
  const chosenSupplier = supplier.value?.id ?? null
  try {
    for (const group of typeof onto === 'object' ? [parts] : byTray(parts, chosenSupplier)) {
      const done = await api.post('/api/trays', {
        body: {
          orderId:
            typeof onto === 'object'
              ? onto.id
              : onto === 'new'
                ? null
                : (trayFor(group, openTrays.value, activeTray.value)?.id ?? null),
          supplierId: chosenSupplier,
          parts: group.map((l) => ({
            ...{ lineId: l.id, quantity: null },
            offerItemId: typeof onto === 'object' ? offerFor(l, onto.supplierId) : null,
          })),
        },
        key: crypto.randomUUID(),
      })
      activeTray.value = done.orderId
      marked.value = new Set([...marked.value].filter((id) => !group.some((l) => l.id === id)))
    }
    supplier.value = null
    await refresh()
    const next = lines.value[Math.min(first, lines.value.length - 1)]
    at.value = next?.id ?? null
    await nextTick()
    if (document.activeElement === document.body) document.getElementById(`line-${next?.id ?? ''}`)?.focus()
  } catch (e) {
    trouble.value = sayError(e)
    await refresh()
    if (e instanceof ApiProblem && e.kind === 'no-supplier')
      await nextTick(() => document.querySelector<HTMLElement>('#choose-supplier input')?.focus())
  }
}
/** The line of which it is looked at who else has it. */
const sourcing = shallowRef<DeskLine | null>(null)
async function sourced(orderId: string): Promise<void> {
  const first = lines.value.findIndex((l) => l.id === sourcing.value?.id)
  activeTray.value = orderId
  sourcing.value = null
  await refresh()
  await nextTick()
  // What is left of the line, or the next one: keys go on from there, and not in the field of words.
  const next = lines.value[Math.min(Math.max(first, 0), lines.value.length - 1)]
  at.value = next?.id ?? null
  requestAnimationFrame(() => {
    const row = document.getElementById(`line-${next?.id ?? ''}`)
    if (row !== null) row.focus()
    else if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  })
}
/** The tray of which it is said on which agreement it draws. */
const drawing = shallowRef<TrayView | null>(null)
/** The tray whose conditions are being said. */
const setting = shallowRef<TrayView | null>(null)
/** It is said: what was open closes, and the tray is drawn as it is now. */
async function said(): Promise<void> {
  drawing.value = null
  setting.value = null
  await refresh()
}
const work = useTrayWork(() => trays.value, refresh)
const { issued } = work
const { passing, ...passes } = usePassTray({ refresh, complain: work.complain })
function drag(event: DragEvent, l: DeskLine): void {
  if (!marked.value.has(l.id)) marked.value = new Set([l.id])
  event.dataTransfer?.setData('text/plain', [...marked.value].join(' '))
}
function drop(event: DragEvent, onto: TrayView | 'new'): void {
  overTray.value = null
  const ids = (event.dataTransfer?.getData('text/plain') ?? '').split(' ')
  void lay(
    lines.value.filter((l) => ids.includes(l.id)),
    onto,
  )
}
usePlaceKeys(
  [
    { keys: '↑ ↓', does: 'between lines' },
    { keys: 'Space', does: 'mark a line' },
    { keys: 'Enter', does: 'lay what is marked, or else this line, on its tray' },
    { keys: 'Ctrl Enter', does: 'issue the tray at hand, or send it to whoever decides' },
  ],
  (event) => {
    if (isMainKey(event)) {
      event.preventDefault()
      // A price that is being typed counts: leaving its field writes it down.
      if (isTyping(event)) (event.target as HTMLElement).blur()
      if (trayAtHand.value?.mayIssue === true) void work.issue(trayAtHand.value.id)
      else if (trayAtHand.value?.maySend === true) void work.send(trayAtHand.value.id)
      return
    }
    if (isTyping(event)) return
    const nowhere = event.target === document.body
    const onLine = (event.target as HTMLElement).id === `line-${focused.value ?? ''}`
    if (event.key === 'ArrowDown') {
      event.preventDefault()
      move(1)
    } else if (event.key === 'ArrowUp') {
      event.preventDefault()
      move(-1)
    } else if (event.key === ' ' && onLine) {
      event.preventDefault()
      const l = lines.value.find((x) => x.id === focused.value)
      if (l !== undefined) mark(l)
    } else if (event.key === 'Enter' && (onLine || (nowhere && chosen.value.length > 0))) {
      event.preventDefault()
      void lay(enterLays.value, 'fitting')
    }
  },
)
const late = (l: DeskLine) => l.needBy < wording.today.value
</script>

<template>
  <div>
    <PageNote>{{ sayEnter }}</PageNote>
    <SheetPage>
      <div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-if="lines.length > 0 || isNarrowed"
          v-model="typed"
          class="field w-[210px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find among the lines"
          placeholder="Words, or R-26-*12"
        />
      </div>
      <p v-if="lines.length > 0 || isNarrowed" class="mt-1.5 leading-7 text-ink2">
        Lines
        <BlankChoice
          :model-value="one('aside')"
          :choices="[
            { id: '', name: 'that wait' },
            { id: 'yes', name: 'that are put aside or wait for an answer' },
          ]"
          label="Whether they wait"
          placeholder=""
          light
          @update:model-value="narrow({ aside: $event })"
        />,{{ ' ' }}
        <BlankChoice
          :model-value="one('supplier')"
          :choices="[
            { id: '', name: 'with a supplier or none' },
            { id: 'known', name: 'whose supplier is known' },
            { id: 'several', name: 'that others have too' },
            { id: 'none', name: 'without a supplier' },
          ]"
          label="With which supplier"
          placeholder=""
          light
          @update:model-value="narrow({ supplier: $event })"
        />, to
        <BlankChoice
          :model-value="one('shipToId')"
          :choices="[{ id: '', name: 'every place' }, ...(data?.places ?? [])]"
          label="To which place"
          placeholder=""
          light
          @update:model-value="narrow({ shipToId: $event })"
        />, needed
        <BlankChoice
          :model-value="one('due')"
          :choices="[
            { id: '', name: 'at any time' },
            { id: 'week', name: 'within a week' },
            { id: 'late', name: 'before today' },
          ]"
          label="When they are needed"
          placeholder=""
          light
          @update:model-value="narrow({ due: $event })"
        />,
        <BlankChoice
          :model-value="by"
          :choices="GROUPINGS"
          label="How they stand together"
          placeholder=""
          light
          @update:model-value="narrow({ by: $event })"
        />.
        <NuxtLink v-if="isNarrowed" class="quiet-link" to="/desk">all of them</NuxtLink>
      </p>
      <p class="mt-1.5 text-ink2">
        <template v-if="lines.length > 1"
          >Lay them on trays yourself, or
          <NuxtLink class="quiet-link" to="/desk/proposals">see the orders that Rekko would make of them</NuxtLink>.
          What rules order stands in <NuxtLink class="quiet-link" to="/orders/runs">their runs</NuxtLink>.</template
        >
        What nobody asked for, or was ordered by telephone already, is
        <NuxtLink class="quiet-link" to="/raise?as=order">ordered without a request</NuxtLink>.
      </p>
      <p v-if="error" class="notice-red mt-3">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-if="issued" class="notice-green mt-3" role="status">
        {{ issued.number }} is issued to {{ issued.supplier }}
        {{ issued.isSent ? 'and on its way' : 'and kept here: they have it already' }}.
        <NuxtLink class="quiet-link font-semibold" :to="`/orders/${issued.id}`">See the order</NuxtLink>
      </p>
      <MissingForOrders v-if="lines.length === 0 && !isNarrowed && !error" />
      <p v-if="lines.length === 0 && !isNarrowed && !error" class="mt-3 max-w-[60ch] text-ink2">
        Lines stand here as soon as they are approved, those of one supplier together. Lay them on a tray, also from
        several requests, and issue the order with one press. What was put aside
        <NuxtLink class="quiet-link" to="/desk?aside=yes">stands by itself</NuxtLink>.
      </p>
      <table v-if="lines.length > 0" class="table mt-3">
        <caption class="sr-only">
          Approved lines that wait to be ordered
        </caption>
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Asked by</th>
            <th scope="col" class="num">How many</th>
            <th scope="col" class="num">Price</th>
            <th scope="col" class="num">Amount</th>
            <th scope="col">To</th>
            <th scope="col">Needed</th>
          </tr>
        </thead>
        <tbody v-for="g in groups" :key="g.shared">
          <tr>
            <td colspan="4" class="pt-4! border-strong!">
              <button
                type="button"
                class="text-left hover:underline"
                :aria-label="`Mark all of ${sayGroup(g.shared)}`"
                @click="markGroup(g.list)"
              >
                <b class="font-semibold">{{ sayGroup(g.shared) }}</b>{{ ' ' }}
                <span class="text-ink2"
                  >· {{ g.list.length }} {{ g.list.length === 1 ? 'line' : 'lines'
                  }}<template v-if="freeFrom(g.list)">
                    · from {{ wording.price(freeFrom(g.list) ?? '0', g.list[0]?.currency ?? 'EUR') }} they pay the
                    freight</template
                  ></span
                >
              </button>
            </td>
            <td class="num border-strong! pt-4! font-semibold">
              <span v-for="s in g.sums" :key="s.currency" class="block">{{
                s.currency === data?.currency ? wording.amount(s) : wording.money(s)
              }}</span>
            </td>
            <td colspan="2" class="border-strong!" />
          </tr>
          <tr
            v-for="l in g.list"
            :id="`line-${l.id}`"
            :key="l.id"
            tabindex="0"
            draggable="true"
            class="cursor-pointer"
            :data-chosen="marked.has(l.id)"
            :aria-selected="marked.has(l.id)"
            :aria-label="sayLine(l)"
            @focus="at = focused = l.id"
            @blur="focused = null"
            @click="mark(l)"
            @dragstart="drag($event, l)"
          >
            <td>
              {{ l.description }}<span v-if="by !== ''" class="small block">{{ l.supplier ?? 'no supplier yet' }}</span
              ><span v-if="l.asideUntil && l.asideUntil > wording.today.value" class="small block text-amber-ink"
                >until {{ wording.shortDay(l.asideUntil)
                }}<template v-if="l.asideReason">: {{ l.asideReason }}</template></span
              ><span v-if="l.asked && (l.asked.isOpen || l.asked.answer)" class="small block"
                ><span :class="l.asked.isOpen ? 'text-amber-ink' : ''"
                  >{{ l.asked.by }} asked {{ wording.shortDay(l.asked.on) }}: “{{ l.asked.text }}”</span
                ><template v-if="l.asked.answer"> {{ l.asker }}: “{{ l.asked.answer }}”</template></span
              ><span v-if="l.agreement" class="small block">draws on {{ l.agreement }}</span
              ><button
                v-if="l.others"
                type="button"
                class="quiet-link small block min-h-6 text-left"
                @click.stop="sourcing = l"
              >
                {{ sayOthers(l, wording.ways) }}</button
              ><span v-if="l.noteInternal" class="small block">{{ l.noteInternal }}</span
              ><span v-if="l.supplierStanding === 'proposed'" class="small block text-amber-ink"
                >its supplier waits for finance</span
              >
            </td>
            <td class="text-ink2">
              <NuxtLink class="hover:underline" :to="`/trail/${l.requisitionId}`" tabindex="-1" @click.stop>{{
                l.asker
              }}</NuxtLink>
            </td>
            <td class="num">{{ wording.quantity(l.open, l.unit) }}</td>
            <td class="num">
              {{ wording.price(l.unitPrice, l.currency)
              }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span>
            </td>
            <td class="num">{{ wording.amount(l.net) }}</td>
            <td class="max-w-[130px] truncate text-ink2" :title="l.shipTo">{{ l.shipTo }}</td>
            <td class="whitespace-nowrap" :class="late(l) ? 'text-red' : ''">
              {{ wording.shortDay(l.needBy) }}<template v-if="late(l)">, late</template>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="data && data.total > lines.length" class="small mt-3">
        The oldest {{ lines.length }} of {{ formatCounted(data.total) }} stand here; the rest comes up as you order.
      </p>
      <template #margin>
        <div class="mb-2.5 flex items-baseline justify-between gap-3">
          <h2 class="head">Trays</h2>
          <span class="small">drag lines here, or Space and Enter</span>
        </div>
        <p v-if="trouble" class="notice-amber mb-2.5" role="alert">{{ trouble }}</p>
        <div v-if="needsSupplier" id="choose-supplier" class="mb-2.5">
          <p class="label">Who shall supply what is marked?</p>
          <SupplierPicker
            boxed
            :name="supplier?.name ?? null"
            :none="null"
            label="Supplier for the tray"
            @choose="supplier = $event"
          />
        </div>
        <div class="space-y-3">
          <TrayCard
            v-for="t in trays"
            :key="t.id"
            :tray="t"
            :active="t.id === trayAtHand?.id"
            :over="overTray === t.id"
            :busy="work.busy.value === t.id"
            :trouble="work.trouble.value[t.id] ?? ''"
            :issues-itself="work.wishOf(t)"
            @choose="activeTray = t.id"
            @issue="work.issue(t.id)"
            @send="work.send(t.id)"
            @wish="work.wish(t, $event)"
            @back="work.takeBack(t.id)"
            @answer="work.answer(t.id, $event)"
            @draw="drawing = t"
            @conditions="setting = t"
            @pass="passes.begin(t)"
            @write="work.writeOn(t.id)"
            @off="work.takeOff(t, $event)"
            @price="(lineId, p) => work.agree(t, lineId, p)"
            @note="work.note(t, $event)"
            @quantity="(lineIds, n) => work.count(t, lineIds, n)"
            @dragover.prevent="overTray = t.id"
            @dragleave="overTray = null"
            @drop.prevent="drop($event, t)"
          />
          <button
            type="button"
            :class="[
              'block w-full rounded border border-dashed border-edge px-3 py-4 text-center text-ink2',
              'hover:border-ink',
              overTray === 'new' ? 'bg-green-ground' : '',
            ]"
            @click="lay(chosen, 'new')"
            @dragover.prevent="overTray = 'new'"
            @dragleave="overTray = null"
            @drop.prevent="drop($event, 'new')"
          >
            {{
              chosen.length > 0
                ? `Lay ${chosen.length === 1 ? 'the marked line' : `the ${chosen.length} marked lines`} on a new tray`
                : 'Drop lines here for a new order'
            }}
          </button>
          <div v-if="chosen.length > 0">
            <AsideLines :lines="chosen" :aside="one('aside') === 'yes'" @done="refresh" />
            <AskAboutLine v-if="chosen.length === 1 && chosen[0]" :line="chosen[0]" @done="refresh" />
          </div>
        </div>
      </template>
    </SheetPage>
    <DrawChoice
      v-if="drawing"
      :order-id="drawing.id"
      :version="drawing.version"
      :supplier="drawing.supplier"
      @said="said"
      @close="drawing = null"
    />
    <LineOffers
      v-if="sourcing"
      :line="sourcing"
      :trays="openTrays"
      :at-hand="activeTray"
      @laid="sourced"
      @close="sourcing = null"
    />
    <ConditionsForm v-if="setting" :tray="setting" @kept="said" @close="setting = null" />
    <PassTray
      v-if="passing"
      :supplier="passing.tray.supplier"
      :buyers="passing.buyers"
      @pass="passes.pass"
      @close="passes.leave"
    />
  </div>
</template>
