<script setup lang="ts">
import type { HandedHow } from '#core/approval/handed'
import type { PersonFound } from '#shared/contract/people'
import KeyOf from '~/components/base/KeyOf.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import { submitByMainKey } from '~/composables/base/use-keys'

/** Has somebody else decide: instead of whoever is asked, before them, or as well. */
defineProps<{ busy: boolean }>()
const emit = defineEmits<{ hand: [how: HandedHow, to: PersonFound]; leave: [] }>()
const to = shallowRef<PersonFound | null>(null)
const how = ref<HandedHow>('on')
const WAYS = [
  { how: 'on', says: 'instead of you' },
  { how: 'first', says: 'before you' },
  { how: 'as well', says: 'as well as you' },
] as const
const words = computed(() => {
  const name = to.value?.name
  if (name === undefined) return 'Choose who'
  if (how.value === 'on') return `Pass it on to ${name}`
  return how.value === 'first' ? `Have ${name} decide first` : `Have ${name} decide as well`
})
function submit(): void {
  if (to.value !== null) emit('hand', how.value, to.value)
}
</script>

<template>
  <form class="mt-2.5" @submit.prevent="submit" @keydown="submitByMainKey" @keydown.esc="emit('leave')">
    <PersonPicker v-model="to" boxed up label="Who decides" placeholder="Who decides?" />
    <fieldset class="mt-2 flex flex-wrap gap-x-4 gap-y-1">
      <legend class="sr-only">In which order</legend>
      <label v-for="w in WAYS" :key="w.how" class="flex items-center gap-2"
        ><input v-model="how" type="radio" name="handed" :value="w.how" class="accent-[var(--green)]" />
        {{ w.says }}</label
      >
    </fieldset>
    <p class="small mt-1.5">
      {{
        how === 'on'
          ? 'They decide within their own limit; where theirs does not cover it, it goes on from there.'
          : 'What you wrote goes along. You can call it back until they decide.'
      }}
    </p>
    <div class="mt-2 flex gap-2">
      <button type="submit" class="action flex-1" :disabled="to === null || busy">{{ words }}<KeyOf v-if="to" /></button
      ><button type="button" class="action" @click="emit('leave')">Leave it</button>
    </div>
  </form>
</template>
