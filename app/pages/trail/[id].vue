<script setup lang="ts">
import { formatSize } from '#shared/words/format'
import { sayPeople } from '#shared/words/someone'
import type { PersonFound } from '#shared/contract/people'
import KeyOf from '~/components/base/KeyOf.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import RouteList from '~/components/base/RouteList.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import StationPost from '~/components/base/StationPost.vue'
import { routeEntries } from '~/composables/base/route-entries'
import RequestSheet from '~/components/trail/RequestSheet.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, submitByMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

// It comes when something is looked at.
const AttachmentPreview = defineAsyncComponent(() => import('~/components/base/AttachmentPreview.vue'))
const api = useApi()
const route = useRoute()
const session = useSessionStore()
const wording = useWording()
const id = String(route.params.id)
const {
  data: trail,
  error,
  refresh,
} = await useAsyncData(`trail-${id}`, () => api.get('/api/requisitions/{id}/trail', { params: { id } }))
if (error.value || !trail.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
useHead({ title: () => `${trail.value?.title ?? 'Trail'} · Rekko` })
useLive((changes) => {
  if (changes.some((c) => c.kind === 'again' || c.kind === 'order' || c.id === id)) void refresh()
})

const answer = ref('')
const trouble = ref('')
const busy = ref(false)
const asksCancel = ref(false)
const handing = ref(false)
const newOwner = shallowRef<PersonFound | null>(null)
const everything = ref(false)
const may = (name: string) => trail.value?.actions.find((a) => a.name === name && a.allowed) !== undefined
const others = computed(() => trail.value?.actions.filter((a) => !a.allowed) ?? [])
/** The newest question that is open: one to oneself before those to others. */
const question = computed(() => {
  const isDecided = trail.value?.state !== 'in approval'
  const open =
    trail.value?.remarks.filter((r) => r.kind === 'question' && !r.answered && !(isDecided && r.lineId === null)) ?? []
  const isMine = (toId: string | null) => (toId === null ? trail.value?.isOwner === true : toId === session.me?.id)
  return open.filter((r) => isMine(r.toId)).at(-1) ?? open.at(-1)
})
const mine = computed(() => trail.value?.route.some((s) => s.you && s.state === 'open') ?? false)
const entries = computed(() => routeEntries(trail.value?.route ?? [], wording))
const STAGE = { reserved: 'asked for, not yet ordered', committed: 'ordered, not yet billed', spent: 'billed' }

async function act(work: () => Promise<unknown>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    await work()
    await refresh()
    await session.load()
  } catch (e) {
    trouble.value = sayError(e)
    await refresh()
  } finally {
    busy.value = false
  }
}
const send = () =>
  act(async () => {
    await api.post('/api/documents/{id}/answers', {
      params: { id },
      body: { text: answer.value },
      key: crypto.randomUUID(),
    })
    answer.value = ''
  })
const withdraw = () =>
  act(() =>
    api.post('/api/requisitions/{id}/withdraw', {
      params: { id },
      version: trail.value?.version ?? 0,
      key: `withdraw-${id}-${trail.value?.version ?? 0}`,
    }),
  )
const cancel = () =>
  act(async () => {
    await api.post('/api/requisitions/{id}/cancel-rest', {
      params: { id },
      version: trail.value?.version ?? 0,
      key: `cancel-${id}-${trail.value?.version ?? 0}`,
    })
    asksCancel.value = false
  })
const waits = computed(() => (trail.value?.route ?? []).filter((s) => s.state === 'open'))
const wishing = ref(false)
const wish = reactive({ what: 'change' as 'change' | 'cancel', text: '' })
const told = ref('')
const remind = () =>
  act(async () => {
    const { names } = await api.post('/api/requisitions/{id}/reminders', { params: { id }, key: crypto.randomUUID() })
    told.value = `Reminded: ${names.join(', ')}.`
  })
