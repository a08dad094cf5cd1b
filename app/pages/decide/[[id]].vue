<script setup lang="ts">
import type { HandedHow } from '#core/approval/handed'
import type { LineChange } from '#core/requisition/decided-change'
import { moneyOf, sum } from '#core/base/money'
import type { DecideOutcome, Slip } from '#shared/contract/decide'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount, inWords, listWords } from '#shared/words/format'
import BudgetEffects from '~/components/budget/BudgetEffects.vue'
import KeyOf from '~/components/base/KeyOf.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import RouteList from '~/components/base/RouteList.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import OrderToDecide from '~/components/decide/OrderToDecide.vue'
import RequestToDecide from '~/components/decide/RequestToDecide.vue'
import SlipStrip from '~/components/decide/SlipStrip.vue'
import { useDecisionDocs } from '~/composables/decide/use-decision-docs'
import { routeEntries } from '~/composables/base/route-entries'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useDecisionsStore } from '~/stores/decisions'
import { useSessionStore } from '~/stores/session'

// Going from slip to slip keeps the page; only what is on the sheet changes.
definePageMeta({ key: 'decide' })
useHead({ title: 'Decide · Rekko' })

// It comes when something is changed.
const ChangeLines = defineAsyncComponent(() => import('~/components/decide/ChangeLines.vue'))
const HandOn = defineAsyncComponent(() => import('~/components/decide/HandOn.vue'))
const PreparedReasons = defineAsyncComponent(() => import('~/components/decide/PreparedReasons.vue'))
const api = useApi()
const route = useRoute()
const session = useSessionStore()
const decisions = useDecisionsStore()
const wording = useWording()
const undo = useUndo()
const box = useTemplateRef<HTMLTextAreaElement>('box')
const comment = ref('')
/** What of the request that is shown is changed while approving it. */
const changes = ref<readonly LineChange[]>([])
const asked = shallowRef<PersonFound | null>(null)
const trouble = ref('')
const hint = ref('')
const busy = ref(false)
const isHanding = ref(false)
const isChanging = ref(false)
/** What of a change that is typed cannot be taken. */
const wrong = ref('')
function leaveChanges(): void {
  isChanging.value = false
  changes.value = []
  wrong.value = ''
}
const marked = ref<ReadonlySet<string>>(new Set())

const { data: read, refresh, error } = await useAsyncData('waiting', () => api.get('/api/waiting'))
/** What was read last stays while Rekko cannot be reached. */
const queue = shallowRef(read.value)
watch(read, (now) => {
  if (now !== undefined && now !== null) queue.value = now
})
const readQueue = () => decisions.afterReading(() => refresh())
/** What waits, without what was just decided. */
const slips = computed(() => (queue.value?.slips ?? []).filter((s) => !decisions.hides(s.id)))
const wanted = computed(() =>
  typeof route.params.id === 'string' && route.params.id !== '' ? route.params.id : (slips.value[0]?.id ?? null),
)
const at = computed(() => slips.value.findIndex((s) => s.id === wanted.value))
const following = computed(() => slips.value.slice(at.value + 1).map((s) => s.id))
const { ready, doc, problem, again, forget, forgetOthers } = useDecisionDocs(wanted, following)
await ready
useLive((changes) => {
  const own = changes.filter((c) => ['requisition', 'order', 'order change', 'again'].includes(c.kind))
  if (own.length === 0) return
  if (own.some((c) => c.kind === 'again')) forgetOthers()
  for (const c of own) if (c.id !== wanted.value) forget(c.id)
  void readQueue()
  if (wanted.value !== null && own.some((c) => c.id === wanted.value || c.kind === 'again')) void again(wanted.value)
})
onMounted(() => {
  watch(
    () => session.me?.id,
    (id) => {
      if (id !== undefined) decisions.resume(id)
    },
    { immediate: true },
  )
})
watch(
  () => decisions.settled,
  () => {
    void readQueue()
    void session.load()
  },
)

