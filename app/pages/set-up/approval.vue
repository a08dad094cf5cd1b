<script setup lang="ts">
import type { Finding } from '#core/approval/findings'
import { formatCount, capital, inWords } from '#shared/words/format'
import { sayEnding, sayExample, sayFinding, sayOwn, sayRule } from '#shared/words/policy'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import TryRoute from '~/components/set-up/TryRoute.vue'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { policyNames } from '~/composables/set-up/policy-world'
import { usePolicyCheck } from '~/composables/set-up/use-policy-check'

useHead({ title: 'Approval · Rekko' })
const api = useApi()
const wording = useWording()
const { data: view, error, refresh } = await useAsyncData('approval-policy', () => api.get('/api/approval-policy'))
if (error.value || !view.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const names = computed(() => (view.value === undefined ? null : policyNames(view.value)))
const { check, failed } = usePolicyCheck(() => view.value ?? null)
const policy = computed(() => view.value?.policy)
const sentence = computed(() => {
  const n = policy.value?.rules.length ?? 0
  return n === 0
    ? 'No rule says who decides.'
    : `${capital(inWords(n))} ${n === 1 ? 'rule says' : 'rules say'} who decides on a request.`
})
/** In which order the steps of all rules run: the first rank is 1. */
const ranks = computed(() =>
  [...new Set((policy.value?.rules ?? []).flatMap((r) => r.steps.map((s) => s.rank)))].sort((a, b) => a - b),
)
const orderOf = (ruleAt: number) => {
  const own = [...new Set(policy.value?.rules[ruleAt]?.steps.map((s) => ranks.value.indexOf(s.rank) + 1) ?? [])]
  return ranks.value.length < 2 || own.length === 0
    ? ''
    : `asked ${own
        .sort()
        .map((n) => NTH[n - 1] ?? `${n}th`)
        .join(' and ')}`
}
const NTH = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth']
const findings = computed(() => check.value?.findings ?? [])
const ofRule = (id: string) => findings.value.filter((f) => f.code !== 'own' && 'ruleId' in f && f.ruleId === id)
const ownOf = (id: string) => findings.value.flatMap((f) => (f.code === 'own' && f.ruleId === id ? [f] : []))
const others = computed(() => findings.value.filter((f) => !('ruleId' in f) || f.ruleId === null))
const isTrouble = (f: Finding) => f.code === 'held' || f.code === 'circle' || f.code === 'never-fits'
const checked = computed(() => {
  if (failed.value) return 'It could not be checked in this browser.'
  if (check.value === null) return 'Looking at what it does with every sort of request …'
  const { unchecked } = check.value
  const n = findings.value.filter((f) => f.code !== 'own').length
  return (
    `${n === 0 ? 'Nothing was found' : `${capital(formatCount(n, 'thing was', 'things were'))} found`}` +
    `${unchecked === 0 ? '.' : `; ${formatCount(unchecked, 'person', 'people')} who raise were not looked at in time.`}`
  )
})
</script>

<template>
  <div v-if="view && policy && names">
    <PageNote>since {{ wording.shortDay(view.inForceFrom) }}</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p class="small mt-1.5" role="status">{{ checked }}</p>
      <ol class="mt-5 border-t border-ink">
        <li
          v-for="(rule, at) in policy.rules"
          :key="rule.id"
          class="grid grid-cols-[26px_minmax(0,1fr)] gap-x-3 border-b border-rule py-3"
        >
          <span class="pt-0.5 font-serif text-[18px] leading-7 text-ink3" aria-hidden="true">{{ at + 1 }}</span>
          <div class="min-w-0">
            <p class="sentence-small">{{ sayRule(rule, names, wording.ways) }}</p>
            <p class="small">
              {{ rule.name }}<template v-if="orderOf(at)"> · {{ orderOf(at) }}</template>
            </p>
            <p v-if="ownOf(rule.id).length > 0" class="small mt-1">{{ sayOwn(ownOf(rule.id), names) }}</p>
            <ul v-if="ofRule(rule.id).length > 0" class="mt-2 space-y-1.5" aria-label="What was found">
              <li
                v-for="f in ofRule(rule.id)"
                :key="JSON.stringify(f)"
                :class="isTrouble(f) ? 'notice-red' : 'notice-amber'"
              >
                {{ sayFinding(f, policy, names, wording.ways) }}
                <span class="small block">{{ sayExample(f, names, wording.ways) }}</span>
              </li>
            </ul>
          </div>
        </li>
      </ol>
      <p class="sentence-small mt-3">{{ sayEnding(policy, names) }}</p>
      <p v-if="policy.ownLimitDays !== null" class="small mt-1">
        Requests of {{ formatCount(policy.ownLimitDays, 'day', 'days') }} that name the same supplier are held against
        an own limit together.
      </p>
      <ul v-if="others.length > 0" class="mt-2 space-y-1.5" aria-label="What was found besides">
        <li v-for="f in others" :key="JSON.stringify(f)" :class="isTrouble(f) ? 'notice-red' : 'notice-amber'">
          {{ sayFinding(f, policy, names, wording.ways) }}
          <span v-if="sayExample(f, names, wording.ways)" class="small block">{{
            sayExample(f, names, wording.ways)
          }}</span>
        </li>
      </ul>
      <template #margin>
        <TryRoute :view="view" :names="names" />
      </template>
    </SheetPage>
  </div>
</template>
