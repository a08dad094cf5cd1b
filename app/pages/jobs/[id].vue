<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { subtract } from '#core/base/money'
import { formatCount, inWords, listWords } from '#shared/words/format'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

const PlanForm = defineAsyncComponent(() => import('~/components/job/PlanForm.vue'))

definePageMeta({ key: (route) => route.path })
const api = useApi()
const wording = useWording()
const id = String(useRoute().params.id)
const { data, error, refresh } = await useAsyncData(`job-${id}`, () => api.get('/api/jobs/{id}', { params: { id } }))
if (error.value || !data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const job = computed(() => {
  if (!data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
  return data.value
})
useHead({ title: () => `${job.value.name} · Rekko` })
const writing = ref(false)
const { busy, trouble, act } = useAct()
const told = ref('')
useLive((changes) => {
  const concerns = changes.some((c) => c.id === id || c.kind === 'requisition' || c.kind === 'again')
  if (concerns && !busy.value && !writing.value) void refresh()
})
type Part = (typeof job.value.parts)[number]
const isOpen = (p: Part) => dec(p.progress.open).isPositive()
const open = computed(() => job.value.parts.filter(isOpen))
const chosen = ref<string[]>([])
const raising = computed(() => open.value.filter((p) => chosen.value.length === 0 || chosen.value.includes(p.id)))
const sentence = computed(() => {
  const n = job.value.parts.length
  if (!job.value.isOpen) return 'is closed.'
  if (n === 0) return job.value.mayChange ? 'has no parts yet.' : 'is open.'
  const left = open.value.length
  const many = formatCount(n, 'part', 'parts')
  if (left === 0) return `has ${many}, all of them asked for.`
  if (left === n) return `has ${many}, none of them asked for yet.`
  return `has ${many}; ${inWords(left)} of them ${left === 1 ? 'is' : 'are'} not asked for yet.`
})
const said = computed(() => {
  const { startsOn, endsOn, shipTo, budgetLine, people } = job.value
  const days = [
    startsOn === null ? '' : `from ${wording.day(startsOn)}`,
    endsOn === null ? '' : `to ${wording.day(endsOn)}`,
  ].filter((t) => t !== '')
  return [
    days.length === 0 ? '' : `Done ${days.join(' ')}.`,
    shipTo === null ? '' : `Things go to ${shipTo}.`,
    budgetLine === null ? '' : `${budgetLine} pays.`,
    people.length === 0 ? '' : `At work on it: ${listWords(people.map((p) => p.name))}.`,
  ].filter((t) => t !== '')
})
const left = computed(() => subtract(job.value.estimate, job.value.ordered))
const STATES: Record<string, string> = { draft: 'a draft' }
const canRaise = computed(() => job.value.mayChange && job.value.isOpen && raising.value.length > 0)
const action = computed(() => {
  if (raising.value.length === 0) return 'Nothing of it is open'
  if (chosen.value.length > 0) return `Raise ${formatCount(raising.value.length, 'part', 'parts')}`
  return `Raise what is open: ${formatCount(raising.value.length, 'part', 'parts')}`
})
async function raise(): Promise<void> {
  if (!canRaise.value || busy.value) return
  const done = await act(async () => {
    const made = await api.post('/api/jobs/{id}/raise', {
      params: { id },
      version: job.value.version,
      body: { partIds: chosen.value.length === 0 ? null : raising.value.map((p) => p.id) },
      key: crypto.randomUUID(),
    })
    await navigateTo(`/raise/${made.id}`)
  })
  // Somebody may have raised some of it meanwhile.
  if (!done) await refresh()
}
async function kept(): Promise<void> {
  writing.value = false
  told.value = 'It is kept.'
  await refresh()
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'raise what is open' }], (event) => {
  if (!isMainKey(event) || event.repeat || writing.value) return
  event.preventDefault()
  void raise()
})
</script>

