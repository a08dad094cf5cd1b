<script setup lang="ts">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'

/** The list of a blank that is filled by choosing, with the button that opens it. */
defineProps<{
  modelValue: string | null
  choices: readonly { id: string; name: string; note?: string }[]
  label: string
  /** What stands on the button, what is said of it, and its looks. */
  shown: string
  said: string
  looks: string
  empty: boolean
  id: string | undefined
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
</script>

<template>
  <Listbox
    as="span"
    class="relative"
    :model-value="modelValue ?? ''"
    @update:model-value="(v: string) => emit('update:modelValue', v)"
  >
    <ListboxButton
      v-bind="id === undefined ? {} : { id }"
      as="span"
      role="button"
      tabindex="0"
      :class="looks"
      :data-empty="empty"
      :aria-label="said"
      >{{ shown }}</ListboxButton
    >
    <ListboxOptions class="picker picker-foot left-0 top-full" :aria-label="label">
      <ListboxOption v-for="c in choices" v-slot="{ active, selected }" :key="c.id" as="template" :value="c.id">
        <li class="option list-none" :data-active="active">
          <span :class="selected ? 'font-semibold' : ''">{{ c.name }}</span>
          <span v-if="c.note" class="small block">{{ c.note }}</span>
        </li>
      </ListboxOption>
      <li v-if="choices.length === 0" class="option list-none text-ink3">There is nothing to choose from.</li>
    </ListboxOptions>
  </Listbox>
</template>
