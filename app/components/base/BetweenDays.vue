<script setup lang="ts">
import BlankDay from '~/components/base/BlankDay.vue'
import { useWording } from '~/composables/base/use-wording'

/** Two blanks of a sentence: from a day, to a day, both of which may be left open. "" is open. */
defineProps<{ from: string; until: string; what?: string }>()
const emit = defineEmits<{ narrow: [change: { from: string } | { until: string }] }>()
const wording = useWording()
</script>

<template>
  <span
    >from
    <BlankDay
      :model-value="from || null"
      :label="what ? `${what} from which day` : 'From which day'"
      placeholder="the beginning"
      earliest="1900-01-01"
      optional
      :today="wording.today.value"
      @update:model-value="emit('narrow', { from: $event })" />
    to
    <BlankDay
      :model-value="until || null"
      :label="what ? `${what} to which day, itself included` : 'To which day, itself included'"
      placeholder="now"
      earliest="1900-01-01"
      optional
      :today="wording.today.value"
      @update:model-value="emit('narrow', { until: $event })"
  /></span>
</template>
