<script setup lang="ts">
import { capital, formatCount, listWords } from '#shared/words/format'
import { LIST_WORDS } from '#shared/words/lists'
import type { ListName } from '#core/lists/list'
import BlankDay from '~/components/base/BlankDay.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Who could decide · Rekko' })
const api = useApi()
const route = useRoute()
const router = useRouter()
const session = useSessionStore()
const wording = useWording()
if (session.me?.rights.includes('look back') !== true)
  throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const { words, typed } = useWordsFilter()
const day = computed(() => (typeof route.query.day === 'string' ? route.query.day : undefined))
const { data, error } = await useAsyncData(
  'authority',
  () => api.get('/api/authority', { query: { day: day.value } }),
  {
    watch: [day],
  },
)
const shown = computed(() => {
  const looked = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (data.value?.people ?? []).filter((p) => {
    const text = [p.name, p.jobTitle, p.department, ...p.reasons].join(' ').toLowerCase()
    return looked.every((w) => text.includes(w))
  })
})
const deciders = computed(() => (data.value?.people ?? []).filter((p) => p.decides).length)
const file = (as: string) => `/api/authority/file?${new URLSearchParams({ day: data.value?.day ?? '', as }).toString()}`
const limit = (amount: string) => (amount === '' ? '–' : wording.kept(amount, data.value?.currency ?? 'EUR'))
</script>

<template>
  <div>
    <PageNote>nothing here can be changed</PageNote>
    <SheetPage>
      <h1 class="sr-only">Who could be asked to decide</h1>
      <div class="sentence">
        On
        <BlankDay
          :model-value="data?.day ?? day ?? null"
          label="On which day"
          placeholder="which day"
          earliest="1990-01-01"
          :today="wording.today.value"
          @update:model-value="router.replace({ query: { ...route.query, day: $event } })"
        /><template v-if="data"
          >, <b>{{ formatCount(deciders, 'person', 'people') }}</b> could be asked to decide{{
            data.policy === null ? '; no approval policy held yet.' : ','
          }}
          <template v-if="data.policy"
            >by version {{ data.policy.number }} of the policy, “{{ data.policy.name }}”.</template
          ></template
        >
      </div>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <p v-if="data && data.notSeen.length > 0" class="notice-amber mt-3">
        {{ capital(listWords(data.notSeen.map((n) => LIST_WORDS[n as ListName].title))) }}
        {{ data.notSeen.length === 1 ? 'was' : 'were' }} changed by a long file since. What it brought stands here as if
        it had been there before; the file itself is kept with its event.
      </p>
      <template v-if="data">
        <p class="mt-4 flex flex-wrap items-baseline justify-between gap-3">
          <input
            v-model="typed"
            class="field w-72!"
            type="search"
            placeholder="a name, a department, a reason"
            aria-label="Find among them"
          />
          <span class="small"
            >{{ data.day === wording.today.value ? 'As it is now' : 'As it was when the day ended' }} · keep it as
            <a class="quiet-link" :href="file('csv')">CSV</a> or <a class="quiet-link" :href="file('xlsx')">XLSX</a> ·
            <NuxtLink class="quiet-link" to="/look-back">every event</NuxtLink></span
          >
        </p>
        <p v-if="shown.length === 0" class="mt-4 text-ink2">Nobody of this kind.</p>
        <table v-else class="table mt-3">
          <caption class="sr-only">
            Who could be asked to decide
          </caption>
          <thead class="max-[700px]:sr-only">
            <tr>
              <th scope="col" class="w-[24%]">Who</th>
              <th scope="col" class="num">Decides up to</th>
              <th scope="col" class="num">Orders up to</th>
              <th scope="col" class="pl-6!">Asked because</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in shown" :key="p.personId" class="folded">
              <td>
                <span class="block font-semibold">{{ p.name }}</span><span class="small block">{{
                  [p.jobTitle, p.department].filter(Boolean).join(', ')
                }}</span>
              </td>
              <td class="num">{{ limit(p.decidingLimit) }}</td>
              <td class="num">{{ limit(p.orderingLimit) }}</td>
              <td class="pl-6!">
                {{ p.decides ? capital(p.reasons.join('; ')) : 'Nothing asks them to decide; they order.'
                }}<span v-if="p.away" class="small block"
                  >away; {{ p.away.length === 0 ? 'nobody' : listWords(p.away) }}
                  {{ p.away.length > 1 ? 'stand' : 'stands' }} in</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </SheetPage>
  </div>
</template>
