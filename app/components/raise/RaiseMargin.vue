<script setup lang="ts">
import type { DraftVerdict } from '#core/requisition/compute'
import type { DraftFacts } from '#core/requisition/draft-facts'
import { feltTax } from '#core/requisition/felt-tax'
import { figuresFor } from '#core/budget/available'
import { sum } from '#core/base/money'
import { sayNote, saySeat } from '#shared/words/approval'
import { sayFeltTax } from '#shared/words/requisition'
import RouteList, { type RouteEntry } from '~/components/base/RouteList.vue'
import type { EffectView } from '~/components/budget/BudgetEffects.vue'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

// They come with the first line that is paid for.
const BudgetEffects = defineAsyncComponent(() => import('~/components/budget/BudgetEffects.vue'))

/** What Rekko worked out of a requisition while it is written: its sum, what it does to the budget, who decides. */
const props = defineProps<{
  verdict: DraftVerdict | null
  facts: DraftFacts | null
  ownerId: string
  currency: string
}>()
const session = useSessionStore()
const wording = useWording()

const nameOf = (id: string) => props.facts?.people.people.get(id)?.name ?? ''
const perBase = (c: string) => props.facts?.perBase.get(c)
const tax = computed(() => {
  const v = props.verdict
  if (v === null || v.sums.length === 0) return ''
  const each = v.sums.map((s) => (s.currency === props.currency ? wording.amount(s.tax) : wording.money(s.tax)))
  return sayFeltTax(feltTax(v.sums, v.approvalAmount, perBase), each.join(', '), wording.ways)
})
function sayRate(currency: string): string {
  const rate = perBase(currency)
  return rate === undefined ? 'no rate' : wording.rate(rate, currency, props.currency)
}
const foreign = computed(() => (props.verdict?.sums ?? []).filter((s) => s.currency !== props.currency))
const effects = computed<EffectView[]>(() =>
  (props.verdict?.budget ?? []).flatMap((b) => {
    const line = props.facts?.budgetLines.get(b.budgetLineId)
    if (line === undefined || props.verdict === null) return []
    const f = figuresFor(line, props.verdict.period.period)
    return [
      {
        budgetLineId: b.budgetLineId,
        name: b.name,
        given: sum([f.budgeted, f.adjustments], props.currency),
        spent: f.spent,
        committed: f.committed,
        reserved: f.reserved,
        effect: b.effect,
        before: b.before,
        after: b.after,
        passed: b.passedBy !== null,
      },
    ]
  }),
)
const entries = computed<RouteEntry[]>(() =>
  (props.verdict?.route.steps ?? []).flatMap((step, i) =>
    step.seats.map((seat) => ({
      key: `${i} ${seat.actorId}`,
      name: nameOf(seat.actorId),
      state: 'ahead' as const,
      you: false,
      why: saySeat(
        seat.why,
        {
          of: props.ownerId === session.me?.id ? 'you' : nameOf(props.ownerId),
          forName: seat.forId === null ? null : nameOf(seat.forId),
          lines:
            seat.why.code === 'budget-holder'
              ? seat.why.budgetLineIds.map((b) => props.facts?.budgetLines.get(b)?.name ?? '')
              : [],
        },
        wording.ways,
      ),
    })),
  ),
)
const notes = computed(() => [
  ...new Set(
    (props.verdict?.route.notes ?? []).flatMap((n) => {
      const said = sayNote(n, nameOf, wording.ways)
      return said === null ? [] : [said]
    }),
  ),
])
</script>

<template>
  <div v-if="verdict">
    <p class="text-ink2">All in, without tax you can reclaim</p>
    <p class="sum">{{ wording.money(verdict.approvalAmount) }}</p>
    <p class="small min-h-[17px]">{{ tax }}</p>
    <p v-for="s in foreign" :key="s.currency" class="small">
      {{ wording.money(s.net) }} without tax, at {{ sayRate(s.currency) }}
    </p>
    <h2 class="head mb-1.5 mt-5">What it does to the budget</h2>
    <BudgetEffects v-if="effects.length > 0" :effects="effects" />
    <p v-else class="text-ink3">Each line that pays stands here, before and after.</p>
    <h2 class="head mb-2 mt-5">Who decides, and why</h2>
    <RouteList v-if="entries.length > 0" :entries="entries" />
    <p v-else-if="verdict.route.held === null" class="text-ink2">Nobody has to: it is approved when you send it.</p>
    <p v-for="n in notes" :key="n" class="small">{{ n }}</p>
  </div>
  <p v-else class="text-ink3">Working out budget and route …</p>
</template>
