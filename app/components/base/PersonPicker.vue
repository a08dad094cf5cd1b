<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import type { PersonFound } from '#shared/contract/people'
import { openCombobox } from '~/composables/base/open-combobox'
import { useApi } from '~/composables/base/use-api'

/** Chooses a person by any part of the name; as a blank of a sentence, or as a field. */
const props = defineProps<{
  label: string
  placeholder: string
  boxed?: boolean
  compact?: boolean
  up?: boolean
  id?: string
  /** Somebody has to be chosen: until then it looks like an empty blank. */
  needed?: boolean
  /** Whoever left may be chosen too. */
  gone?: boolean
}>()
const person = defineModel<PersonFound | null>({ required: true })
const api = useApi()
const found = shallowRef<PersonFound[]>([])
const isLooking = ref(false)
let asked = 0
async function search(words: string): Promise<void> {
  const mine = ++asked
  isLooking.value = true
  // Until the answer is here only those stay who fit what is typed: Enter takes nobody who was not meant.
  found.value = found.value.filter((p) => p.name.toLowerCase().includes(words.toLowerCase()))
  try {
    const { people } = await api.get('/api/people', { query: { words, gone: props.gone ? 'yes' : 'no' } })
    if (mine === asked) found.value = people
  } catch {
    if (mine === asked) found.value = []
  } finally {
    if (mine === asked) isLooking.value = false
  }
}
const nameOf = (p: unknown) => (p as PersonFound | null)?.name ?? ''
</script>

<template>
  <Combobox v-model="person" as="span" class="relative" :class="boxed ? 'block' : ''" nullable>
    <ComboboxInput
      v-bind="id === undefined ? {} : { id }"
      :class="boxed ? 'field' : compact ? 'cell cell-fit w-auto! placeholder:italic' : 'blank blank-input'"
      :data-needed="needed"
      :aria-label="label"
      :placeholder="placeholder"
      :display-value="nameOf"
      autocomplete="off"
      @click="openCombobox"
      @focus="search('')"
      @change="(e: Event) => search((e.target as HTMLInputElement).value)"
    />
    <ComboboxOptions class="picker left-0" :class="up ? 'bottom-full mb-1' : 'top-full'">
      <ComboboxOption v-for="p in found" v-slot="{ active }" :key="p.id" as="template" :value="p"
        ><li class="option list-none" :data-active="active">
          {{ p.name }}<span class="small block">{{ p.jobTitle }}, {{ p.department }}</span>
        </li></ComboboxOption
      >
      <li v-if="found.length === 0" class="option list-none text-ink3">
        {{ isLooking ? 'Looking …' : 'Nobody here has this in their name.' }}
      </li>
    </ComboboxOptions>
  </Combobox>
</template>
