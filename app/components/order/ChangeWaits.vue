<script setup lang="ts">
import { listWords } from '#shared/words/format'
import type { OrderView } from '#shared/contract/order'

/** A change of an order that is under way: whom it waits for, or why it came back, and what its buyer may do. */
const props = defineProps<{ change: NonNullable<OrderView['change']>; mayAct: boolean; busy: boolean }>()
const emit = defineEmits<{ throw: []; make: []; anew: [] }>()
const says = computed(() => {
  const { state, waits } = props.change
  if (state === 'draft') return 'A change of it came back.'
  if (state === 'approved') return 'A change of it is approved, and is made in a moment.'
  return waits.length === 0
    ? 'A change of it is held: nobody is found who may decide.'
    : `A change of it waits for ${listWords(waits)}.`
})
</script>

<template>
  <div class="notice-amber mt-3">
    <p>
      <b class="font-semibold">{{ says }}</b> Until then it stands as it was sent.
      <NuxtLink class="quiet-link" :to="`/decide/${change.id}`">What is to be otherwise</NuxtLink>
    </p>
    <p v-for="s in change.said" :key="s.text">{{ s.by }}: “{{ s.text }}”</p>
    <p v-if="mayAct" class="mt-1.5 flex flex-wrap gap-2">
      <button v-if="change.state === 'draft'" type="button" class="action" @click="emit('anew')">Write it anew</button>
      <button v-if="change.state === 'approved'" type="button" class="action" :disabled="busy" @click="emit('make')">
        Make it now and send it
      </button>
      <button type="button" class="action" :disabled="busy" @click="emit('throw')">Throw the change away</button>
    </p>
  </div>
</template>
