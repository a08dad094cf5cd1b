<script setup lang="ts">
import type { PersonFound } from '#shared/contract/people'
import type { WaitingStep } from '#shared/contract/waiting'
import { capital, formatCount } from '#shared/words/format'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Waiting · Rekko' })
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const { words, typed } = useWordsFilter()
const mayMove = session.me?.rights.includes('move what waits') === true
const { data, error, refresh } = await useAsyncData(
  'waiting-steps',
  () => api.get('/api/waiting-steps', { query: { words: words.value } }),
  { watch: [words] },
)
useLive((changes) => {
  if (changes.some((c) => ['requisition', 'order', 'order change', 'again'].includes(c.kind))) void refresh()
})

const steps = computed(() => data.value?.steps ?? [])
/** Of what one may not see besides, only the number is known here. */
const seesSome = computed(() => steps.value.some((s) => s.document !== null))
const held = computed(() => data.value?.held ?? [])
const marks = ref<ReadonlySet<string>>(new Set())
/** Of what is marked, what still waits. */
const marked = computed(() => steps.value.filter((s) => marks.value.has(s.seatId)))
const isWhole = computed(() => marked.value.length === steps.value.length && steps.value.length > 0)
function mark(ids: readonly string[], on: boolean): void {
  const next = new Set(marks.value)
  for (const id of ids)
    if (on) next.add(id)
    else next.delete(id)
  marks.value = next
}

const MOVES = [
  { does: 'remind', says: 'remind them' },
  { does: 'pass on', says: 'pass it on' },
  { does: 'skip', says: 'skip them' },
] as const
const does = ref<(typeof MOVES)[number]['does']>('remind')
const to = shallowRef<PersonFound | null>(null)
const comment = ref('')
const said = ref('')
const { busy, trouble, act } = useAct()
const missing = computed(() =>
  marked.value.length === 0
    ? 'Mark what is to move'
    : does.value === 'pass on' && to.value === null
      ? 'Choose whom to pass it on to'
      : does.value === 'skip' && data.value?.skipTo === null
        ? 'The policy has no step skipped'
        : '',
)
const people = computed(() => new Set(marked.value.map((s) => s.name)).size)
const mainWords = computed(() => {
  if (missing.value !== '') return missing.value
  const what = formatCount(marked.value.length, 'step', 'steps')
  if (does.value === 'pass on') return `Pass ${what} on to ${to.value?.name ?? ''}`
  if (does.value === 'skip') return `Skip ${what}; ${data.value?.skipTo ?? ''} decides`
  return people.value === 1
    ? `Remind ${marked.value[0]?.name ?? ''} of ${what}`
    : `Remind ${formatCount(people.value, 'person', 'people')} of ${what}`
})
async function move(): Promise<void> {
  if (missing.value !== '') return
  const [first] = marked.value
  const moved = await act(async () => {
    await api.post('/api/waiting-steps/moves', {
      body: {
        seatIds: marked.value.map((s) => s.seatId),
        move: does.value === 'pass on' ? { does: 'pass on', toId: to.value?.id ?? '' } : { does: does.value },
        comment: comment.value,
      },
      key: crypto.randomUUID(),
    })
    said.value = {
      remind: `Reminded: ${first?.name ?? ''}${people.value > 1 ? ' and others' : ''}.`,
      'pass on': `Passed on to ${to.value?.name ?? ''}.`,
      skip: `Skipped; ${data.value?.skipTo ?? ''} is asked.`,
    }[does.value]
    marks.value = new Set()
    comment.value = ''
    to.value = null
  })
  await refresh()
  if (!moved) said.value = ''
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'move what is marked' }], (event) => {
  if (!mayMove || !isMainKey(event)) return
  event.preventDefault()
  void move()
})
const sentence = computed(() => {
  const total = data.value?.total ?? 0
  if (total === 0) return words.value === '' ? 'Nothing waits for anybody.' : 'Nothing that waits fits this.'
  const since = wording.since(steps.value[0]?.since ?? '')
  return `${formatCount(total, 'decision waits', 'decisions wait')}, the longest since ${since}.`
})
const age = (s: WaitingStep) => (s.days === 0 ? 'today' : formatCount(s.days, 'business day', 'business days'))
</script>

