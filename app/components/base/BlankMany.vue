<script setup lang="ts" generic="T extends { id: string; name: string }">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { listWords } from '#shared/words/format'
import { passMainKey } from '~/composables/base/use-keys'
import StationPost from './StationPost.vue'

/**
 * A blank of a sentence that is filled by choosing any number; with nothing chosen it says `placeholder`, which means
 * all.
 */
const props = defineProps<{
  modelValue: readonly string[]
  choices: readonly T[]
  label: string
  placeholder: string
  id?: string | undefined
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string[]] }>()
const root = useTemplateRef<HTMLElement>('root')
const words = computed(() =>
  props.modelValue.length === 0
    ? props.placeholder
    : listWords(
        props.modelValue.map((id) => props.choices.find((c) => c.id === id)?.name ?? 'one that is gone'),
        'or',
      ),
)
// In the order in which they are offered, whatever the order of choosing.
const choose = (ids: string[]) => {
  emit('update:modelValue', [
    ...props.choices.filter((c) => ids.includes(c.id)).map((c) => c.id),
    ...ids.filter((id) => !props.choices.some((c) => c.id === id)),
  ])
}
</script>

<template>
  <span ref="root" class="contents"
    ><Listbox
      as="span"
      class="relative"
      multiple
      @keydown.capture="(e: KeyboardEvent) => passMainKey(e, root)"
      :model-value="[...modelValue]"
      @update:model-value="choose"
    >
      <ListboxButton
        v-bind="id === undefined ? {} : { id }"
        as="span"
        role="button"
        tabindex="0"
        class="blank"
        :class="modelValue.length === 0 ? 'font-[440]!' : ''"
        :aria-label="`${label}: ${words}`"
        >{{ words }}</ListboxButton
      >
      <ListboxOptions class="picker picker-foot left-0 top-full" :aria-label="label">
        <ListboxOption v-for="c in choices" v-slot="{ active, selected }" :key="c.id" as="template" :value="c.id">
          <li class="option flex! list-none items-center gap-2.5" :data-active="active">
            <StationPost :look="selected ? 'filled' : 'empty'" :share="1" />
            <span :class="selected ? 'font-semibold' : ''">{{ c.name }}</span>
          </li>
        </ListboxOption>
        <li v-if="choices.length === 0" class="option list-none text-ink3">There is nothing to choose from.</li>
      </ListboxOptions>
    </Listbox></span
  >
</template>
