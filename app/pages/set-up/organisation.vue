<script setup lang="ts">
import { minorUnits } from '#core/base/currency'
import { fiscalPeriod } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import type { SecondFactorFor } from '#core/people/person'
import { KEPT_KINDS, type KeptKind } from '#core/people/retention'
import type { PersonFound } from '#shared/contract/people'
import type { OrganisationView } from '#shared/contract/organisation'
import { formatCount, formatYear } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankText from '~/components/base/BlankText.vue'
import MainAction from '~/components/base/MainAction.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Organisation · Rekko' })
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const { data, error, refresh } = await useAsyncData('organisation', () => api.get('/api/organisation'))
if (error.value || !data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const may = (right: 'keep settings' | 'keep budgets') => session.me?.rights.includes(right) === true

const FIELDS = [
  'name',
  'address',
  'letterhead',
  'mailFrom',
  'tolerancePercent',
  'toleranceAmount',
  'secondFactorFor',
] as const
type Said = Record<(typeof FIELDS)[number], string> & { secondFactorFor: SecondFactorFor }
const forKinds = <T,>(of: (kind: KeptKind) => T) =>
  Object.fromEntries(KEPT_KINDS.map((k) => [k, of(k)])) as Record<KeptKind, T>
const keptOf = (o: OrganisationView) => forKinds((k) => String(o.kept[k] ?? ''))
const typedOf = (o: OrganisationView): Said => ({
  name: o.name,
  address: o.address,
  letterhead: o.letterhead,
  mailFrom: o.mailFrom,
  secondFactorFor: o.secondFactorFor,
  tolerancePercent: wording.typed(o.tolerancePercent),
  toleranceAmount: wording.typed(dec(o.toleranceAmount).toFixed(minorUnits(o.baseCurrency))),
})
const organisation = computed(() => data.value as OrganisationView)
const said = reactive(typedOf(organisation.value))
const kept = reactive(keptOf(organisation.value))
const isChanged = computed(
  () =>
    FIELDS.some((f) => said[f] !== typedOf(organisation.value)[f]) ||
    KEPT_KINDS.some((k) => kept[k] !== keptOf(organisation.value)[k]),
)
const daysOf = (text: string): number | null => (text === '' ? null : Number(text))
const DAYS = [7, 30, 90, 180, 365, 730, 1095, 1825, 3650]
const spans = (now: string) => [
  { id: '', name: 'for good' },
  ...[...new Set([...DAYS, ...(now === '' ? [] : [Number(now)])])]
    .sort((a, b) => a - b)
    .map((days) => ({
      id: String(days),
      name: days % 365 === 0 ? formatCount(days / 365, 'year', 'years') : formatCount(days, 'day', 'days'),
    })),
]
function takeOver(): void {
  Object.assign(said, typedOf(organisation.value))
  Object.assign(kept, keptOf(organisation.value))
}
const busy = ref(false)
const trouble = ref('')
const told = ref('')
useLive(async (changes) => {
  if (!changes.some((c) => c.kind === 'settings' || c.kind === 'again') || busy.value) return
  const untouched = !isChanged.value
  await refresh()
  if (untouched) takeOver()
})

const MONTHS = Array.from({ length: 12 }, (_, i) =>
  new Date(Date.UTC(2026, i, 15)).toLocaleDateString('en', { month: 'long', timeZone: 'UTC' }),
)
const number = (text: string) => readTypedNumber(text === '' ? '0' : text, wording.decimalMark)
const lacks = computed(() => {
  const empty = (field: 'name' | 'address', sentence: string) =>
    said[field].trim() === '' ? [{ field, sentence }] : []
  return [
    ...empty('name', 'The organisation has no name.'),
    ...empty('address', 'The address is empty; it stands on orders.'),
    ...(/^\S+@\S+\.\S+$/.test(said.mailFrom.trim())
      ? []
      : [{ field: 'mailFrom', sentence: `“${said.mailFrom}” is no e-mail address.` }]),
    ...(['tolerancePercent', 'toleranceAmount'] as const).flatMap((field) =>
      number(said[field]) === null ? [{ field, sentence: `“${said[field]}” is no number.` }] : [],
    ),
  ]
})

/** Does one thing at a time; a refusal becomes a sentence, and what somebody else changed is read. */
async function act(work: () => Promise<string>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  told.value = ''
  try {
    told.value = await work()
    await refresh()
  } catch (e) {
    trouble.value = sayError(e)
    if (e instanceof ApiProblem && e.status === 412) await refresh()
  } finally {
    busy.value = false
  }
}
function keep(): void {
  const first = lacks.value[0]
  if (first !== undefined) {
    document.getElementById(`organisation-${first.field}`)?.focus()
    return
  }
  if (!isChanged.value || !may('keep settings')) return
  void act(async () => {
    const body = {
      name: said.name,
      address: said.address,
      letterhead: said.letterhead,
      mailFrom: said.mailFrom.trim(),
      tolerancePercent: number(said.tolerancePercent) ?? '0',
      toleranceAmount: number(said.toleranceAmount) ?? '0',
      secondFactorFor: said.secondFactorFor,
      kept: forKinds((k) => daysOf(kept[k])),
    }
    await api.put('/api/organisation', { body, version: organisation.value.version })
    await refresh()
    takeOver()
    return 'Kept: it stands on what leaves from now on.'
  })
}
const sendLetter = () =>
  act(async () => {
    const { to } = await api.post('/api/test-letters')
    return `A letter left for ${to}.`
  })
type Period = OrganisationView['years'][number]['periods'][number]
const setPeriod = (year: number, p: Period) =>
  act(async () => {
    await api.put('/api/fiscal-years/{year}/periods/{period}', {
      params: { year, period: p.period },
      body: { closed: !p.closed },
    })
    return `${wording.ways.month(p.from)} is ${p.closed ? 'open' : 'closed'}.`
  })
const lost = shallowRef<PersonFound | null>(null)
const dropFactor = (person: PersonFound) =>
  act(async () => {
    await api.remove('/api/people/{id}/second-factor', { params: { id: person.id } })
    lost.value = null
    return `${person.name} signs in without a code until they set one up again.`
  })
const nextYear = computed(() => Math.max(...organisation.value.years.map((y) => y.year)) + 1)
const addYear = () =>
  act(async () => {
    const year = nextYear.value
    await api.put('/api/fiscal-years/{year}', { params: { year } })
    return `${sayYear(year)} is there; its budget lines come next.`
  })
const sayYear = (year: number) => (organisation.value.fiscalStartMonth === 1 ? String(year) : formatYear(year))
const now = computed(() => fiscalPeriod(wording.today.value, organisation.value.fiscalStartMonth))
const isNow = (year: number, p: Period) => now.value.year === year && now.value.period === p.period
const sayOpen = (periods: readonly Period[]) => {
  const open = periods.filter((p) => !p.closed).length
  return open === periods.length ? 'open' : open === 0 ? 'closed' : formatCount(open, 'period open', 'periods open')
}
const FACTORS: { id: SecondFactorFor; name: string }[] = [
  { id: 'nobody', name: 'nobody' },
  { id: 'office', name: 'administrators and finance' },
  { id: 'everybody', name: 'everybody' },
]
const KEPT_WORDS: Readonly<Record<KeptKind, readonly [before: string, after: string]>> = {
  sessions: ['Sessions, with the address they came from, are kept', 'after they ended.'],
  notices: ['Notices that were read are kept', 'from the day on which they came.'],
  letters: ['Letters that left are kept', '. What went to suppliers stays with its order.'],
  people: [
    'Who somebody was who left is kept',
    'after their last day, and then erased where they own nothing any more.',
  ],
}
const SERIES: Readonly<Record<string, string>> = { R: 'Requisitions', P: 'Purchase orders', SUP: 'Suppliers' }
const action = computed(() => {
  if (lacks.value.length > 0) return formatCount(lacks.value.length, 'blank to put right', 'blanks to put right')
  return isChanged.value ? 'Keep what stands here' : 'Nothing is changed'
})
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'keep what stands here' }], (event) => {
  if (!isMainKey(event)) return
  event.preventDefault()
  keep()
})
</script>