<template>
  <div>
    <PageNote>every step of the organisation, the longest waiting first</PageNote>
    <SheetPage>
      <div class="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-model="typed"
          class="field w-[210px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find among what waits"
          placeholder="A name, or R-26-*12"
        />
      </div>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <section v-if="held.length > 0" class="notice-red mb-4" aria-label="What is held">
        <p class="font-semibold">
          {{ capital(formatCount(held.length, 'request is held', 'requests are held')) }}: nobody is found who may
          decide
        </p>
        <ul>
          <li v-for="h in held" :key="h.number">
            <NuxtLink v-if="h.path" class="quiet-link" :to="h.path">{{ h.number }}</NuxtLink><template v-else>{{
              h.number
            }}</template
            ><template v-if="h.title">, {{ h.title }}</template
            >: {{ h.why }}.
          </li>
        </ul>
        <p class="mt-1">
          It goes on by itself once <NuxtLink class="quiet-link" to="/set-up/approval">the policy</NuxtLink>, the
          reporting line or an <NuxtLink class="quiet-link" to="/away">absence</NuxtLink> finds somebody.
        </p>
      </section>
      <p v-if="steps.length === 0 && words === ''" class="max-w-[60ch] text-ink2">
        Every request that somebody has to decide on stands here with whom it waits for and since when, so that nothing
        is forgotten on the desk of somebody who is away.
      </p>
      <p v-if="steps.length > 0 && !seesSome" class="mb-1 text-ink2">
        What each is about stays with those who may see it; here stand its number, whom it waits for and since when.
      </p>
      <table v-if="steps.length > 0" class="table">
        <caption class="sr-only">
          What waits
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th v-if="mayMove" scope="col" class="w-8">
              <input
                type="checkbox"
                class="size-4 align-[-2px] accent-[var(--green)]"
                aria-label="Mark all"
                :checked="isWhole"
                @change="
                  mark(
                    steps.map((s) => s.seatId),
                    ($event.target as HTMLInputElement).checked,
                  )
                "
              />
            </th>
            <th scope="col">Waits for</th>
            <th scope="col">Since</th>
            <th scope="col">What</th>
            <th v-if="seesSome" scope="col" class="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in steps" :key="s.seatId" class="folded">
            <td v-if="mayMove">
              <input
                type="checkbox"
                class="size-4 align-[-2px] accent-[var(--green)]"
                :aria-label="`Mark ${s.number}, which waits for ${s.name}`"
                :checked="marks.has(s.seatId)"
                @change="mark([s.seatId], ($event.target as HTMLInputElement).checked)"
              />
            </td>
            <td>
              <span class="font-medium">{{ s.name }}</span><span v-if="s.forName" class="small block"
                >for {{ s.forName }}</span
              >
            </td>
            <td>
              <time :datetime="s.since" :title="wording.exact(s.since)">{{ age(s) }}</time>
              <span class="small block"
                >{{ wording.moment(s.since) }}<template v-if="s.isLate">; their manager is asked too</template
                ><template v-else-if="s.remindedAt">; reminded {{ wording.moment(s.remindedAt) }}</template></span
              >
            </td>
            <td>
              <NuxtLink v-if="s.document" class="quiet-link" :to="s.document.path">{{ s.number }}</NuxtLink><template
                v-else
                >{{ s.number }}</template
              >
              <span v-if="s.document" class="ml-1.5">{{ s.document.title }}</span>
              <span v-if="s.document" class="small block">{{ s.document.owner }}</span>
            </td>
            <td v-if="seesSome" class="num">
              {{ s.document ? wording.kept(s.document.amount, s.document.currency) : '' }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="(data?.total ?? 0) > steps.length" class="small mt-3">
        These {{ steps.length }} wait the longest; find others by a name or a number.
      </p>
      <template v-if="mayMove && steps.length > 0" #margin>
        <h2 class="head mb-1.5">What becomes of what is marked</h2>
        <fieldset class="space-y-1.5">
          <legend class="sr-only">What to do</legend>
          <label v-for="m in MOVES" :key="m.does" class="flex items-center gap-2"
            ><input v-model="does" type="radio" name="does" :value="m.does" class="accent-[var(--green)]" />
            {{ m.says }}</label
          >
        </fieldset>
        <p class="small mt-2">
          <template v-if="does === 'remind'"
            >They are told once more, in Rekko and by e-mail; once a day is enough.</template
          >
          <template v-else-if="does === 'pass on'"
            >Somebody else decides, within their own limit; where limits count and theirs does not cover it, it goes on
            from there.</template
          >
          <template v-else-if="data?.skipTo"
            >{{ data.skipTo }} decides in their place. Nothing is approved by skipping.</template
          >
          <template v-else
            >The <NuxtLink class="quiet-link" to="/set-up/approval">approval policy</NuxtLink> says that no step is
            skipped; pass it on instead.</template
          >
        </p>
        <PersonPicker
          v-if="does === 'pass on'"
          v-model="to"
          class="mt-2"
          boxed
          label="Whom to pass it on to"
          placeholder="Whom to pass it on to"
        />
        <textarea
          v-if="does !== 'remind'"
          v-model="comment"
          class="field mt-2"
          rows="2"
          maxlength="2000"
          aria-label="Why, for whoever decides"
          placeholder="Why, for whoever decides"
        />
      </template>
      <template v-if="mayMove && steps.length > 0" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
        <MainAction :busy="busy" :missing="missing !== ''" keys="Ctrl ⏎" @press="move">{{ mainWords }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
