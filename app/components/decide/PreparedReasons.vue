<script setup lang="ts">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import type { PreparedReason } from '#shared/contract/decide'

/** Reasons that the organisation has prepared; one that is picked is written into the box and edited there. */
defineProps<{ reasons: readonly PreparedReason[] }>()
const emit = defineEmits<{ pick: [text: string] }>()
</script>

<template>
  <Listbox as="div" class="relative" :model-value="''" @update:model-value="(text: string) => emit('pick', text)">
    <ListboxButton class="quiet-link" aria-label="Pick a prepared reason">Pick a prepared reason</ListboxButton>
    <ListboxOptions class="picker bottom-full right-0 mb-1 max-w-[min(420px,80vw)]">
      <ListboxOption v-for="r in reasons" v-slot="{ active }" :key="r.text" as="template" :value="r.text">
        <li class="option list-none" :data-active="active">
          {{ r.text }}<span v-if="r.use !== 'all'" class="small block">for {{ r.use }}</span>
        </li>
      </ListboxOption>
    </ListboxOptions>
  </Listbox>
</template>
