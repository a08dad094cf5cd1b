<script setup lang="ts">
/**
 * A text box that hands over what was typed when one leaves it (`change`). Until then what is typed stays,
 * whatever is drawn anew around it; without this it would be written over by the value from before.
 */
const props = defineProps<{ value: string; long?: boolean }>()
/** Not reactive on purpose: what is typed draws nothing anew, it is only not written over. */
let typed: string | null = null
function type(event: Event): void {
  typed = (event.target as HTMLInputElement).value
}
function hand(): void {
  typed = null
}
/** Typed back to what it was: nothing is handed over, and what the value became meanwhile is shown. */
function leave(event: Event): void {
  if (typed !== null) (event.target as HTMLInputElement).value = props.value
  typed = null
}
</script>

<template>
  <textarea v-if="long" :value="typed ?? value" @input="type" @change="hand" @blur="leave" />
  <input v-else :value="typed ?? value" @input="type" @change="hand" @blur="leave" />
</template>
