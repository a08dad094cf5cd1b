<script setup lang="ts">
import { sayRemark } from '#shared/words/document'
import { formatSize, inWords, listWords } from '#shared/words/format'
import { sayLineSource } from '#shared/words/request-line'
import BudgetEffects from '~/components/budget/BudgetEffects.vue'
import KeyOf from '~/components/base/KeyOf.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import RouteList from '~/components/base/RouteList.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import PriceMemory from '~/components/decide/PriceMemory.vue'
import { routeEntries } from '~/composables/base/route-entries'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, isTyping, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

// Going from slip to slip keeps the page; only what is on the sheet changes.
definePageMeta({ key: 'decide' })
useHead({ title: 'Decide · Rekko' })

// It comes when something is looked at.
const AttachmentPreview = defineAsyncComponent(() => import('~/components/base/AttachmentPreview.vue'))
const api = useApi()
const looking = shallowRef<{ id: string; name: string; mime: string } | null>(null)
const route = useRoute()
const session = useSessionStore()
const wording = useWording()
const undo = useUndo()
const box = useTemplateRef<HTMLTextAreaElement>('box')
const comment = ref('')
const trouble = ref('')
const hint = ref('')
const busy = ref(false)

const { data: queue, refresh: readQueue, error } = await useAsyncData('waiting', () => api.get('/api/waiting'))
const slips = computed(() => queue.value?.slips ?? [])
const wanted = computed(() =>
  typeof route.params.id === 'string' && route.params.id !== '' ? route.params.id : (slips.value[0]?.id ?? null),
)
const {
  data: doc,
  refresh: readDoc,
  error: docError,
} = await useAsyncData(
  'decision',
  async () =>
    wanted.value === null ? null : api.get('/api/requisitions/{id}/decision', { params: { id: wanted.value } }),
  { watch: [wanted] },
)
useLive((changes) => {
  const own = changes.filter((c) => c.kind === 'requisition' || c.kind === 'again')
  if (own.length > 0) {
    void readQueue()
    if (own.some((c) => c.id === wanted.value || c.kind === 'again')) void readDoc()
  }
})

const at = computed(() => slips.value.findIndex((s) => s.id === wanted.value))
const oldest = computed(() => slips.value[0])
const note = computed(() =>
  slips.value.length === 0
    ? 'nothing waits for you'
    : `${slips.value.length} ${slips.value.length === 1 ? 'waits' : 'wait'} for you · ` +
      `oldest since ${wording.since(oldest.value?.since ?? '')} · arrows to move`,
)
const bars = computed(() => (doc.value?.budget ?? []).map((b) => ({ ...b, given: b.budgeted })))
const entries = computed(() => routeEntries(doc.value?.route ?? [], wording))
const mainWords = computed(() => {
  const a = doc.value?.afterApproval
  if (a === undefined) return ''
  if (a.state === 'approved') return 'Approve and pass to the buyers'
  return a.state === 'held'
    ? 'Approve; then an administrator has to name who decides'
    : `Approve and pass to ${listWords(a.next)}`
})

