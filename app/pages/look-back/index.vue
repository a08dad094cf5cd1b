<script setup lang="ts">
import type { EventView } from '#shared/contract/look-back'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount } from '#shared/words/format'
import { sayLook } from '#shared/words/look-back'
import BetweenDays from '~/components/base/BetweenDays.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import EventValues from '~/components/look-back/EventValues.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useNarrowed } from '~/composables/base/use-narrowed'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'
import TypedBox from '~/components/base/TypedBox.vue'

useHead({ title: 'Look back · Rekko' })
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const sees = (right: 'look back' | 'see integrity') => session.me?.rights.includes(right) === true
if (!sees('look back') && !sees('see integrity'))
  throw createError({ statusCode: 404, fatal: true, message: 'not found' })

const { one, narrow: ask } = useNarrowed()
/** What is looked for; the address holds it. */
const asked = computed(() => {
  return {
    ...{ personId: one('person'), kind: one('kind'), type: one('type'), number: one('number') },
    ...{ from: one('from'), until: one('until') },
  }
})
const query = computed(() => Object.fromEntries(Object.entries(asked.value).filter(([, v]) => v !== '')))

const { data, error } = await useAsyncData(
  'events',
  async () => (sees('look back') ? api.get('/api/events', { query: query.value }) : null),
  { watch: [query] },
)
const older = ref<EventView[]>([])
const more = ref<number | null>(null)
watch(
  data,
  () => {
    older.value = []
    more.value = data.value?.more ?? null
  },
  { immediate: true },
)
const events = computed(() => [...(data.value?.events ?? []), ...older.value])
const { busy, trouble, act } = useAct()
const showMore = () =>
  act(async () => {
    const page = await api.get('/api/events', { query: { ...query.value, before: more.value ?? undefined } })
    older.value = [...older.value, ...page.events]
    more.value = page.more
  })
const opened = ref<number | null>(null)

const person = ref<PersonFound | null>(null)
watch(person, (p) => void ask({ person: p?.id ?? '' }))
const kinds = computed(() => [
  { id: '', name: 'anything' },
  ...[...new Set((data.value?.sorts ?? []).map((s) => s.kind))].map((k) => ({ id: k, name: k })),
])
const types = computed(() => [
  { id: '', name: 'whatever it was' },
  ...[
    ...new Set(
      (data.value?.sorts ?? [])
        .filter((s) => asked.value.kind === '' || s.kind === asked.value.kind)
        .map((s) => s.type),
    ),
  ]
    .sort()
    .map((t) => ({ id: t, name: t })),
])
const file = computed(() => `/api/events/file?${new URLSearchParams(query.value).toString()}`)
const sentence = computed(() => {
  if (!sees('look back')) return 'Whether all that is kept agrees.'
  const n = events.value.length
  return n === 0
    ? 'Nothing of this happened.'
    : `${capital(formatCount(n, 'event', 'events'))}${more.value === null ? '' : ' and more'}, the newest first.`
})

const { data: looks, refresh } = await useAsyncData('looks', async () =>
  sees('see integrity') ? (await api.get('/api/integrity')).looks : [],
)
const last = computed(() => looks.value?.[0])
const looking = ref(false)
useLive((changes) => {
  if (!changes.some((c) => c.kind === 'settings' || c.kind === 'again')) return
  void refresh().then(() => {
    looking.value = false
  })
})
async function look(): Promise<void> {
  if (looking.value || !sees('see integrity')) return
  if (await act(() => api.post('/api/integrity/runs', { key: crypto.randomUUID() }))) looking.value = true
}
const who = (e: EventView) => (e.forName === null ? (e.actor ?? 'Rekko') : `${e.actor ?? 'Rekko'} for ${e.forName}`)
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'look whether all agrees' }], (event) => {
  if (isMainKey(event)) {
    event.preventDefault()
    void look()
  }
})
</script>

