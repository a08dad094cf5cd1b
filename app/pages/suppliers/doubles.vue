<script setup lang="ts">
import type { MergingView } from '#shared/contract/supplier'
import { capital, formatCount, inWords } from '#shared/words/format'
import { sayAlike } from '#shared/words/supplier'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'

useHead({ title: 'Twice there · Rekko' })
const api = useApi()
const { data, error, refresh } = await useAsyncData('doubles', () => api.get('/api/suppliers/doubles'))
if (error.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const pairs = computed(() => data.value?.pairs ?? [])
const sentence = computed(() => {
  const n = pairs.value.length
  if (n === 0) return 'No supplier looks like another.'
  const many = n < 13 ? capital(inWords(n)) : String(n)
  return `${many} ${n === 1 ? 'pair' : 'pairs'} of suppliers may be one.`
})
const review = shallowRef<MergingView | null>(null)
const { busy, trouble, act } = useAct()
const told = ref('')
type Side = (typeof pairs.value)[number]['one']

async function look(from: Side, into: Side): Promise<void> {
  told.value = ''
  await act(async () => {
    review.value = await api.get('/api/suppliers/{id}/merging', { params: { id: from.id }, query: { into: into.id } })
  })
}
const moves = computed(() => {
  const m = review.value?.moves
  if (m === undefined) return []
  const named: [number, string, string][] = [
    [m.items, 'item of the catalogue', 'items of the catalogue'],
    [m.lines, 'line of requests', 'lines of requests'],
    [m.orders, 'order', 'orders'],
    [m.regulars, 'regular', 'regulars'],
    [m.contacts, 'contact', 'contacts'],
    [m.papers, 'paper', 'papers'],
    [m.agreements, 'agreement', 'agreements'],
  ]
  return named.flatMap(([n, one, many]) => (n === 0 ? [] : [formatCount(n, one, many)]))
})
const isHindered = computed(() => (review.value?.hinders.length ?? 0) > 0)
async function merge(): Promise<void> {
  const r = review.value
  if (r === null || isHindered.value) return
  await act(async () => {
    await api.post('/api/suppliers/{id}/merging', {
      params: { id: r.from.id },
      body: { into: r.into.id, seen: r.seen },
      key: crypto.randomUUID(),
    })
    told.value = `${r.from.name} is ${r.into.name} from now on.`
    review.value = null
    await refresh()
  })
}
usePlaceKeys([{ keys: 'Enter', does: 'look at what merging would move' }], () => undefined)
</script>

<template>
  <div>
    <PageNote><NuxtLink class="hover:underline" to="/suppliers">back to the suppliers</NuxtLink></PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="told" class="notice-green mt-3" role="status">{{ told }}</p>
      <p v-if="trouble && !review" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <p v-if="pairs.length === 0" class="mt-3 max-w-[60ch] text-ink2">
        Compared are tax numbers, the domains of their mail and their names, of every supplier that may be asked for.
      </p>
      <table v-else class="table mt-3">
        <caption class="sr-only">
          Pairs of suppliers that may be one
        </caption>
        <thead>
          <tr>
            <th scope="col">One</th>
            <th scope="col">The other</th>
            <th scope="col">They have</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in pairs" :key="`${p.one.id} ${p.other.id}`">
            <td
              v-for="[side, other] in [
                [p.one, p.other],
                [p.other, p.one],
              ] as const"
              :key="side.id"
              class="align-top"
            >
              <NuxtLink class="font-semibold hover:underline" :to="`/suppliers/${side.id}`">{{ side.name }}</NuxtLink>
              <span class="small block">{{
                [side.number, side.town, side.email ?? ''].filter((t) => t !== '').join(' · ')
              }}</span>
              <button type="button" class="quiet-link small min-h-6" @click="look(other, side)">
                keep this one<span class="sr-only">: {{ side.name }} instead of {{ other.name }}</span>
              </button>
            </td>
            <td class="align-top text-ink2">{{ sayAlike(p.why) }}</td>
          </tr>
        </tbody>
      </table>
      <DialogSheet
        v-if="review"
        :title="`${review.from.name} becomes ${review.into.name}`"
        :width="560"
        @close="review = null"
        @main="merge"
      >
        <p class="mt-3">
          <template v-if="moves.length > 0"
            >What names {{ review.from.name }} names {{ review.into.name }} then:</template
          ><template v-else>Nothing names {{ review.from.name }} yet.</template>
        </p>
        <ul class="mt-1">
          <li v-for="m in moves" :key="m" class="border-t border-rule py-1">{{ m }}</li>
        </ul>
        <template v-if="review.twice.length > 0">
          <p class="mt-3">Both have these; those of {{ review.from.name }} are retired in favour of the other’s:</p>
          <ul class="mt-1 max-h-[180px] overflow-auto">
            <li v-for="t in review.twice" :key="t.id" class="border-t border-rule py-1">
              {{ t.supplierPart }}: {{ t.name
              }}<template v-if="t.keptName !== t.name"> becomes {{ t.keptName }}</template>
            </li>
          </ul>
        </template>
        <p class="small mt-3">
          {{ review.from.name }} stays findable, and says what it became. Orders that were sent stay as they were sent.
          It cannot be undone in one step.
        </p>
        <p v-for="h in review.hinders" :key="h" class="notice-red mt-3">{{ h }}</p>
        <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
        <div class="mt-4 flex flex-wrap gap-2.5">
          <div class="min-w-[240px] flex-1">
            <MainAction :missing="isHindered" :busy="busy" keys="Ctrl ⏎" @press="merge"
              >Merge {{ review.from.number }} into {{ review.into.number }}</MainAction
            >
          </div>
          <button type="button" class="action" @click="review = null">Leave it</button>
        </div>
      </DialogSheet>
    </SheetPage>
  </div>
</template>