<template>
  <div>
    <PageNote>every change is kept with what was before</PageNote>
    <SheetPage>
      <h1 class="sr-only">Organisation</h1>
      <div v-if="may('keep settings')" class="sentence">
        We are
        <BlankText
          id="organisation-name"
          v-model="said.name"
          label="Organisation"
          placeholder="your organisation"
          :most="120"
        />, at
        <BlankText
          id="organisation-address"
          v-model="said.address"
          label="Address"
          placeholder="street, postcode and town"
          :most="300"
        />. Under it our papers say
        <BlankText
          id="organisation-letterhead"
          v-model="said.letterhead"
          label="What else stands under the name on papers"
          placeholder="nothing else"
          :most="300"
        />. Letters leave from
        <BlankText
          id="organisation-mailFrom"
          v-model="said.mailFrom"
          label="E-mail address of letters"
          placeholder="purchasing@your.organisation"
          :most="254"
        />. An order may exceed what was approved by
        <BlankText
          id="organisation-tolerancePercent"
          v-model="said.tolerancePercent"
          label="Tolerance in percent"
          placeholder="0"
          :most="8"
        />
        %, and not by more than {{ organisation.baseCurrency }}
        <BlankText
          id="organisation-toleranceAmount"
          v-model="said.toleranceAmount"
          label="Tolerance as an amount"
          placeholder="0"
          :most="20"
        />, before it is decided again. Signing in asks
        <BlankChoice
          id="organisation-secondFactorFor"
          v-model="said.secondFactorFor"
          :choices="FACTORS"
          label="Of whom a second factor is asked"
          placeholder="nobody"
        />
        for a second factor.
      </div>
      <p v-else class="sentence">We are {{ organisation.name }}, at {{ organisation.address }}.</p>
      <p class="mt-2 text-ink2">
        We count in {{ organisation.baseCurrency }}, by the clock of {{ organisation.timeZone.replace(/_/g, ' ') }}; our
        year begins in {{ MONTHS[organisation.fiscalStartMonth - 1] }}. These three were said once: every figure there
        is was counted by them.
      </p>
      <section v-if="may('keep settings')" class="mt-7" aria-labelledby="kept">
        <h2 id="kept" class="head">What is kept of people, and how long</h2>
        <p class="small mb-2 max-w-[70ch]">
          Documents, decisions and the events of the trail stay for good. What is named here goes by itself, every
          night.
        </p>
        <ul class="max-w-[70ch]">
          <li v-for="k in KEPT_KINDS" :key="k" class="border-t border-rule py-1.5">
            {{ KEPT_WORDS[k][0] }}
            <BlankChoice
              :id="`organisation-${k}`"
              v-model="kept[k]"
              :choices="spans(kept[k])"
              :label="`How long, of: ${KEPT_WORDS[k][0]}`"
              placeholder="for good"
              light
            />{{ kept[k] === '' ? '.' : ` ${KEPT_WORDS[k][1]}` }}
          </li>
        </ul>
      </section>
      <section class="mt-7" aria-labelledby="periods">
        <h2 id="periods" class="head">Periods</h2>
        <p class="small mb-2 max-w-[70ch]">
          A closed period takes no new request, order or bill; what stands in it stays. A request that comes back while
          its period is closed takes the day on which it is sent.
        </p>
        <details
          v-for="y in organisation.years"
          :key="y.year"
          class="border-t border-rule py-1.5"
          :open="y.year === now.year"
        >
          <summary class="min-h-6 cursor-pointer">
            <span class="font-semibold">{{ sayYear(y.year) }}</span>
            <span class="text-ink2">, {{ sayOpen(y.periods) }}</span>
          </summary>
          <ol class="mt-1.5 grid grid-cols-4 gap-x-6 max-[900px]:grid-cols-2">
            <li
              v-for="p in y.periods"
              :key="p.period"
              class="flex min-h-[30px] items-baseline justify-between gap-2 border-t border-rule py-1 first:border-0"
              :class="p.period <= 4 ? 'min-[901px]:border-0' : ''"
            >
              <span :class="isNow(y.year, p) ? 'font-semibold' : p.closed ? 'text-ink3' : ''"
                >{{ wording.ways.month(p.from) }}<span v-if="p.closed" class="small">, closed</span></span
              >
              <button
                v-if="may('keep budgets')"
                type="button"
                class="quiet-link min-h-6"
                :aria-label="`${p.closed ? 'Open' : 'Close'} ${wording.ways.month(p.from)}`"
                @click="setPeriod(y.year, p)"
              >
                {{ p.closed ? 'open' : 'close' }}
              </button>
            </li>
          </ol>
        </details>
        <p class="border-t border-rule pt-2">
          <button v-if="may('keep budgets')" type="button" class="quiet-link min-h-6" @click="addYear">
            Add {{ sayYear(nextYear) }}</button
          ><span v-else class="text-ink2">Finance opens, closes and adds periods.</span>
        </p>
      </section>
      <section v-if="organisation.series.length > 0" class="mt-7" aria-labelledby="series">
        <h2 id="series" class="head">Numbers</h2>
        <p class="small mb-1 max-w-[70ch]">
          Given by series and fiscal year, from 1 and without gaps, when something first leaves its author.
        </p>
        <table class="table max-w-[560px]">
          <caption class="sr-only">
            Series of numbers
          </caption>
          <thead>
            <tr>
              <th scope="col">Series</th>
              <th scope="col">Year</th>
              <th scope="col" class="num">The next</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in organisation.series" :key="`${s.series} ${s.year}`">
              <td>{{ SERIES[s.series] ?? `Requisitions of the series ${s.series}` }}</td>
              <td class="text-ink2">{{ sayYear(s.year) }}</td>
              <td class="num">{{ s.next }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <template #margin>
        <h2 class="head mb-1.5">Kept as lists</h2>
        <ul>
          <li v-if="may('keep settings')" class="border-t border-rule py-1.5">
            <NuxtLink class="quiet-link" to="/set-up/lists/holidays">Holidays</NuxtLink>
            <span class="small block">days on which nobody works</span>
          </li>
          <li v-if="may('keep budgets')" class="border-t border-rule py-1.5">
            <NuxtLink class="quiet-link" to="/set-up/lists/rates">Exchange rates</NuxtLink>
            <span class="small block">by hand, or as the European Central Bank publishes them</span>
          </li>
        </ul>
        <template v-if="may('keep settings')">
          <h2 class="head mb-1 mt-5">Do letters arrive?</h2>
          <p>
            <button type="button" class="quiet-link min-h-6" :disabled="busy" @click="sendLetter">
              Send a letter to yourself
            </button>
            now; what the mail server answers stands here.
          </p>
          <h2 class="head mb-1 mt-5">Has somebody lost their second factor?</h2>
          <p class="text-ink2">Make sure it is them; a mail tells them that it was taken away.</p>
          <PersonPicker v-model="lost" class="mt-1.5" boxed label="Who lost it" placeholder="Who lost it" />
          <button v-if="lost" type="button" class="action mt-2" @click="dropFactor(lost)">
            Take the second factor of {{ lost.name }} away
          </button>
        </template>
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <p v-else-if="told" class="notice-green mb-2.5" role="status">{{ told }}</p>
        <MainAction
          v-if="may('keep settings')"
          :missing="lacks.length > 0 || !isChanged"
          :busy="busy"
          keys="Ctrl ⏎"
          @press="keep"
          >{{ action }}</MainAction
        >
        <p v-else class="text-ink2">An administrator changes who we are.</p>
      </template>
    </SheetPage>
  </div>
</template>