const askForChange = () =>
  act(async () => {
    if (wish.text.trim() === '') return
    const { names } = await api.post('/api/requisitions/{id}/wishes', {
      params: { id },
      body: { ...wish },
      key: crypto.randomUUID(),
    })
    told.value = `Asked: ${names.join(', ')}.`
    wishing.value = false
    wish.text = ''
  })
const looking = shallowRef<{ id: string; name: string; mime: string } | null>(null)
const handOver = () =>
  act(async () => {
    if (newOwner.value === null) return
    await api.post('/api/requisitions/{id}/owner', {
      params: { id },
      version: trail.value?.version ?? 0,
      body: { personId: newOwner.value.id, everything: everything.value },
      key: `owner-${id}-${trail.value?.version ?? 0}`,
    })
    handing.value = false
    newOwner.value = null
  })
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'the main action' }], (e) => {
  if (!isMainKey(e)) return
  e.preventDefault()
  if (may('answer')) void send()
  else if (mine.value) void navigateTo(`/decide/${id}`)
  else if (may('edit')) void navigateTo(`/raise/${id}`)
})
onMounted(() => {
  if (route.hash === '#answer') document.getElementById('answer')?.focus()
  if (route.hash === '#wish' && may('wish')) wishing.value = true
})
function printPage(): void {
  window.print()
}
</script>