const note = computed(() =>
  slips.value.length === 0
    ? 'nothing waits for you'
    : `${slips.value.length} ${slips.value.length === 1 ? 'waits' : 'wait'} for you · ` +
      `oldest since ${wording.since(slips.value[0]?.since ?? '')} · arrows to move`,
)
const bars = computed(() => (doc.value?.budget ?? []).map((b) => ({ ...b, given: b.budgeted })))
const entries = computed(() => routeEntries(doc.value?.route ?? [], wording))
/** Several that are decided by one press; none while one is decided by itself. */
const together = computed(() => slips.value.filter((s) => marked.value.has(s.id)))
const mainWords = computed(() => {
  if (together.value.length > 0) {
    const currency = together.value[0]?.currency ?? ''
    const total = sum(
      together.value.map((s) => moneyOf(s.amount, s.currency)),
      currency,
    )
    const these = together.value.length === 1 ? 'the marked one' : `these ${inWords(together.value.length)}`
    return `Approve ${these}, ${wording.money(total)}`
  }
  const a = doc.value?.afterApproval
  if (a === undefined) return ''
  // Whom it goes to then follows from what is changed.
  if (changes.value.length > 0) return `Approve with ${formatCount(changes.value.length, 'line', 'lines')} changed`
  if (a.state === 'approved')
    return doc.value?.document !== 'order'
      ? 'Approve and pass to the buyers'
      : doc.value.change === null
        ? `Approve for ${doc.value.owner} to issue`
        : 'Approve; then it goes to the supplier'
  return a.state === 'held'
    ? 'Approve; then an administrator has to name who decides'
    : `Approve and pass to ${listWords(a.next)}`
})
/** An order is approved or sent back: what it is for is approved already, and needed. */
const mayReject = computed(() =>
  together.value.length > 0
    ? together.value.every((s) => s.document === 'requisition')
    : doc.value?.document === 'requisition',
)
const mine = computed(() => doc.value?.mine === true && !decisions.hides(doc.value.id))