function go(by: number): void {
  const to = slips.value[Math.max(0, Math.min(slips.value.length - 1, at.value + by))]
  if (to !== undefined && to.id !== wanted.value) {
    comment.value = ''
    void navigateTo(`/decide/${to.id}`, { replace: true })
  }
  void nextTick(() =>
    document.getElementById(`slip-${to?.id ?? ''}`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
  )
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
async function decide(outcome: 'approve' | 'sendBack' | 'reject'): Promise<void> {
  const d = doc.value
  // While the next slip is on its way, what one would decide on is not yet what one sees chosen.
  if (d === null || d === undefined || !d.mine || d.id !== wanted.value || busy.value) return
  if (outcome !== 'approve' && needsWords(outcome)) return
  busy.value = true
  trouble.value = ''
  const next = slips.value[at.value + 1] ?? slips.value[at.value - 1]
  try {
    const done = await api.post('/api/requisitions/{id}/decisions', {
      params: { id: d.id },
      body: { outcome, comment: comment.value },
      version: d.version,
      key: `decide-${d.id}-${d.version}-${outcome}`,
    })
    comment.value = ''
    hint.value = ''
    undo.show(
      `${DONE[outcome]}: ${d.title}, ${d.owner}.`,
      'Take it back',
      10,
      async () => {
        try {
          await api.remove('/api/requisitions/{id}/decisions/{decisionId}', {
            params: { id: d.id, decisionId: done.decisionId },
          })
          await readQueue()
          await navigateTo(`/decide/${d.id}`, { replace: true })
          await readDoc()
          await session.load()
        } catch (e) {
          trouble.value = sayError(e)
        }
      },
      { stays: true },
    )
    await readQueue()
    await navigateTo(next === undefined || next.id === d.id ? '/decide' : `/decide/${next.id}`, { replace: true })
    document.getElementById('page')?.focus()
    void session.load()
  } catch (e) {
    trouble.value = sayError(e)
    if (e instanceof ApiProblem && e.status === 412) {
      trouble.value += ' It stands here as it is now.'
      await readDoc()
    }
  } finally {
    busy.value = false
  }
}
async function ask(): Promise<void> {
  const d = doc.value
  if (d === null || d === undefined || busy.value || needsWords('ask')) return
  busy.value = true
  try {
    await api.post('/api/requisitions/{id}/questions', {
      params: { id: d.id },
      body: { text: comment.value },
      key: crypto.randomUUID(),
    })
    comment.value = ''
    hint.value = `${d.owner} is asked, and hears of it now.`
    busy.value = false
    await Promise.all([readDoc(), readQueue()])
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
watch(wanted, () => {
  trouble.value = ''
  hint.value = ''
})
usePlaceKeys(
  [
    { keys: '← →', does: 'between what waits' },
    { keys: 'Ctrl Enter', does: 'approve; in the box: ask, or what the box is for' },
    { keys: 'Tab', does: 'to ask, send back, reject' },
  ],
  (event) => {
    if (isMainKey(event)) {
      event.preventDefault()
      if (boxDoes.value === 'ask') void ask()
      else void decide(boxDoes.value ?? 'approve')
    } else if (!isTyping(event) && event.key === 'ArrowRight') {
      event.preventDefault()
      go(1)
    } else if (!isTyping(event) && event.key === 'ArrowLeft') {
      event.preventDefault()
      go(-1)
    }
  },
)
</script>

<template>
  <div>
    <PageNote>{{ note }}</PageNote>
    <SheetPage>
      <template v-if="slips.length > 0" #strip>
        <nav
          :class="[
            'flex overflow-x-auto rounded-t border border-b-0 border-strong bg-margin',
            'max-[900px]:rounded-none max-[900px]:border-x-0',
          ]"
          aria-label="What waits for you"
        >
          <NuxtLink
            v-for="s in slips"
            :id="`slip-${s.id}`"
            :key="s.id"
            :to="`/decide/${s.id}`"
            replace
            class="block min-w-[200px] max-w-[320px] shrink-0 border-r border-strong px-3.5 pb-2.5 pt-2 last:border-r-0"
            :class="s.id === wanted ? 'bg-sheet shadow-[inset_0_3px_0_var(--ink)]' : 'hover:bg-sheet'"
            :aria-current="s.id === wanted ? 'true' : undefined"
          >
            <span class="flex justify-between gap-4"
              ><b class="font-semibold">{{ s.owner }}</b
              ><span>{{ wording.kept(s.amount, s.currency) }}</span></span
            >
            <span class="small block truncate"
              >{{ s.title }}<template v-if="s.forName"> · for {{ s.forName }}</template
              ><template v-if="s.overBudget"> · over the budget</template
              ><template v-if="s.asked"> · you asked</template></span
            >
          </NuxtLink>
        </nav>
      </template>
      <p v-if="error || docError" class="notice-red">
        {{ sayError(error ?? docError) }} <NuxtLink class="quiet-link" to="/decide">See what waits</NuxtLink>
      </p>
      <template v-else-if="!doc">
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
      <article v-else>
        <h1 class="sentence">
          <b>{{ doc.owner }}</b> asks for <b>{{ wording.money(doc.amount) }}</b> for <b>{{ doc.department }}</b>, by
          {{ doc.needBy === null ? 'no day' : wording.day(doc.needBy) }}, because {{ doc.why.replace(/\.$/, '') }}.
        </h1>
        <p class="mt-1.5 text-ink2">
          <NuxtLink class="quiet-link" :to="`/trail/${doc.id}`">{{ doc.number }}</NuxtLink> · sent
          <time :datetime="doc.sentAt" :title="wording.exact(doc.sentAt)">{{ wording.moment(doc.sentAt) }}</time> · to
          {{ doc.delivery.join(', ') }}<template v-if="doc.forName"> · you decide for {{ doc.forName }}</template>
          <template v-for="t in doc.tax" :key="t.currency"> · {{ wording.money(t.total) }} with tax</template>
        </p>
        <p v-if="doc.besides.length > 0" class="small mt-1">
          {{ [...(doc.kind === 'goods' ? [] : [doc.kind]), ...doc.besides].join(' · ') }}
        </p>
        <p v-if="doc.noteInternal" class="mt-2">
          <span class="text-ink3">For colleagues:</span> {{ doc.noteInternal }}
        </p>
        <p v-if="doc.justification" class="mt-2">
          <span class="text-ink3">Justification:</span> {{ doc.justification }}
        </p>
        <p v-if="doc.overBudgetReason" class="notice-amber mt-3">
          It passes the budget, because {{ doc.overBudgetReason }}
        </p>
        <div v-if="doc.split" class="notice-amber mt-3">
          <p class="font-semibold">It may be a part of something larger</p>
          <p>{{ doc.split.sentence }}</p>
          <ul>
            <li v-for="o in doc.split.others" :key="`${o.title} ${o.day} ${o.amount.amount}`">
              <NuxtLink v-if="o.id" class="quiet-link" :to="`/trail/${o.id}`">{{ o.number }}</NuxtLink>{{
                o.id ? ', ' : ''
              }}{{ o.title }}, sent {{ wording.shortDay(o.day) }}, {{ wording.money(o.amount) }}
            </li>
          </ul>
        </div>
        <div v-if="doc.changes.length > 0" class="mt-3" :class="doc.mine ? 'notice-amber' : 'text-ink2'">
          <p class="font-semibold">Changed since it was last sent</p>
          <ul>
            <li v-for="c in doc.changes" :key="c">{{ c }}</li>
          </ul>
        </div>
        <table class="table mt-3">
          <caption class="sr-only">
            Lines
          </caption>
          <thead class="max-[700px]:sr-only">
            <tr>
              <th scope="col">What</th>
              <th scope="col" class="num">How many</th>
              <th scope="col" class="num">Price</th>
              <th scope="col" class="pl-3!">Beside what was paid</th>
              <th scope="col" class="num">Amount</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in doc.lines" :key="l.id" class="folded">
              <td>
                <span class="block font-semibold">{{ l.description }}</span><span
                  v-if="l.more.length > 0"
                  class="small block"
                  >{{ l.more.join(' · ') }}</span
                ><span class="small block">{{ sayLineSource(l) }}</span>
              </td>
              <td class="num max-[700px]:order-3 max-[700px]:text-left!">{{ wording.quantity(l.quantity, l.unit) }}</td>
              <td class="num max-[700px]:order-4">
                {{ wording.price(l.unitPrice ?? '0', l.currency)
                }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span
                ><span v-if="l.listPrice" class="small block"
                  >catalogue {{ wording.price(l.listPrice, l.currency) }}</span
                >
              </td>
              <td class="pl-3! max-[700px]:order-5 max-[700px]:col-span-2 max-[700px]:pl-0.5!">
                <PriceMemory :unit-price="l.unitPrice ?? '0'" :paid="l.paid" />
              </td>
              <td class="num font-medium">
                <span v-if="l.currency !== doc.amount.currency" class="text-ink3">{{ l.currency }} </span>{{
                  l.net === null ? '–' : wording.amount(l.net)
                }}
              </td>
            </tr>
          </tbody>
        </table>
        <div v-if="doc.attachments.length > 0" class="mt-4 flex flex-wrap gap-2">
          <button
            v-for="a in doc.attachments"
            :key="a.id"
            type="button"
            class="inline-flex items-center gap-2 rounded border border-edge px-2.5 py-1 hover:border-ink"
            @click="looking = a"
          >
            {{ a.name }} <span class="small">{{ a.kind }}, {{ formatSize(a.size) }}</span>
          </button>
          <AttachmentPreview v-if="looking" :attachment="looking" :requisition-id="doc.id" @close="looking = null" />
        </div>
        <h2 class="head mb-1 mt-6">{{ doc.remarks.length > 0 ? 'Said so far' : 'Nothing was said so far' }}</h2>
        <dl v-if="doc.remarks.length > 0">
          <div
            v-for="r in doc.remarks"
            :key="r.id"
            class="grid grid-cols-[132px_minmax(0,1fr)] gap-x-3 border-b border-rule py-2.5 max-[700px]:grid-cols-1"
          >
            <dt class="small pt-0.5">
              {{ r.personId === session.me?.id ? 'You' : r.name.split(' ')[0] }}, {{ wording.moment(r.at) }}
            </dt>
            <dd>{{ sayRemark(r) }}</dd>
          </div>
        </dl>
        <label class="sr-only" for="comment">Ask, answer or leave a reason</label>
        <textarea
          v-if="doc.mine"
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
        <p v-if="hint" class="small mt-1.5" role="status">{{ hint }}</p>
      </article>
      <template v-if="doc" #margin>
        <h2 class="head mb-1.5">What it takes from the budget</h2>
        <BudgetEffects :effects="bars" />
        <h2 v-if="entries.length > 0" class="head mb-2 mt-5">{{ doc.mine ? 'Who decides' : 'Who decides on it' }}</h2>
        <RouteList :entries="entries" />
        <p v-if="doc.held" class="notice-red">It is held: nobody is found who may decide.</p>
      </template>
      <template v-if="doc" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <template v-if="doc.mine">
          <MainAction :busy="busy" :keys="boxDoes === null ? 'Ctrl ⏎' : undefined" @press="decide('approve')">{{
            mainWords
          }}</MainAction>
          <div class="mt-2.5 grid grid-cols-3 gap-2">
            <button type="button" class="action" @click="ask">Ask <KeyOf v-if="boxDoes === 'ask'" /></button>
            <button type="button" class="action" @click="decide('sendBack')">
              Send back <KeyOf v-if="boxDoes === 'sendBack'" /></button
            ><button type="button" class="action action-danger" @click="decide('reject')">
              Reject <KeyOf v-if="boxDoes === 'reject'" />
            </button>
          </div>
        </template>
        <p v-else class="text-ink2">
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
