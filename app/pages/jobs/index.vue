<script setup lang="ts">
import { capital, formatCount, inWords } from '#shared/words/format'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Jobs · Rekko' })
const api = useApi()
const session = useSessionStore()
const { words, typed } = useWordsFilter()
const { data, error, refresh } = await useAsyncData(
  'jobs',
  () => api.get('/api/jobs', { query: { words: words.value } }),
  { watch: [words] },
)
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const jobs = computed(() => data.value?.jobs ?? [])
const keepsList = session.me?.rights.includes('keep settings') === true
const sentence = computed(() => {
  const n = jobs.value.length
  if (n === 0) return words.value === '' ? 'No job is kept yet.' : 'No job is called so.'
  const own = jobs.value.filter((j) => j.isIn).length
  const many = n < 13 ? capital(inWords(n)) : String(n)
  const yours = own === 0 ? '' : `; you are at work on ${own === n ? 'all of them' : inWords(own)}`
  return `${many} ${n === 1 ? 'job' : 'jobs'}${yours}.`
})
usePlaceKeys([{ keys: 'Enter', does: 'open the job' }], () => undefined)
</script>

<template>
  <div>
    <PageNote>yours first</PageNote>
    <SheetPage>
      <div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-model="typed"
          class="field w-[190px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find a job"
          placeholder="Name or number"
        />
      </div>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <p v-else-if="jobs.length === 0" class="mt-3 max-w-[60ch] text-ink2">
        A job is a piece of your own work that things are bought for.
        {{ keepsList ? 'Enter the first one, or bring a file, in' : 'An administrator enters it in' }}
        <NuxtLink v-if="keepsList" class="quiet-link" to="/set-up/lists/jobs">the list of jobs</NuxtLink
        ><template v-else>Set-up</template>.
      </p>
      <table v-else class="table mt-3">
        <caption class="sr-only">
          Jobs
        </caption>
        <thead>
          <tr>
            <th scope="col">Job</th>
            <th scope="col">Number</th>
            <th scope="col">Department</th>
            <th scope="col">Parts</th>
            <th scope="col"><span class="sr-only">To mind</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="j in jobs" :key="j.id">
            <td>
              <NuxtLink class="font-semibold hover:underline" :to="`/jobs/${j.id}`">{{ j.name }}</NuxtLink>
            </td>
            <td class="whitespace-nowrap text-ink2">{{ j.number }}</td>
            <td class="text-ink2">{{ j.department }}</td>
            <td class="text-ink2">{{ j.parts === 0 ? '' : formatCount(j.parts, 'part', 'parts') }}</td>
            <td class="text-ink2">
              {{ [j.isIn ? 'yours' : '', j.isOpen ? '' : 'closed'].filter(Boolean).join(' · ') }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="keepsList && jobs.length > 0" class="mt-4">
        <NuxtLink class="quiet-link" to="/set-up/lists/jobs">Enter, change and close jobs</NuxtLink>
      </p>
    </SheetPage>
  </div>
</template>