<template>
  <div>
    <PageNote><NuxtLink class="hover:underline" to="/jobs">back to the jobs</NuxtLink></PageNote>
    <SheetPage>
      <h1 class="sentence">
        <b>{{ job.name }}</b> {{ sentence }}
      </h1>
      <p class="small mt-1.5">
        {{ [job.number, job.department ?? ''].filter((t) => t !== '').join(' · ') }} ·
        <NuxtLink class="quiet-link" :to="`/mine?job=${job.id}`">your requests for it</NuxtLink>
      </p>
      <p v-if="said.length > 0" class="mt-3 max-w-[80ch]">{{ said.join(' ') }}</p>
      <p v-if="told" class="mt-2" role="status">{{ told }}</p>
      <p v-if="!job.mayChange && job.parts.length === 0" class="mt-3 max-w-[60ch] text-ink2">
        What it needs is shown to the people at work on it and to its department.
      </p>
      <div v-if="job.parts.length > 0" class="mt-3 overflow-x-auto" tabindex="0" role="region" aria-label="Parts">
        <table class="table">
          <caption class="sr-only">
            Parts of the job
          </caption>
          <thead>
            <tr>
              <th v-if="job.mayChange && job.isOpen" scope="col"><span class="sr-only">Raise it</span></th>
              <th scope="col">Part</th>
              <th scope="col" class="num">Needed</th>
              <th scope="col" class="num">Asked for</th>
              <th scope="col" class="num">Ordered</th>
              <th scope="col" class="num">Open</th>
              <th scope="col" class="num">One, expected</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in job.parts" :key="p.id">
              <td v-if="job.mayChange && job.isOpen" class="align-top">
                <input
                  v-if="isOpen(p)"
                  v-model="chosen"
                  type="checkbox"
                  class="size-4 accent-[var(--green)]"
                  :value="p.id"
                  :aria-label="`Raise ${p.description}`"
                />
              </td>
              <td class="align-top">
                <NuxtLink v-if="p.itemId" class="font-semibold hover:underline" :to="`/catalogue/${p.itemId}`">{{
                  p.description
                }}</NuxtLink>
                <span v-else class="font-semibold">{{ p.description }}</span>
                <span class="small block"
                  >{{ [p.itemNumber ?? '', p.supplier ?? ''].filter((t) => t !== '').join(' · ')
                  }}<span v-if="p.retired" class="text-amber-ink"> · no longer in the catalogue</span
                  ><template v-for="(r, i) in p.requisitions" :key="r.id"
                    >{{ i > 0 || p.itemNumber ? ' · ' : '' }}
                    <NuxtLink class="quiet-link" :to="r.state === 'draft' ? `/raise/${r.id}` : `/trail/${r.id}`">{{
                      r.number ?? STATES[r.state] ?? r.state
                    }}</NuxtLink>{{ ' ' }}</template
                  ></span
                >
              </td>
              <td class="num align-top">{{ wording.quantity(p.quantity, p.unit) }}</td>
              <td class="num align-top">
                {{ wording.decimal(p.progress.asked)
                }}<span v-if="dec(p.progress.drafted).isPositive()" class="small block"
                  >{{ wording.decimal(p.progress.drafted) }} on drafts</span
                >
              </td>
              <td class="num align-top">{{ wording.decimal(p.progress.ordered) }}</td>
              <td class="num align-top" :class="isOpen(p) ? 'text-amber-ink' : 'text-ink2'">
                {{ wording.decimal(p.progress.open) }}
              </td>
              <td class="num align-top text-ink2">
                {{ p.estimate === null ? '–' : wording.price(p.estimate, job.currency) }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="job.mayChange" class="mt-4">
        <button type="button" class="quiet-link min-h-6" @click="writing = true">
          {{ job.parts.length === 0 ? 'Say what it needs' : 'Change what it needs' }}
        </button>
      </p>
      <PlanForm v-if="writing" :job="job" @kept="kept" @close="writing = false" />
      <template v-if="job.mayChange || job.parts.length > 0" #margin>
        <h2 class="head mb-1">What it costs, net</h2>
        <dl class="grid grid-cols-[1fr_auto] gap-y-1.5 [&>dd]:text-right [&>dd]:tabular-nums">
          <dt>Expected</dt>
          <dd>{{ wording.money(job.estimate) }}</dd>
          <dt>Ordered for it</dt>
          <dd>{{ wording.money(job.ordered) }}</dd>
          <dt class="border-t border-rule pt-1.5">{{ dec(left.amount).isNegative() ? 'Over it by' : 'Left of it' }}</dt>
          <dd class="border-t border-rule pt-1.5" :class="dec(left.amount).isNegative() ? 'text-red' : ''">
            {{ wording.money({ ...left, amount: left.amount.replace('-', '') }) }}
          </dd>
        </dl>
        <p class="small mt-2">
          Ordered is all that was ordered on lines that name it, its parts and what else was needed; without freight,
          and without what is taken off or put on a whole order.
        </p>
      </template>
      <template v-if="job.mayChange && job.isOpen" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="raising.length === 0" :busy="busy" keys="Ctrl ⏎" @press="raise">{{ action }}</MainAction>
        <p class="small mt-2">It becomes a draft of yours, which you look through and send.</p>
      </template>
    </SheetPage>
  </div>
</template>
