<script setup lang="ts">
import type { EventView } from '#shared/contract/look-back'

/** What an event changed: what was before and after, as it is kept. */
const props = defineProps<{ event: EventView }>()
const say = (value: unknown) => (value === null || value === undefined ? '' : JSON.stringify(value, null, 2))
const parts = computed(() =>
  [
    { title: 'Before', text: say(props.event.before) },
    { title: 'After', text: say(props.event.after) },
  ].filter((p) => p.text !== ''),
)
</script>

<template>
  <div class="grid gap-4" :class="parts.length > 1 ? 'min-[900px]:grid-cols-2' : ''">
    <section v-for="p in parts" :key="p.title" class="min-w-0">
      <h3 class="small font-semibold!">{{ p.title }}</h3>
      <pre class="small whitespace-pre-wrap break-words rounded bg-margin p-2">{{ p.text }}</pre>
    </section>
    <p class="small min-[900px]:col-span-full">
      Event {{ event.seq }}{{ event.number === null ? ', not linked yet' : `, number ${event.number} of the chain` }}
    </p>
  </div>
</template>
