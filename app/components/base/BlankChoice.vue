<script setup lang="ts" generic="T extends { id: string; name: string; note?: string }">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { passMainKey } from '~/composables/base/use-keys'

/** A blank of a sentence that is filled by choosing: runs with the text, opens its picker under it. */
const props = defineProps<{
  modelValue: string | null
  choices: readonly T[]
  label: string
  placeholder: string
  compact?: boolean
  light?: boolean
  id?: string | undefined
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const root = useTemplateRef<HTMLElement>('root')
const chosen = computed(() => props.choices.find((c) => c.id === props.modelValue) ?? null)
</script>

<template>
  <span ref="root" class="contents"
    ><Listbox
      as="span"
      class="relative"
      @keydown.capture="(e: KeyboardEvent) => passMainKey(e, root)"
      :model-value="modelValue ?? ''"
      @update:model-value="(v: string) => emit('update:modelValue', v)"
    >
      <ListboxButton
        v-bind="id === undefined ? {} : { id }"
        as="span"
        role="button"
        tabindex="0"
        :class="compact ? 'cell inline-block w-auto! cursor-pointer' : light ? 'blank font-[440]!' : 'blank'"
        :data-empty="chosen === null"
        :aria-label="`${label}: ${chosen?.name ?? placeholder}`"
        >{{ chosen?.name ?? placeholder }}</ListboxButton
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
    </Listbox></span
  >
</template>