function show(id: string | null): void {
  void navigateTo(id === null ? '/decide' : `/decide/${id}`, { replace: true })
  void nextTick(() =>
    document.getElementById(`slip-${id ?? ''}`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
  )
}
function go(by: number): void {
  decidedAt = 0
  const to = slips.value[Math.max(0, Math.min(slips.value.length - 1, at.value + by))]
  if (to !== undefined && to.id !== wanted.value) show(to.id)
}
const DONE = { approve: 'Approved', sendBack: 'Sent back', reject: 'Rejected' } as const
const ASK_FOR = {
  sendBack: 'Say what is to be changed, then press “Send back” again.',
  reject: 'Say why, then press “Reject” again.',
  ask: 'Write the question, then press “Ask” again.',
}
/** What Ctrl+Enter does in the box: it asks, or what words were wanted for; null while one is not in it. */
const boxDoes = ref<keyof typeof ASK_FOR | null>(null)
function needsWords(what: keyof typeof ASK_FOR): boolean {
  if (comment.value.trim() !== '') return false
  hint.value = ASK_FOR[what]
  box.value?.focus()
  boxDoes.value = what
  return true
}
const USE_OF = { sendBack: 'sending back', reject: 'rejecting', ask: 'asking' } as const
const reasons = computed(() =>
  (queue.value?.reasons ?? []).filter(
    (r) => r.use === 'all' || boxDoes.value === null || r.use === USE_OF[boxDoes.value],
  ),
)
function pick(text: string): void {
  comment.value = comment.value.trim() === '' ? text : `${comment.value.trim()} ${text}`
  void nextTick(() => box.value?.focus())
}

/** Two presses so soon after each other, with nothing between, are one: nobody has read the next by then. */
const TWICE_MS = 350
let decidedAt = 0
/** Decides what is shown, or all that are marked, each by itself; the page goes on at once. */
function decide(outcome: DecideOutcome): void {
  const d = doc.value
  const targets: Pick<Slip, 'id' | 'version' | 'title' | 'owner'>[] =
    together.value.length > 0 ? together.value : d !== null && mine.value ? [d] : []
  const isTwice = Date.now() - decidedAt < TWICE_MS
  if (targets.length === 0 || busy.value || isTwice || (outcome !== 'approve' && needsWords(outcome))) return
  if (outcome === 'approve' && together.value.length === 0 && wrong.value !== '') {
    trouble.value = wrong.value
    return
  }
  decidedAt = Date.now()
  trouble.value = ''
  const ids = new Set(targets.map((t) => t.id))
  const left = slips.value.filter((s) => !ids.has(s.id))
  const next =
    wanted.value !== null && !ids.has(wanted.value)
      ? wanted.value
      : ((left.find((s) => slips.value.indexOf(s) > at.value) ?? left.at(-1))?.id ?? null)
  const made = targets.map((t) => ({
    documentId: t.id,
    version: t.version,
    outcome,
    comment: comment.value,
    changes: outcome === 'approve' && together.value.length === 0 ? changes.value : [],
    called: `${t.title}, ${t.owner}`,
  }))
  const [first] = targets
  decisions.decide(made)
  for (const id of ids) forget(id)
  comment.value = ''
  leaveChanges()
  hint.value = ''
  marked.value = new Set()
  undo.show(
    targets.length === 1
      ? `${DONE[outcome]}: ${first?.title ?? ''}, ${first?.owner ?? ''}.`
      : `${DONE[outcome]}: ${formatCount(targets.length, 'request', 'requests')}.`,
    targets.length === 1 ? 'Take it back' : 'Take them back',
    10,
    async () => {
      decidedAt = 0
      trouble.value = await decisions.takeBack(made)
      await readQueue()
      for (const id of ids) await comeBack(id, id === first?.id)
      void session.load()
    },
    { stays: true },
  )
  show(next)
  document.getElementById('page')?.focus()
}

/** What was taken back waits again as it is now, and is shown where it was the one that was decided. */
async function comeBack(id: string, isShown: boolean): Promise<void> {
  if (id === wanted.value) await again(id)
  else {
    forget(id)
    if (isShown) show(id)
  }
}
async function act(work: (id: string) => Promise<unknown>): Promise<void> {
  const d = doc.value
  if (d === null || busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    await work(d.id)
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
  // What is read anew holds nobody up.
  await Promise.all([again(d.id), readQueue()])
}
function ask(): void {
  if (!needsWords('ask'))
    void act(async (id) => {
      await api.post('/api/documents/{id}/questions', {
        params: { id },
        body: { text: comment.value, toId: asked.value?.id ?? null },
        key: crypto.randomUUID(),
      })
      comment.value = ''
      hint.value = `${asked.value?.name ?? doc.value?.owner ?? ''} is asked, and hears of it now.`
      asked.value = null
    })
}
async function callBack(id: string, handingId: string): Promise<void> {
  await act(() => api.remove('/api/documents/{id}/handings/{handingId}', { params: { id, handingId } }))
  await comeBack(id, true)
}
function hand(how: HandedHow, to: PersonFound): void {
  void act(async (id) => {
    const { handingId } = await api.post('/api/documents/{id}/handings', {
      params: { id },
      body: { how, toId: to.id, comment: comment.value },
      key: crypto.randomUUID(),
    })
    comment.value = ''
    isHanding.value = false
    const said = how === 'on' ? `Passed on to ${to.name}.` : `${to.name} is asked to decide ${how}.`
    undo.show(said, 'Call it back', 10, () => callBack(id, handingId))
    await session.load()
  })
}
watch(wanted, () => {
  comment.value = ''
  leaveChanges()
  asked.value = null
  trouble.value = ''
  hint.value = ''
  isHanding.value = false
})
const HANDED = {
  on: 'You passed it on to',
  first: 'You have this decided first by',
  'as well': 'You have this decided as well by',
  skip: 'You skipped somebody for',
}
usePlaceKeys(
  [
    { keys: '← →', does: 'between what waits' },
    { keys: 'Space', does: 'mark what is shown, to decide several together' },
    { keys: 'Ctrl Enter', does: 'approve; in the box: ask, or what the box is for' },
    { keys: 'Tab', does: 'to ask, send back, reject' },
  ],
  (event) => {
    if (isMainKey(event)) {
      event.preventDefault()
      if (boxDoes.value === 'ask') ask()
      else decide(boxDoes.value ?? 'approve')
    } else if (!isTyping(event) && event.key === 'ArrowRight') {
      event.preventDefault()
      go(1)
    } else if (!isTyping(event) && event.key === 'ArrowLeft') {
      event.preventDefault()
      go(-1)
    } else if (event.key === ' ' && isOnPage(event) && mine.value && wanted.value !== null) {
      event.preventDefault()
      const next = new Set(marked.value)
      if (!next.delete(wanted.value)) next.add(wanted.value)
      marked.value = next
    }
  },
)
/** A key on nothing in particular: buttons, links and fields have a use of their own for it. */
const isOnPage = (event: KeyboardEvent) => event.target === document.body || (event.target as HTMLElement).id === 'page'
</script>

<template>
  <div>
    <PageNote>{{ note }}</PageNote>
    <SheetPage>
      <template v-if="slips.length > 0" #strip>
        <SlipStrip v-model:marked="marked" :slips="slips" :wanted="wanted" />
      </template>
      <div v-for="r in decisions.returned" :key="r.documentId" class="notice-red mb-3" role="alert">
        <p>
          <NuxtLink class="quiet-link" :to="`/decide/${r.documentId}`">{{ r.called }}</NuxtLink> came back: {{ r.why }}
        </p>
        <button type="button" class="quiet-link" @click="decisions.forget(r.documentId)">I have seen it</button>
      </div>
      <p v-if="decisions.isHeldUp && decisions.kept.length > 0" class="notice-amber mb-3" role="status">
        {{ capital(formatCount(decisions.kept.length, 'decision waits', 'decisions wait')) }} here until Rekko can be
        reached.
        <button type="button" class="quiet-link" @click="decisions.takeBack(decisions.kept)">Take back</button>
      </p>
      <p v-if="(error || problem) && !doc" class="notice-red">
        {{ sayError(error ?? problem) }} <NuxtLink class="quiet-link" to="/decide">See what waits</NuxtLink>
      </p>
      <template v-else-if="wanted === null">
        <h1 class="sentence">Nothing waits for your decision.</h1>
        <p class="mt-3 max-w-[60ch] text-ink2">
          When somebody asks for more than they may buy by themselves, it stands here with its reason, prices, budget
          and quotes, and you are told by e-mail.
        </p>
        <p class="mt-5 flex gap-2">
          <NuxtLink class="action" to="/budgets">Look at the budgets</NuxtLink
          ><NuxtLink class="action" to="/away">Say when you are away</NuxtLink>
        </p>
      </template>
      <p v-else-if="!doc" class="text-ink2" role="status">It is on its way …</p>
      <article v-else>
        <RequestToDecide v-if="doc.document === 'requisition'" :doc="doc">
          <ChangeLines
            v-if="isChanging && mine && together.length === 0"
            :key="doc.id"
            v-model="changes"
            v-model:wrong="wrong"
            :doc="doc"
            @leave="leaveChanges"
          />
        </RequestToDecide>
        <OrderToDecide v-else :doc="doc" @answered="again(doc.id)" />
        <template v-if="mine || together.length > 0">
          <label class="sr-only" for="comment">Ask, answer or leave a reason</label>
          <textarea
            id="comment"
            ref="box"
            v-model="comment"
            class="field mt-3"
            rows="1"
            maxlength="4000"
            placeholder="Ask, or leave a reason; it goes with what you decide"
            @focus="boxDoes ??= 'ask'"
            @blur="boxDoes = null"
          />
          <div class="small mt-1.5 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
            <span v-if="together.length === 0"
              >A question goes to
              <PersonPicker v-model="asked" compact label="Whom a question goes to" :placeholder="doc.owner"
            /></span>
            <PreparedReasons v-if="reasons.length > 0" :reasons="reasons" @pick="pick" />
          </div>
        </template>
        <p v-if="hint" class="small mt-1.5" role="status">{{ hint }}</p>
      </article>
      <template v-if="doc" #margin>
        <h2 class="head mb-1.5">What it takes from the budget</h2>
        <BudgetEffects :effects="bars" />
        <h2 v-if="entries.length > 0" class="head mb-2 mt-5">{{ mine ? 'Who decides' : 'Who decides on it' }}</h2>
        <RouteList :entries="entries" />
        <p v-if="doc.held" class="notice-red">It is held: nobody is found who may decide.</p>
        <p v-for="h in doc.handed" :key="h.id" class="small">
          {{ HANDED[h.how] }} {{ h.to }}.
          <button type="button" class="quiet-link" @click="callBack(doc.id, h.id)">Call it back</button>
        </p>
      </template>
      <template v-if="doc || together.length > 0" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <template v-if="mine || together.length > 0">
          <MainAction :busy="busy" :keys="boxDoes === null ? 'Ctrl ⏎' : undefined" @press="decide('approve')">{{
            mainWords
          }}</MainAction>
          <p v-if="together.length > 0" class="small mt-1.5">
            Each is its own decision, and all are taken back together.
            <button type="button" class="quiet-link" @click="marked = new Set()">Mark none</button>
          </p>
          <div
            class="mt-2.5 grid gap-2"
            :class="['grid-cols-1', 'grid-cols-2', 'grid-cols-3'][Number(mayReject) + Number(together.length === 0)]"
          >
            <button v-if="together.length === 0" type="button" class="action" @click="ask">
              Ask <KeyOf v-if="boxDoes === 'ask'" />
            </button>
            <button type="button" class="action" @click="decide('sendBack')">
              Send back <KeyOf v-if="boxDoes === 'sendBack'" /></button
            ><button v-if="mayReject" type="button" class="action action-danger" @click="decide('reject')">
              Reject <KeyOf v-if="boxDoes === 'reject'" />
            </button>
          </div>
          <template v-if="together.length === 0">
            <HandOn v-if="isHanding" :busy="busy" @hand="hand" @leave="isHanding = false" />
            <p v-else class="mt-2.5 flex flex-wrap gap-x-4">
              <button type="button" class="quiet-link small min-h-6" @click="isHanding = true">
                Have somebody else decide
              </button>
              <button
                v-if="doc?.document === 'requisition' && doc.mayChange !== 'nothing' && !isChanging"
                type="button"
                class="quiet-link small min-h-6"
                @click="isChanging = true"
              >
                Change it while approving
              </button>
            </p>
          </template>
        </template>
        <p v-else-if="doc" class="text-ink2">
          This does not wait for you<template v-if="entries.some((e) => e.state === 'open')"
            >; {{ listWords(entries.filter((e) => e.state === 'open').map((e) => e.name)) }}
            {{ inWords(entries.filter((e) => e.state === 'open').length) === 'one' ? 'decides' : 'decide' }}
            now</template
          >. <NuxtLink class="quiet-link" :to="`/trail/${doc.id}`">See its trail</NuxtLink>
        </p>
      </template>
    </SheetPage>
  </div>
</template>
