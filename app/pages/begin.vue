<script setup lang="ts">
import { STARTING_POLICIES, type StartingPolicy } from '#core/approval/starting'
import { isDecimalText } from '#core/base/decimal'
import { passwordShape } from '#core/people/password'
import { readTypedNumber } from '#core/base/typed-number'
import { STARTING_POLICY_WORDS } from '#shared/words/first-start'
import { capital, formatCount } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankText from '~/components/base/BlankText.vue'
import MainAction from '~/components/base/MainAction.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import PasswordField from '~/components/session/PasswordField.vue'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { isMainKey } from '~/composables/base/use-keys'
import { useSessionStore } from '~/stores/session'

definePageMeta({ layout: false })
useHead({ title: 'Begin · Rekko' })
const api = useApi()
const session = useSessionStore()
const route = useRoute()
const key = typeof route.query.key === 'string' ? route.query.key : ''
const { data: start } = await useAsyncData('first-start', () => api.get('/api/first-start', { query: { key } }))

const said = reactive({
  name: '',
  street: '',
  postcode: '',
  town: '',
  country: '',
  region: '',
  currency: '',
  timeZone: '',
  month: '1',
  taxRate: '',
  reducedRate: '',
  person: '',
  email: '',
  department: '',
  costCentre: '',
  limit: '',
  mailFrom: '',
  policy: 'managers' as string,
})
const password = ref('')
const busy = ref(false)
const trouble = ref('')
onMounted(() => {
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone
  if (start.value?.timeZones.includes(here) === true) said.timeZone = here
  lead('begin-name')
})

const MONTHS = Array.from({ length: 12 }, (_, i) => ({
  id: String(i + 1),
  name: new Intl.DateTimeFormat('en', { month: 'long', timeZone: 'UTC' }).format(Date.UTC(2026, i, 1)),
}))
const regions = computed(() => start.value?.countries.find((c) => c.id === said.country)?.regions ?? [])
watch(
  () => said.country,
  () => (said.region = ''),
)
const country = computed(() => start.value?.countries.find((c) => c.id === said.country))
/** What is usual in the country, where it is not what stands there. */
const usual = computed(() => {
  const rates = country.value?.rates ?? null
  if (rates === null || (said.taxRate === rates.standard && said.reducedRate === (rates.reduced ?? ''))) return null
  return rates
})
function takeUsual(): void {
  const rates = usual.value
  if (rates === null) return
  said.taxRate = rates.standard
  said.reducedRate = rates.reduced ?? ''
}
const zones = computed(() => (start.value?.timeZones ?? []).map((id) => ({ id, name: id.replaceAll('_', ' ') })))
const policies = STARTING_POLICIES.map((id) => ({ id, name: STARTING_POLICY_WORDS[id] }))
/** A number as it was typed, with a point or a comma; "" is none. */
const numberOf = (text: string) => (text.trim() === '' ? null : readTypedNumber(text.replace('%', ''), '.'))
const isMail = (text: string) => /^[^\s@]+@[^\s@.]+(\.[^\s@.]+)+$/.test(text.trim())

interface Lack {
  readonly id: string
  readonly sentence: string
}
const lacks = computed<Lack[]>(() => {
  const found: Lack[] = []
  const need = (id: keyof typeof said, sentence: string) => {
    if (said[id].trim() === '') found.push({ id: `begin-${id}`, sentence })
  }
  need('name', 'What your organisation is called')
  need('street', 'The street it is in')
  need('town', 'The town it is in')
  need('country', 'The country it is in')
  need('currency', 'The currency you count in')
  need('timeZone', 'The clock you go by')
  for (const id of ['taxRate', 'reducedRate'] as const)
    if (said[id].trim() !== '' && numberOf(said[id]) === null)
      found.push({ id: `begin-${id}`, sentence: `“${said[id]}” is no rate of tax` })
  if (!isMail(said.mailFrom)) found.push({ id: 'begin-mailFrom', sentence: 'The e-mail address that orders come from' })
  need('person', 'Who you are')
  if (!isMail(said.email)) found.push({ id: 'begin-email', sentence: 'Your e-mail address' })
  need('department', 'Your department')
  need('costCentre', 'Its cost centre')
  const limit = numberOf(said.limit)
  if (limit === null || !isDecimalText(limit))
    found.push({ id: 'begin-limit', sentence: 'Up to how much you decide and order' })
  const [reason] = passwordShape(password.value, null)
  if (reason !== undefined) found.push({ id: 'begin-password', sentence: 'A password of at least 15 characters' })
  return found
})
const words = computed(() =>
  lacks.value.length === 0
    ? `Begin Rekko for ${said.name.trim()}`
    : `${capital(formatCount(lacks.value.length, 'thing', 'things'))} missing, then it begins`,
)
const lead = (id: string) => {
  document.getElementById(id)?.focus()
}

