<script setup lang="ts">
import { listWords } from '#shared/words/format'
import type { PersonFound } from '#shared/contract/people'
import PersonPicker from '~/components/base/PersonPicker.vue'

/** Several people of a sentence: each can be taken out, and one more looked for by name. */
const props = defineProps<{ label: string; placeholder: string; nameOf: (id: string) => string; link?: 'and' | 'or' }>()
const ids = defineModel<readonly string[]>({ required: true })
const nobody = ref<PersonFound | null>(null)
function add(found: PersonFound | null): void {
  if (found !== null && !ids.value.includes(found.id)) ids.value = [...ids.value, found.id]
  // The field is free again for the next name.
  nobody.value = found
  void nextTick(() => {
    nobody.value = null
  })
}
const said = computed(() => listWords(ids.value.map(props.nameOf), props.link ?? 'or'))
</script>

<template>
  <span
    ><template v-for="(id, i) in ids" :key="id"
      >{{ i === 0 ? '' : i === ids.length - 1 ? ` ${link ?? 'or'} ` : ', '
      }}<span class="font-[580]">{{ nameOf(id) }}</span
      ><button
        type="button"
        class="quiet-link small ml-1 inline-flex min-h-6 min-w-6 items-center justify-center"
        :aria-label="`Take ${nameOf(id)} out of: ${said}`"
        @click="ids = ids.filter((x) => x !== id)"
      >
        out
      </button></template
    ><PersonPicker
      :model-value="nobody"
      :label="label"
      :placeholder="ids.length === 0 ? placeholder : 'and somebody else'"
      @update:model-value="add"
  /></span>
</template>
