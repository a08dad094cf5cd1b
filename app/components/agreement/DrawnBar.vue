<script setup lang="ts">
import { zero, type Money } from '#core/base/money'
import BudgetBar from '~/components/budget/BudgetBar.vue'
import { useWording } from '~/composables/base/use-wording'

/** How far an agreement is drawn: what is ordered and what is asked for, of its ceiling. */
const props = defineProps<{ ceiling: Money; drawn: Money; reserved: Money }>()
const wording = useWording()
const label = computed(() => {
  const [drawn, reserved] = [wording.money(props.drawn), wording.money(props.reserved)]
  return `${drawn} drawn and ${reserved} reserved of ${wording.money(props.ceiling)}`
})
</script>

<template>
  <BudgetBar :given="ceiling" :spent="zero(ceiling.currency)" :committed="drawn" :reserved="reserved" :label="label" />
</template>