<template>
  <div>
    <PageNote
      ><NuxtLink v-if="sees('look back')" class="quiet-link" to="/look-back/authority"
        >who could decide what, on any day</NuxtLink
      ><template v-else>nothing here can be changed</template></PageNote
    >
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <template v-if="sees('look back')">
        <div class="mt-3 leading-8">
          What
          <PersonPicker v-model="person" gone label="Whoever did it" placeholder="anybody" />
          did to
          <BlankChoice
            :model-value="asked.kind"
            :choices="kinds"
            label="To what"
            placeholder="anything"
            light
            @update:model-value="ask({ kind: $event, type: '' })"
          />,
          <BlankChoice
            :model-value="asked.type"
            :choices="types"
            label="What it was"
            placeholder="whatever it was"
            light
            @update:model-value="ask({ type: $event })"
          />, number
          <TypedBox
            class="blank blank-input font-[440]!"
            :value="asked.number"
            placeholder="any"
            aria-label="The number of a document, whole"
            autocomplete="off"
            @change="ask({ number: ($event.target as HTMLInputElement).value.trim() })"
          />, <BetweenDays :from="asked.from" :until="asked.until" @narrow="ask" />.
          <NuxtLink v-if="Object.keys(query).length > 0" class="quiet-link" to="/look-back">everything</NuxtLink>
        </div>
        <ul class="mt-4 border-t border-ink">
          <li v-for="e in events" :key="e.seq" class="border-b border-rule py-1.5">
            <div class="grid grid-cols-[150px_minmax(0,1fr)_auto] items-baseline gap-x-3 max-[700px]:grid-cols-1">
              <span class="small tabular-nums" :title="wording.exact(e.at)">{{ wording.moment(e.at) }}</span>
              <span class="min-w-0"
                ><span class="font-medium">{{ who(e) }}</span
                >: {{ e.type }}<template v-if="e.about !== '' && e.about !== e.actor"> · {{ e.about }}</template
                ><span class="small"> · {{ e.subjectKind }}</span></span
              >
              <button
                v-if="e.before !== null || e.after !== null"
                type="button"
                class="small quiet-link min-h-6"
                :aria-expanded="opened === e.seq"
                :aria-label="`What event ${e.seq} changed`"
                @click="opened = opened === e.seq ? null : e.seq"
              >
                {{ opened === e.seq ? 'close' : 'what changed' }}
              </button>
            </div>
            <EventValues v-if="opened === e.seq" class="mt-1" :event="e" />
          </li>
        </ul>
        <button v-if="more !== null" type="button" class="action mt-3" :aria-busy="busy" @click="showMore">
          Show older ones
        </button>
        <p v-if="events.length > 0" class="small mt-3">
          <a class="quiet-link" :href="file" download>These as a file</a>, JSON Lines, each with its link of the chain.
        </p>
      </template>
      <p v-else class="mt-3 max-w-[60ch] text-ink2">
        Rekko keeps some things twice, so that they are quick to read: what stands on budget lines beside the ledger,
        what documents reserve beside their decisions, the numbers that were given. Every night, and whenever somebody
        asks, it looks whether they agree, and whether the chain of events is whole. What happened to single documents
        is for auditors to read.
      </p>
      <template #margin>
        <section v-if="sees('see integrity')" aria-labelledby="looks">
          <h2 id="looks" class="head mb-1">Whether all agrees</h2>
          <template v-if="last">
            <p :class="sayLook(last.found).broken.length === 0 ? 'notice-green' : 'notice-red'">
              {{ sayLook(last.found).sentence }}
              <span v-for="b in sayLook(last.found).broken" :key="b" class="block">{{ b }}</span>
            </p>
            <p class="small mt-1.5">
              Looked at {{ wording.moment(last.at) }}{{ last.by === null ? ', as every night' : ` for ${last.by}` }}.
            </p>
            <p v-if="last.found.chain.head" class="small mt-3">
              The chain ends at number {{ last.found.chain.head.number }} with
              <code class="block break-all select-all">{{ last.found.chain.head.hash }}</code>
              Kept outside, on paper say, it shows later whether the end was cut off.
            </p>
            <ul v-if="(looks ?? []).length > 1" class="mt-4" aria-label="Earlier looks">
              <li v-for="l in (looks ?? []).slice(1)" :key="l.id" class="small border-t border-rule py-1">
                {{ wording.moment(l.at) }}:
                {{ sayLook(l.found).broken.length === 0 ? 'all agreed' : sayLook(l.found).broken[0] }}
              </li>
            </ul>
          </template>
          <p v-else class="small">Nobody has looked yet; Rekko does every night.</p>
        </section>
        <p v-else class="text-ink2">
          Every event keeps who, for whom and when, and what was before and after. They are chained: a change afterwards
          is found.
        </p>
        <p v-if="session.me?.rights.includes('see policy')" class="mt-6">
          Who might have approved what on any day stands in
          <NuxtLink class="quiet-link" to="/set-up/approval">the approval policy and its versions</NuxtLink>.
        </p>
      </template>
      <template v-if="sees('see integrity')" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :busy="busy || looking" keys="Ctrl ⏎" @press="look">{{
          looking ? 'Being looked at …' : 'Look now whether all agrees'
        }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