async function begin(): Promise<void> {
  const [first] = lacks.value
  if (first !== undefined) {
    lead(first.id)
    return
  }
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    const { month, policy, taxRate, reducedRate, limit, ...texts } = said
    session.me = await api.post('/api/first-start', {
      body: {
        ...texts,
        email: said.email.trim(),
        mailFrom: said.mailFrom.trim(),
        key,
        fiscalStartMonth: Number(month),
        taxRate: numberOf(taxRate),
        reducedRate: numberOf(reducedRate),
        limit: numberOf(limit) ?? '0',
        password: password.value,
        policy: policy as StartingPolicy,
      },
    })
    await navigateTo('/set-up')
  } catch (e) {
    trouble.value = sayError(e)
    const field = e instanceof ApiProblem ? e.fields[0]?.field : undefined
    if (field !== undefined) lead(`begin-${field}`)
  } finally {
    busy.value = false
  }
}
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event)) return
  event.preventDefault()
  void begin()
}
</script>

<template>
  <div class="px-5 pt-4 max-[900px]:px-3" @keydown="onKey">
    <p class="mb-3 flex items-center gap-2 font-serif text-[20px] font-medium">
      <svg width="20" height="20" viewBox="0 0 24 24" aria-hidden="true">
        <rect x="4" y="4" width="5" height="15" rx="1.5" fill="var(--ink)" />
        <rect x="13" y="9" width="5" height="10" rx="1.5" fill="none" stroke="var(--ink)" stroke-width="1.8" />
        <path d="M1 21h22" stroke="var(--ink)" stroke-width="1.8" /></svg
      >Rekko
    </p>
    <SheetPage v-if="start?.opens">
      <h1 class="sr-only">Begin</h1>
      <div class="sentence">
        We are
        <BlankText
          id="begin-name"
          v-model="said.name"
          label="Organisation"
          placeholder="your organisation"
          :most="120"
        />, at
        <BlankText
          id="begin-street"
          v-model="said.street"
          label="Street"
          placeholder="street and number"
          :most="200"
        />,
        <BlankText id="begin-postcode" v-model="said.postcode" label="Postcode" placeholder="postcode" :most="20" />{{
          ' '
        }}<BlankText id="begin-town" v-model="said.town" label="Town" placeholder="town" :most="100" /> in
        <BlankChoice
          id="begin-country"
          v-model="said.country"
          :choices="start.countries"
          label="Country"
          placeholder="which country"
        />.
      </div>
      <p class="small mt-1">
        This stands on orders; deliveries come here until you name other places. Public holidays are entered for you:
        those of
        <BlankChoice
          v-if="regions.length > 0"
          id="begin-region"
          v-model="said.region"
          :choices="[{ id: '', name: 'the whole country' }, ...regions]"
          label="Region whose public holidays hold"
          placeholder="the whole country"
          light
        /><template v-else>the country</template>.
      </p>
      <div class="sentence mt-6">
        We count in
        <BlankChoice
          id="begin-currency"
          v-model="said.currency"
          :choices="start.currencies"
          label="Currency"
          placeholder="which currency"
        />, by the clock of
        <BlankChoice
          id="begin-timeZone"
          v-model="said.timeZone"
          :choices="zones"
          label="Time zone"
          placeholder="which time zone"
        />; our year begins in
        <BlankChoice
          id="begin-month"
          v-model="said.month"
          :choices="MONTHS"
          label="First month"
          placeholder="which month"
        />. Tax is
        <BlankText id="begin-taxRate" v-model="said.taxRate" label="Rate of tax" placeholder="no" :most="8" /> % as a
        rule, and
        <BlankText id="begin-reducedRate" v-model="said.reducedRate" label="Reduced rate" placeholder="no" :most="8" />
        % reduced. Orders leave as mail from
        <BlankText
          id="begin-mailFrom"
          v-model="said.mailFrom"
          label="E-mail address of orders"
          placeholder="purchasing@your.organisation"
          :most="254"
        />.
      </div>
      <p v-if="usual" class="small mt-1">
        Usual in {{ country?.name }}: {{ usual.standard }} %{{
          usual.reduced === null ? ', and none reduced' : ` and ${usual.reduced} % reduced`
        }}.
        <button type="button" class="quiet-link min-h-6" @click="takeUsual">Take these</button>
      </p>
      <div class="sentence mt-6">
        I am
        <BlankText id="begin-person" v-model="said.person" label="Your name" placeholder="your name" :most="100" />,
        <BlankText
          id="begin-email"
          v-model="said.email"
          label="Your e-mail"
          placeholder="your e-mail address"
          :most="254"
        />, of
        <BlankText
          id="begin-department"
          v-model="said.department"
          label="Your department"
          placeholder="your department"
          :most="100"
        />
        with the cost centre
        <BlankText
          id="begin-costCentre"
          v-model="said.costCentre"
          label="Cost centre"
          placeholder="its code"
          :most="20"
        />; I decide and order up to
        <BlankText id="begin-limit" v-model="said.limit" label="Your limit" placeholder="how much" :most="20" />.
      </div>
      <p class="small mt-1">You begin as administrator, finance and buyer, and pass on what others are to do.</p>
      <PasswordField id="begin-password" v-model="password" class="mt-3 max-w-[420px]" label="My password" />
      <div class="sentence mt-6">
        To begin with,
        <BlankChoice
          id="begin-policy"
          v-model="said.policy"
          :choices="policies"
          label="How approval begins"
          placeholder="who decides"
        />.
      </div>
      <template #margin>
        <p class="text-ink2">
          Rekko begins here, once. Everything can be changed afterwards; departments, people, accounts, budgets and
          suppliers come next, by hand or as files.
        </p>
      </template>
      <template #action>
        <ul v-if="lacks.length > 0" class="mb-2.5 space-y-1.5" aria-label="What is missing">
          <li v-for="l in lacks.slice(0, 6)" :key="l.id" class="notice-amber">
            <button type="button" class="block w-full text-left hover:underline" @click="lead(l.id)">
              {{ l.sentence }}
            </button>
          </li>
          <li v-if="lacks.length > 6" class="small">and {{ lacks.length - 6 }} more</li>
        </ul>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="lacks.length > 0" :busy="busy" keys="Ctrl ⏎" @press="begin">{{
          busy ? 'Beginning …' : words
        }}</MainAction>
      </template>
    </SheetPage>
    <main v-else id="page" tabindex="-1" class="mx-auto max-w-[60ch] py-16">
      <h1 class="sentence">
        {{ start?.isSetUp ? 'This Rekko is set up already.' : 'This address opens nothing any more.' }}
      </h1>
      <p class="mt-3 text-ink2">
        <template v-if="start?.isSetUp"
          ><NuxtLink class="quiet-link" to="/sign-in">Sign in</NuxtLink> with your e-mail address and
          password.</template
        ><template v-else
          >It holds for a day and once. Start Rekko again: each start prints a new address until an organisation is set
          up.</template
        >
      </p>
    </main>
  </div>
</template>
