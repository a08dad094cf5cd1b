<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import type { SupplierFound } from '#shared/contract/catalogue'
import { closeCombobox, openCombobox } from '~/composables/base/open-combobox'
import { useApi } from '~/composables/base/use-api'

/** Chooses a supplier by any part of the name, number or town; nobody chosen means that the buyer decides. */
const props = defineProps<{
  name: string | null
  label: string
  none: string | null
  boxed?: boolean
  id?: string
  mayName?: boolean
}>()
const emit = defineEmits<{ choose: [supplier: SupplierFound | null]; name: [words: string] }>()
const api = useApi()
/** The field chooses and keeps nothing: what is chosen stands in its name. */
const nobody: SupplierFound | 'none' | 'new' | null = null
const words = ref('')
const found = shallowRef<SupplierFound[]>([])
const searching = ref(false)
let asked = 0
async function search(text: string): Promise<void> {
  words.value = text
  const mine = ++asked
  searching.value = true
  try {
    const { suppliers } = await api.get('/api/suppliers', { query: { words: text } })
    if (mine === asked) found.value = suppliers
  } catch {
    found.value = []
  } finally {
    if (mine === asked) searching.value = false
  }
}
// What was found before counts only as far as it fits what stands in the field now.
const fitting = computed(() =>
  found.value.filter((s) => `${s.name} ${s.number} ${s.town}`.toLowerCase().includes(words.value.trim().toLowerCase())),
)
const choices = computed<(SupplierFound | 'none' | 'new')[]>(() => [
  ...(props.none !== null && words.value === '' ? ['none' as const] : []),
  ...fitting.value,
  ...(props.mayName && words.value.trim().length >= 2 && !searching.value ? ['new' as const] : []),
])
function choose(value: SupplierFound | 'none' | 'new' | null): void {
  if (value === 'new') emit('name', words.value.trim())
  else if (value !== null) emit('choose', value === 'none' ? null : value)
}
const keyOf = (s: SupplierFound | 'none' | 'new') => (typeof s === 'string' ? s : s.id)
/** Enter before the answer came waits for it, and takes the first that fits. */
async function enterEarly(event: KeyboardEvent): Promise<void> {
  if (words.value.trim() === '') {
    openCombobox(event)
    return
  }
  if (!searching.value || event.isComposing || words.value.trim() === '') return
  event.preventDefault()
  event.stopImmediatePropagation()
  await search(words.value)
  const first = fitting.value.find((s) => !blocked(s))
  if (first !== undefined) choose(first)
}
/** One on hold cannot be named; one that is proposed can, where a request is written. */
function blocked(s: SupplierFound): boolean {
  return s.standing !== 'active' && !(props.mayName && s.standing === 'proposed')
}
</script>

<template>
  <Combobox
    as="span"
    nullable
    class="relative inline-block max-w-full"
    :model-value="nobody"
    @update:model-value="choose"
  >
    <ComboboxInput
      v-bind="id === undefined ? {} : { id }"
      :class="boxed ? 'field' : 'cell cell-fit small max-w-[150px]!'"
      :aria-label="label"
      :display-value="() => name ?? none ?? ''"
      :placeholder="none ?? 'Choose a supplier'"
      autocomplete="off"
      @focus="
        (e: FocusEvent) => {
          ;(e.target as HTMLInputElement).select()
          search('')
        }
      "
      @click="openCombobox"
      @keydown.enter.capture="enterEarly"
      @keydown.tab.capture="words.trim() === '' && closeCombobox($event)"
      @change="(e: Event) => search((e.target as HTMLInputElement).value)"
    />
    <ComboboxOptions class="picker left-0 top-full">
      <ComboboxOption
        v-for="s in choices"
        v-slot="{ active, disabled }"
        :key="keyOf(s)"
        as="template"
        :value="s"
        :disabled="typeof s !== 'string' && blocked(s)"
      >
        <li class="option list-none" :data-active="active">
          <template v-if="s === 'none'">{{ none }}</template>
          <template v-else-if="s === 'new'">“{{ words.trim() }}” as a new supplier …</template>
          <template v-else
            ><span class="block" :class="disabled ? 'text-ink3' : 'font-medium'">{{ s.name }}</span
            ><span class="small block"
              >{{ s.number }}, {{ s.town
              }}<template v-if="s.standing !== 'active'"> · {{ s.warning ?? s.standing }}</template
              ><template v-else-if="s.warning"> · {{ s.warning }}</template></span
            ></template
          >
        </li>
      </ComboboxOption>
      <li v-if="choices.length === 0" class="option list-none text-ink3">
        No supplier has this in its name, number or town.
      </li>
    </ComboboxOptions>
  </Combobox>
</template>
