<script setup lang="ts">
import { AGREEMENT_STANDINGS } from '#core/agreement/fit'
import { FIXES_SHORT, STANDING_SHORT } from '#shared/words/agreement'
import { capital, inWords } from '#shared/words/format'
import DrawnBar from '~/components/agreement/DrawnBar.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useWordsFilter } from '~/composables/base/use-words-filter'
import { useLive } from '~/composables/live/use-live'

const AgreementForm = defineAsyncComponent(() => import('~/components/agreement/AgreementForm.vue'))

useHead({ title: 'Agreements · Rekko' })
const api = useApi()
const wording = useWording()
const { words, typed } = useWordsFilter()
const { one, narrow } = useNarrowed()
const STANDINGS = [
  { id: '', name: 'however they stand' },
  { id: 'in force', name: 'that are in force' },
  { id: 'to come', name: 'that have not begun' },
  { id: 'ended', name: 'that have ended' },
  { id: 'closed', name: 'that are closed' },
]
const standing = computed(() => AGREEMENT_STANDINGS.find((s) => s === one('standing')))
const asked = computed(() => ({
  ...(words.value === '' ? {} : { words: words.value }),
  ...(standing.value === undefined ? {} : { standing: standing.value }),
}))
const { data, error, refresh } = await useAsyncData(
  'agreements',
  () => api.get('/api/agreements', { query: asked.value }),
  { watch: [asked] },
)
useLive((changes) => {
  if (changes.some((c) => ['settings', 'order', 'requisition', 'again'].includes(c.kind))) void refresh()
})
const agreements = computed(() => data.value?.agreements ?? [])
const isNarrowed = computed(() => Object.keys(asked.value).length > 0)
const sentence = computed(() => {
  const n = agreements.value.length
  if (n === 0) return isNarrowed.value ? 'No agreement fits this.' : 'No agreement is kept yet.'
  const many = n < 13 ? capital(inWords(n)) : String(n)
  const marked = agreements.value.filter((a) => a.marks.length > 0).length
  const of = `${many} ${n === 1 ? 'agreement' : 'agreements'}`
  if (marked === 0) return `${of}.`
  return `${of}; ${inWords(marked)} of them ${marked === 1 ? 'is' : 'are'} to be minded.`
})
const writing = ref(false)
async function kept(id: string): Promise<void> {
  writing.value = false
  await navigateTo(`/agreements/${id}`)
}
const file = (as: 'csv' | 'xlsx') => `/api/agreements/file?${new URLSearchParams({ ...asked.value, as }).toString()}`
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'enter an agreement' }], (event) => {
  if (!isMainKey(event) || event.repeat || writing.value || data.value?.choices == null) return
  event.preventDefault()
  writing.value = true
})
</script>

<template>
  <div>
    <PageNote>what ends first, first</PageNote>
    <SheetPage>
      <div class="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ sentence }}</h1>
        <input
          v-model="typed"
          class="field w-[210px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find among the agreements"
          placeholder="Number, name or supplier"
        />
      </div>
      <p class="mb-3 leading-7 text-ink2">
        Agreements
        <BlankChoice
          :model-value="standing ?? ''"
          :choices="STANDINGS"
          label="How they stand"
          placeholder=""
          light
          @update:model-value="narrow({ standing: $event })"
        />.
        <NuxtLink v-if="isNarrowed" class="quiet-link" to="/agreements">all of them</NuxtLink>
      </p>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-else-if="agreements.length === 0 && !isNarrowed" class="max-w-[62ch] text-ink2">
        What was agreed with a supplier for a time stands here: prices of items, or a sum. Requests and orders draw on
        it by themselves, and it says what is left.
        <template v-if="data?.choices == null">Buyers and finance enter it.</template>
      </p>
      <table v-if="agreements.length > 0" class="table">
        <caption class="sr-only">
          Framework agreements
        </caption>
        <thead class="max-[700px]:sr-only">
          <tr>
            <th scope="col">Agreement</th>
            <th scope="col">Ends</th>
            <th scope="col" class="w-[22%]">Drawn and reserved</th>
            <th scope="col" class="num">Drawn</th>
            <th scope="col" class="num">Left</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="a in agreements" :key="a.id" class="folded">
            <td class="max-[700px]:order-1 max-[700px]:col-span-2">
              <NuxtLink
                class="font-semibold hover:underline"
                :class="a.standing === 'ended' || a.standing === 'closed' ? 'text-ink3' : ''"
                :to="`/agreements/${a.id}`"
                >{{ a.name }}</NuxtLink><span class="small block"
                >{{ a.number }} · {{ a.supplier }} · {{ FIXES_SHORT[a.fixes]
                }}<span v-if="a.marks.length > 0" class="text-amber-ink"> · {{ a.marks.join(' · ') }}</span></span
              >
            </td>
            <td class="whitespace-nowrap text-ink2 max-[700px]:order-2">
              {{ wording.shortDay(a.endsOn)
              }}<span v-if="STANDING_SHORT[a.standing] !== ''" class="small block">{{
                STANDING_SHORT[a.standing]
              }}</span>
            </td>
            <td class="max-[700px]:order-5 max-[700px]:col-span-2">
              <DrawnBar
                v-if="a.ceiling"
                class="mt-1 max-[700px]:mt-0"
                :ceiling="a.ceiling"
                :drawn="a.drawn"
                :reserved="a.reserved"
              /><span v-else class="text-ink2">no ceiling</span>
            </td>
            <td class="num whitespace-nowrap max-[700px]:order-3">
              <span class="text-ink3">{{ a.currency }}</span> {{ wording.amount(a.drawn) }}
            </td>
            <td
              class="num whitespace-nowrap max-[700px]:order-4 max-[700px]:col-span-2"
              :class="a.left?.amount.startsWith('-') ? 'text-red' : ''"
            >
              <template v-if="a.left"
                >{{ wording.amount(a.left) }}<span class="min-[700px]:hidden"> left</span></template
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="agreements.length > 0" class="small mt-3 flex flex-wrap gap-x-3">
        <span v-if="data?.isAll === false">The first {{ agreements.length }}; look for the others by name.</span>
        <span class="ml-auto"
          >Keep what is shown as <a class="quiet-link" :href="file('csv')">CSV</a> or
          <a class="quiet-link" :href="file('xlsx')">XLSX</a></span
        >
      </p>
      <p v-if="data?.choices" class="mt-4 max-w-[280px]">
        <MainAction keys="Ctrl ⏎" @press="writing = true">Enter an agreement</MainAction>
      </p>
      <AgreementForm
        v-if="writing && data?.choices"
        :agreement="null"
        :choices="data.choices"
        @kept="kept"
        @close="writing = false"
      />
    </SheetPage>
  </div>
</template>
