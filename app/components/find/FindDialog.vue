<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import type { Hit } from '#shared/contract/find'
import DialogSheet from '~/components/base/DialogSheet.vue'
import { sayError, useApi } from '~/composables/base/use-api'

/** One field over everything one may see. */
const emit = defineEmits<{ close: [] }>()
const KINDS: Record<Hit['kind'], string> = {
  requisition: 'Requests',
  order: 'Orders',
  job: 'Jobs',
  item: 'Catalogue',
  supplier: 'Suppliers',
  agreement: 'Agreements',
  person: 'People',
}
const api = useApi()
const nothing: Hit | null = null
const words = ref('')
const hits = shallowRef<Hit[]>([])
const state = ref<'idle' | 'looking' | 'done'>('idle')
const trouble = ref('')
let asked = 0
let timer: ReturnType<typeof setTimeout> | undefined
function look(text: string): void {
  words.value = text
  clearTimeout(timer)
  if (text.trim().length < 2) {
    hits.value = []
    state.value = 'idle'
    return
  }
  state.value = 'looking'
  timer = setTimeout(() => {
    void search(text)
  }, 120)
}
async function search(text: string): Promise<void> {
  const mine = ++asked
  try {
    const found = await api.get('/api/find', { query: { words: text } })
    if (mine !== asked) return
    hits.value = found.hits
    trouble.value = ''
  } catch (e) {
    trouble.value = sayError(e)
  }
  state.value = 'done'
}
const groups = computed(() =>
  (Object.keys(KINDS) as Hit['kind'][])
    .map((kind) => ({ kind, hits: hits.value.filter((h) => h.kind === kind) }))
    .filter((g) => g.hits.length > 0),
)
async function open(hit: Hit | null): Promise<void> {
  if (hit?.link == null) return
  emit('close')
  await navigateTo(hit.link)
}
</script>

<template>
  <DialogSheet title="Find" hide-title :width="640" @close="emit('close')">
    <!-- Escape leaves at once, also while something is found. -->
    <Combobox
      as="div"
      :model-value="nothing"
      @update:model-value="open"
      @keydown.esc.capture.stop.prevent="emit('close')"
    >
      <ComboboxInput
        class="field"
        aria-label="Find by a number or words"
        placeholder="A number, a part of it, R-26-*12, or words"
        autocomplete="off"
        :display-value="() => words"
        @change="(e: Event) => look((e.target as HTMLInputElement).value)"
      />
      <ComboboxOptions v-if="groups.length > 0" static class="mt-2 max-h-[60dvh] overflow-y-auto">
        <template v-for="g in groups" :key="g.kind">
          <li class="head mt-3 px-2.5 pb-1 first:mt-1" role="presentation">{{ KINDS[g.kind] }}</li>
          <ComboboxOption
            v-for="h in g.hits"
            v-slot="{ active }"
            :key="h.id"
            as="template"
            :value="h"
            :disabled="h.link === null"
          >
            <li
              class="option flex list-none flex-wrap justify-between gap-x-4"
              :class="h.link === null ? 'cursor-default!' : ''"
              :data-active="active"
            >
              <span class="font-medium">{{ h.name }}</span><span class="small self-center">{{ h.more }}</span>
            </li>
          </ComboboxOption>
        </template>
      </ComboboxOptions>
    </Combobox>
    <p class="mt-2 px-1 text-ink2" role="status">
      <template v-if="trouble">{{ trouble }}</template>
      <template v-else-if="state === 'looking' && groups.length === 0">Looking …</template>
      <template v-else-if="state === 'done' && groups.length === 0"
        >Nothing that you may see has “{{ words }}” in it. A part of a number or a word is enough.</template
      >
      <template v-else-if="state === 'idle'"
        >Requests, orders, the catalogue, suppliers, agreements and people, as far as they are for you to see.</template
      >
    </p>
  </DialogSheet>
</template>
