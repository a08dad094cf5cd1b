<script setup lang="ts">
/** A name in which the words that were looked for are underlined. */
const props = defineProps<{ name: string; words: string }>()
const parts = computed(() => {
  const words = props.words
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter((w) => w.length > 1)
    .map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
  if (words.length === 0) return [{ text: props.name, found: false }]
  return props.name
    .split(new RegExp(`(${words.join('|')})`, 'i'))
    .map((text, i) => ({ text, found: i % 2 === 1 }))
    .filter((p) => p.text !== '')
})
</script>

<template>
  <span
    ><template v-for="(p, i) in parts" :key="i"
      ><mark v-if="p.found" class="border-b-2 border-green bg-transparent text-inherit">{{ p.text }}</mark
      ><template v-else>{{ p.text }}</template></template
    ></span
  >
</template>
