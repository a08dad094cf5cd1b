<script setup lang="ts">
import type { Money } from '#core/base/money'
import BudgetBar from './BudgetBar.vue'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()

/** Each budget line that pays, with what is left of it without and with this document. */
export interface EffectView {
  readonly budgetLineId: string
  readonly name: string
  readonly given: Money
  readonly spent: Money
  readonly committed: Money
  readonly reserved: Money
  readonly effect: Money
  readonly before: Money
  readonly after: Money
  readonly passed: boolean
  /** What is left with it of the period, up to its end, and of the year; for whoever decides. */
  readonly leftAfter?: { readonly period: Money; readonly toDate: Money; readonly year: Money }
}
defineProps<{ effects: readonly EffectView[] }>()
const whole = (m: Money) => wording.amount(m).replace(/\.\d+$/, '')
</script>

<template>
  <ul class="space-y-2.5">
    <li v-for="e in effects" :key="e.budgetLineId">
      <p class="mb-1 flex justify-between gap-3">
        <span class="min-w-0">{{ e.name }}</span><span
          class="shrink-0"
          :title="`${wording.amount(e.before)} left without it, ${wording.amount(e.after)} with it`"
          >{{ whole(e.before) }} →
          <b class="font-semibold" :class="e.passed ? 'text-red' : ''">{{ whole(e.after) }}</b></span
        >
      </p>
      <BudgetBar
        :given="e.given"
        :spent="e.spent"
        :committed="e.committed"
        :reserved="e.reserved"
        :own="e.effect"
        :label="`${e.name}: ${wording.amount(e.before)} left without this, ${wording.amount(e.after)} with it`"
      />
      <p v-if="e.leftAfter" class="small mt-1">
        then left: this month {{ whole(e.leftAfter.period) }}, to date {{ whole(e.leftAfter.toDate) }}, the year
        {{ whole(e.leftAfter.year) }}
      </p>
    </li>
  </ul>
</template>
