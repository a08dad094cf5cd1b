<script setup lang="ts">
import type { Standing } from '#core/supplier/record'
import { capital, inWords } from '#shared/words/format'
import { STANDING_SHORT } from '#shared/words/supplier'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Suppliers · Rekko' })
const MOST = 200
const api = useApi()
const session = useSessionStore()
const { words, typed } = useWordsFilter()
const { data, error, refresh } = await useAsyncData(
  'suppliers',
  () => api.get('/api/suppliers', { query: { words: words.value, limit: MOST } }),
  { watch: [words] },
)
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})

const decides = computed(() => session.me?.rights.includes('approve suppliers') === true)
const shown = computed(() => {
  const found = data.value?.suppliers ?? []
  return [...found.filter((s) => s.standing === 'proposed'), ...found.filter((s) => s.standing !== 'proposed')]
})
const proposed = computed(() => shown.value.filter((s) => s.standing === 'proposed').length)
const sentence = computed(() => {
  const n = shown.value.length
  if (n === 0) return words.value === '' ? 'No supplier is kept yet.' : 'No supplier is called so.'
  const many = n === MOST ? `The first ${MOST}` : n < 13 ? capital(inWords(n)) : String(n)
  const of = `${many} ${n === 1 ? 'supplier' : 'suppliers'}`
  if (proposed.value === 0) return `${of}.`
  const [are, wait] = proposed.value === 1 ? ['is', 'waits'] : ['are', 'wait']
  return `${of}; ${inWords(proposed.value)} ${are} proposed and ${wait} for finance.`
})
usePlaceKeys([{ keys: 'Enter', does: 'open the supplier' }], () => undefined)
</script>

<template>
  <div>
    <PageNote>{{ decides ? 'proposed ones first' : 'by name' }}</PageNote>
    <SheetPage>
      <div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-model="typed"
          class="field w-[190px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find a supplier"
          placeholder="Name, town or number"
        />
      </div>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <p v-else-if="shown.length === 0" class="mt-3 text-ink2">
        A new supplier is named where a line needs one, on Raise, and finance approves it here.
      </p>
      <table v-else class="table mt-3">
        <caption class="sr-only">
          Suppliers
        </caption>
        <thead>
          <tr>
            <th scope="col">Supplier</th>
            <th scope="col">Number</th>
            <th scope="col">Town</th>
            <th scope="col">Currency</th>
            <th scope="col">To mind</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in shown" :key="s.id">
            <td>
              <NuxtLink class="font-semibold hover:underline" :to="`/suppliers/${s.id}`">{{ s.name }}</NuxtLink>
            </td>
            <td class="text-ink2">{{ s.number }}</td>
            <td class="text-ink2">{{ s.town }}</td>
            <td class="text-ink2">{{ s.currency }}</td>
            <td :class="s.standing === 'proposed' && decides ? 'text-amber-ink' : 'text-ink2'">
              {{ [STANDING_SHORT[s.standing as Standing], s.warning ?? ''].filter((t) => t !== '').join(' · ') }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="decides && shown.length > 1" class="mt-4">
        <NuxtLink class="quiet-link" to="/suppliers/doubles">Look for suppliers that are there twice</NuxtLink>
      </p>
    </SheetPage>
  </div>
</template>