<template>
  <div v-if="trail">
    <PageNote
      >{{ trail.number ?? 'draft' }} · owner {{ trail.owner }} ·
      <NuxtLink class="quiet-link" :to="`/raise?from=${id}`">copy</NuxtLink> ·
      <button type="button" class="quiet-link" @click="printPage">print</button> ·
      <a class="quiet-link" :href="`/api/requisitions/${id}/pdf`">PDF</a></PageNote
    >
    <SheetPage prints-margin>
      <p class="small hidden print:block">
        {{ session.me?.organisation.name }} · {{ trail.number ?? 'draft' }} · owner {{ trail.owner }} · printed
        {{ wording.ways.day(wording.today.value, '') }}
      </p>
      <h1 class="sentence" aria-live="polite">
        <b>{{ trail.title || 'A request without lines' }}</b>: {{ trail.sentence }}
      </h1>
      <p class="small mt-1.5 hidden max-[900px]:block print:hidden">
        {{ trail.number ?? 'draft' }} · owner {{ trail.owner }} ·
        <NuxtLink class="quiet-link" :to="`/raise?from=${id}`">copy</NuxtLink> ·
        <button type="button" class="quiet-link" @click="printPage">print</button> ·
        <a class="quiet-link" :href="`/api/requisitions/${id}/pdf`">PDF</a>
      </p>
      <ol class="mt-5 grid grid-cols-5 gap-0 max-[700px]:grid-cols-1 max-[700px]:gap-2">
        <li
          v-for="s in trail.stations"
          :key="s.name"
          class="min-w-0 max-[700px]:grid max-[700px]:grid-cols-[20px_90px_1fr] max-[700px]:items-baseline"
        >
          <div
            class="border-b-2 pl-1 max-[700px]:border-0 max-[700px]:pl-0"
            :class="s.look === 'filled' && s.share >= 1 ? 'border-ink' : 'border-strong'"
          >
            <StationPost size="large" :look="s.look" :share="s.share" :waits="s.waits" />
          </div>
          <p class="mt-2 font-semibold max-[700px]:mt-0">{{ s.name }}</p>
          <p class="sum-small min-h-[26px] max-[700px]:hidden">{{ s.amount ?? '–' }}</p>
          <p class="small pr-3">{{ s.note }}</p>
        </li>
      </ol>
      <section v-if="question" class="notice-amber mt-6">
        <p>
          <b class="font-semibold">{{ question.name }}</b> asks<template v-if="question.to">
            {{ question.toId === session.me?.id ? 'you' : question.to }}</template
          >: “{{ question.text }}”
        </p>
        <template v-if="may('answer')"
          ><label class="sr-only" for="answer">Your answer</label
          ><textarea
            id="answer"
            v-model="answer"
            class="field mt-2 text-ink"
            rows="2"
            maxlength="4000"
            placeholder="Your answer goes to whoever asked"
          />
        </template>
      </section>
      <RequestSheet :request="trail.request" :currency="trail.currency" />
      <h2 class="head mt-6">What came of it</h2>
      <ol class="mt-1">
        <li
          v-for="e in trail.entries"
          :key="e.key"
          :class="[
            'grid grid-cols-[128px_20px_minmax(0,1fr)_auto] gap-x-2 border-b border-rule py-2.5',
            'max-[700px]:grid-cols-[20px_minmax(0,1fr)_auto]',
          ]"
        >
          <time
            class="small pt-0.5 max-[700px]:order-last max-[700px]:col-span-3"
            :datetime="e.at"
            :title="wording.exact(e.at)"
            >{{ wording.moment(e.at) }}</time
          >
          <span class="pt-0.5" :title="e.station"><StationPost look="filled" :share="1" /></span>
          <p class="min-w-0">
            <component
              :is="e.link ? 'a' : 'b'"
              :href="e.link ?? undefined"
              class="font-semibold"
              :class="e.link ? 'quiet-link' : ''"
              @click="e.link && ($event.preventDefault(), navigateTo(e.link))"
              >{{ e.who }}</component
            >
            {{ e.what }}<span v-if="e.more" class="small block">{{ e.more }}</span>
          </p>
          <span class="num">{{ e.amount === null ? '' : wording.kept(e.amount, trail.currency) }}</span>
        </li>
        <li v-if="trail.entries.length === 0" class="text-ink2">
          It was not sent yet; from then on everything that happens stands here.
        </li>
      </ol>
      <div v-if="trail.attachments.length > 0" class="mt-4 flex flex-wrap gap-2">
        <button
          v-for="a in trail.attachments"
          :key="a.id"
          type="button"
          class="inline-flex items-center gap-2 rounded border border-edge px-2.5 py-1 hover:border-ink"
          @click="looking = a"
        >
          {{ a.name }} <span class="small">{{ a.kind }}, {{ formatSize(a.size) }}</span></button
        ><AttachmentPreview
          v-if="looking"
          :attachment="looking"
          :address="`/api/requisitions/${id}/attachments/${looking.id}`"
          @close="looking = null"
        />
      </div>
      <template #margin>
        <h2 class="head mb-1">What happens next</h2>
        <p>{{ trail.next }}</p>
        <template v-if="entries.length > 0"
          ><h2 class="head mb-2 mt-5">
            {{ trail.state === 'in approval' || trail.state === 'draft' ? 'Who decides' : 'Who decided' }}
          </h2>
          <RouteList :entries="entries"
        /></template>
        <template v-if="trail.money.length > 0"
          ><h2 class="head mb-1.5 mt-4">Where the money is</h2>
          <dl>
            <div v-for="m in trail.money" :key="m.stage" class="flex justify-between gap-3">
              <dt class="text-ink2">{{ STAGE[m.stage] }}</dt>
              <dd>{{ wording.kept(m.amount, trail.currency) }}</dd>
            </div>
          </dl></template
        >
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction v-if="may('answer')" :busy="busy" :missing="answer.trim() === ''" keys="Ctrl ⏎" @press="send">{{
          answer.trim() === '' ? 'Write the answer, then send it' : `Send the answer to ${question?.name ?? ''}`
        }}</MainAction>
        <NuxtLink v-else-if="mine" class="main-action" :to="`/decide/${id}`"
          ><span>Decide on it</span><kbd class="key font-sans">Ctrl ⏎</kbd></NuxtLink
        >
        <NuxtLink v-else-if="may('edit')" class="main-action" :to="`/raise/${id}`"
          ><span>{{ trail.state === 'draft' ? 'Go on writing it' : 'Change it and send it again' }}</span
          ><kbd class="key font-sans">Ctrl ⏎</kbd></NuxtLink
        >
        <div class="mt-2.5 flex flex-wrap gap-2 [&>*]:flex-auto">
          <button v-if="may('remind')" type="button" class="action" @click="remind">
            {{ waits.length > 0 ? `Remind ${sayPeople(waits)}` : 'Remind the buyers' }}
          </button>
          <button v-if="may('wish') && !wishing" type="button" class="action" @click="wishing = true">
            Ask the buyer for a change
          </button>
          <button v-if="may('withdraw')" type="button" class="action" @click="withdraw">Withdraw</button>
          <template v-if="may('cancelRest')"
            ><button v-if="!asksCancel" type="button" class="action action-danger" @click="asksCancel = true">
              Cancel the rest</button
            ><button v-else type="button" class="action action-danger" @click="cancel">
              Yes, cancel for good
            </button></template
          >
          <NuxtLink class="action" :to="`/raise?from=${id}`">Copy</NuxtLink>
          <button v-if="may('handOver') && !handing" type="button" class="action" @click="handing = true">
            Hand over
          </button>
        </div>
        <p v-if="told" class="small mt-2" role="status">{{ told }}</p>
        <form
          v-if="wishing && may('wish')"
          class="mt-2.5"
          @submit.prevent="askForChange"
          @keydown="submitByMainKey"
          @keydown.esc="wishing = false"
        >
          <fieldset class="flex gap-4">
            <legend class="sr-only">What the buyer should do</legend>
            <label class="flex items-center gap-2"
              ><input v-model="wish.what" type="radio" value="change" class="accent-[var(--green)]" /> change it</label
            ><label class="flex items-center gap-2"
              ><input v-model="wish.what" type="radio" value="cancel" class="accent-[var(--green)]" /> cancel it</label
            >
          </fieldset>
          <label class="sr-only" for="wish">What the buyer should know</label
          ><textarea
            id="wish"
            v-model="wish.text"
            class="field mt-2"
            rows="2"
            maxlength="2000"
            :placeholder="wish.what === 'change' ? 'What should change' : 'Why it is not needed any more'"
          />
          <div class="mt-2 flex gap-2">
            <button type="submit" class="action flex-1" :disabled="wish.text.trim() === ''">
              {{
                wish.text.trim() === ''
                  ? 'Say what first'
                  : wish.what === 'change'
                    ? 'Ask the buyer to change it'
                    : 'Ask the buyer to cancel it'
              }}<KeyOf v-if="wish.text.trim() !== ''" /></button
            ><button type="button" class="action" @click="wishing = false">Leave it</button>
          </div>
        </form>
        <form
          v-if="handing && may('handOver')"
          class="mt-2.5"
          @submit.prevent="handOver"
          @keydown="submitByMainKey"
          @keydown.esc="handing = false"
        >
          <PersonPicker
            v-model="newOwner"
            boxed
            up
            label="Who owns it from now on"
            placeholder="Who owns it from now on?"
          />
          <label
            v-if="session.me?.rights.includes('change owners') && !trail.isOwner"
            class="mt-2 flex items-start gap-2"
            ><input v-model="everything" type="checkbox" class="mt-0.5 size-4 accent-[var(--green)]" /> and everything
            else of {{ trail.owner }} that is not over</label
          >
          <div class="mt-2 flex gap-2">
            <button type="submit" class="action flex-1" :disabled="newOwner === null">
              {{ newOwner === null ? 'Choose who' : `Hand over to ${newOwner.name}` }}<KeyOf v-if="newOwner" /></button
            ><button type="button" class="action" @click="handing = false">Keep it</button>
          </div>
        </form>
        <p v-for="o in others" :key="o.name" class="small mt-2">
          {{
            {
              edit: 'Changing it',
              answer: 'Answering',
              remind: 'Reminding',
              wish: 'Asking for a change',
              withdraw: 'Withdrawing it',
              cancelRest: 'Cancelling the rest',
              copy: 'Copying',
              throwAway: 'Throwing it away',
              handOver: 'Handing it over',
            }[o.name]
          }}: {{ o.why.toLowerCase().replace(/\.$/, '') }}, {{ trail.owner }}.
        </p>
      </template>
    </SheetPage>
  </div>
</template>
