<script setup lang="ts">
import { formatCount } from '#shared/words/format'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { callOf, readDescription, type Described } from '~/composables/guide/read-description'

useHead({ title: 'The API · Rekko' })
const api = useApi()
const { data, error } = await useAsyncData('description', () => api.get('/api/openapi.json'))
if (error.value || !data.value) throw createError({ statusCode: 503, fatal: true, message: 'not described' })
const routes = readDescription(data.value)
const typed = ref('')
const shown = computed(() => {
  const words = typed.value
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '')
  return routes.filter((r) => {
    const text = `${r.method} ${r.path} ${r.summary} ${r.right} ${r.name}`.toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
const areas = computed(() => {
  const by = new Map<string, Described[]>()
  for (const r of shown.value) by.set(r.area, [...(by.get(r.area) ?? []), r])
  return [...by].sort(([a], [b]) => a.localeCompare(b))
})
const nameOf = (area: string) => area.replaceAll('-', ' ').replace('.json', '')
const origin = ref('')
onMounted(() => (origin.value = window.location.origin))
const answers = reactive(new Map<string, string>())
async function run(r: Described): Promise<void> {
  answers.set(r.name, 'asking …')
  try {
    const reply = await fetch(r.path, { headers: { accept: 'application/json' } })
    answers.set(r.name, `${reply.status}\n${JSON.stringify(await reply.json(), null, 2).slice(0, 4000)}`)
  } catch (e) {
    answers.set(r.name, sayError(e))
  }
}
</script>

<template>
  <div>
    <PageNote><a class="hover:underline" href="/api/openapi.json">as OpenAPI 3.1</a></PageNote>
    <SheetPage>
      <div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 class="sentence">{{ routes.length }} routes, which the pages use too.</h1>
        <input
          v-model="typed"
          class="field w-[220px]! min-h-[34px]! py-1.5!"
          type="search"
          aria-label="Find a route"
          placeholder="Words, a path, a right"
        />
      </div>
      <p v-if="shown.length === 0" class="mt-3 text-ink2">No route has these words.</p>
      <section v-for="[area, routesOfIt] in areas" :key="area" class="mt-6" :aria-labelledby="`area-${area}`">
        <h2 :id="`area-${area}`" class="head capitalize">{{ nameOf(area) }}</h2>
        <details v-for="r in routesOfIt" :key="r.name" class="border-t border-rule py-1.5">
          <summary class="min-h-6 cursor-pointer">
            <span class="inline-block w-[58px] text-ink3">{{ r.method }}</span><span class="font-semibold">{{
              r.path
            }}</span>
            <span class="text-ink2"> · {{ r.summary }}</span>
          </summary>
          <div class="mt-1.5 mb-2 ml-[58px] max-[700px]:ml-0">
            <p class="small">
              {{ r.right === 'public' ? 'Open to anybody' : `For whoever may: ${r.right}` }}
            </p>
            <table v-if="r.needs.length > 0" class="table mt-1">
              <caption class="sr-only">
                What it needs
              </caption>
              <thead>
                <tr>
                  <th scope="col">Needs</th>
                  <th scope="col">In the</th>
                  <th scope="col">As</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="n in r.needs" :key="`${n.where} ${n.name}`">
                  <td>{{ n.name }}<span v-if="!n.required" class="small">, if you like</span></td>
                  <td class="text-ink2">{{ n.where }}</td>
                  <td class="text-ink2">{{ n.type }}</td>
                </tr>
              </tbody>
            </table>
            <p class="mt-1.5"><span class="text-ink2">Gives</span> {{ r.gives }}</p>
            <pre class="mt-1.5 overflow-x-auto rounded border border-rule bg-margin p-2.5 text-[12.5px]" tabindex="0">{{
              callOf(r, origin)
            }}</pre>
            <button v-if="r.runs" type="button" class="quiet-link mt-1 min-h-6" @click="run(r)">
              Ask it now, as yourself
            </button>
            <pre
              v-if="answers.has(r.name)"
              class="mt-1 max-h-[320px] overflow-auto rounded border border-rule p-2.5 text-[12.5px]"
              tabindex="0"
              role="status"
              >{{ answers.get(r.name) }}</pre>
          </div>
        </details>
      </section>
      <template #margin>
        <h2 class="head mb-1.5">To begin with</h2>
        <p class="text-ink2">
          Make a token under <NuxtLink class="quiet-link" to="/account">Account</NuxtLink> and send it with each call:
          it does what you ticked, and never more than you may yourself.
        </p>
        <h2 class="head mb-1.5 mt-5">Manners</h2>
        <ul class="space-y-1.5 text-ink2">
          <li>Amounts, prices, quantities and days are text, so that no digit is lost.</li>
          <li>A change brings the version that was seen, as If-Match; 412 says that somebody was faster.</li>
          <li>What creates or sends takes an Idempotency-Key: repeated, it happens once.</li>
          <li>A refusal is problem details (RFC 9457), with a sentence to act on.</li>
          <li>404 is what you may not see; 403 what you may see and not do.</li>
        </ul>
        <p class="mt-5 text-ink2">
          {{ formatCount(areas.length, 'area', 'areas') }} of {{ shown.length }} routes are shown.
        </p>
      </template>
    </SheetPage>
  </div>
</template>
