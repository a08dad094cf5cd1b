<script setup lang="ts">
import type { RuleMove } from '#core/order/rule-moves'
import type { RuleView } from '#shared/contract/ordering'
import { capital, formatCount } from '#shared/words/format'
import { RULE_STANDS, sayRule, type NameOf } from '#shared/words/ordering'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import RuleForm from '~/components/ordering/RuleForm.vue'
import RunSaid from '~/components/ordering/RunSaid.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Ordering by itself · Rekko' })
const api = useApi()
const wording = useWording()
const session = useSessionStore()
const { data, error, refresh } = await useAsyncData('ordering-rules', () => api.get('/api/ordering-rules'))
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const { busy, trouble, act } = useAct()
const said = ref('')
/** Which rule is being written: its id, or a new one. */
const open = ref<string | null>(null)
const rights = computed(() => session.me?.rights ?? [])
const mayWrite = computed(() => rights.value.includes('keep settings'))
const rules = computed(() => data.value?.rules.filter((r) => r.state !== 'ended') ?? [])
const ended = computed(() => data.value?.rules.filter((r) => r.state === 'ended') ?? [])
const nameOf: NameOf = (of, id) => {
  const c = data.value?.choices
  const lists = { kind: c?.kinds, department: c?.departments, category: c?.categories, supplier: c?.suppliers }
  return lists[of]?.find((x) => x.id === id)?.name ?? 'one that is gone'
}
const says = (r: RuleView) => sayRule(r.form, nameOf, data.value?.choices.currency ?? 'EUR', wording.ways)
const sentence = computed(() => {
  const waits = rules.value.filter((r) => r.may.includes('confirm')).length
  if (waits > 0) return `${capital(formatCount(waits, 'rule waits', 'rules wait'))} for your yes.`
  const n = rules.value.filter((r) => r.state === 'in force').length
  return n === 0
    ? 'Nothing is ordered by itself.'
    : `${capital(formatCount(n, 'rule orders', 'rules order'))} by ${n === 1 ? 'itself' : 'themselves'}.`
})

/** What may be done with a rule, as its button says it and as what was done is said. */
const MOVES: Readonly<Partial<Record<RuleMove, { readonly button: string; readonly done: string }>>> = {
  ask: { button: 'Ask for it to be put in force', done: 'waits for a second person now.' },
  confirm: { button: 'Put it in force', done: 'is in force.' },
  'send back': { button: 'Send it back', done: 'is sent back.' },
  pause: { button: 'Pause it', done: 'is paused until it is let go on.' },
  'let go on': { button: 'Let it go on', done: 'goes on.' },
  end: { button: 'End it', done: 'is ended.' },
  'take up again': { button: 'take it up again', done: 'is a draft again.' },
}
async function move(r: RuleView, by: RuleMove, done: string): Promise<void> {
  const ok = await act(() =>
    api.put('/api/ordering-rules/{id}/state', { params: { id: r.id }, version: r.version, body: { move: by } }),
  )
  if (ok) said.value = `“${r.name}” ${done}`
  await refresh()
}
async function run(r: RuleView): Promise<void> {
  const key = crypto.randomUUID()
  const ok = await act(() => api.post('/api/ordering-rules/{id}/runs', { params: { id: r.id }, key }))
  if (ok) said.value = `“${r.name}” is carried out as soon as its turn comes.`
}
interface Deed {
  readonly says: string
  readonly press: () => unknown
  readonly id?: string
}
/** What whoever looks may do with a rule, what leads on first. */
function deedsOf(r: RuleView): Deed[] {
  const moves = (...of: RuleMove[]): Deed[] =>
    of.flatMap((by) => {
      const words = MOVES[by]
      return words === undefined || !r.may.includes(by)
        ? []
        : [{ says: words.button, press: () => move(r, by, words.done) }]
    })
  const mayRun = r.state === 'in force' && (mayWrite.value || r.buyerId === session.me?.id)
  return [
    ...moves('ask', 'confirm', 'send back'),
    ...(mayRun ? [{ says: 'Carry it out now', press: () => run(r) }] : []),
    ...(r.may.includes('change')
      ? [{ says: 'Change or try it', press: () => (open.value = r.id), id: `change-${r.id}` }]
      : []),
    ...moves('pause', 'let go on', 'end', 'take up again'),
  ]
}
async function close(focusOn: string): Promise<void> {
  open.value = null
  await nextTick()
  document.getElementById(focusOn)?.focus()
}
async function kept(focusOn: string): Promise<void> {
  await refresh()
  await close(focusOn)
}
</script>

<template>
  <div>
    <PageNote>kept in hand</PageNote>
    <SheetPage>
      <h1 class="sentence mb-3">{{ sentence }}</h1>
      <p v-if="error" class="notice-red">
        {{ sayError(error) }}
        <button type="button" class="quiet-link font-semibold" @click="refresh()">Try again</button>
      </p>
      <p v-if="trouble" class="notice-red mb-3" role="alert">{{ trouble }}</p>
      <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
      <p v-if="data && rules.length === 0 && open === null" class="max-w-[64ch] text-ink2">
        A rule says which approved lines become orders without anybody’s hand: those that an agreement covers, some
        categories or suppliers, up to an amount. They are put together as on the Desk, issued in a buyer’s name, and
        every run says what it made, what it left and why.
      </p>
      <template v-for="r in rules" :key="r.id">
        <RuleForm
          v-if="open === r.id && data"
          :rule="r"
          :choices="data.choices"
          @kept="kept(`change-${r.id}`)"
          @close="close(`change-${r.id}`)"
        />
        <article v-else class="border-t border-rule py-3" :aria-label="r.name">
          <h2 class="flex flex-wrap items-baseline gap-x-3 font-semibold">
            {{ r.name }}
            <span class="small font-[440]" :class="r.state === 'in force' ? 'text-green' : 'text-amber-ink'">{{
              RULE_STANDS[r.state]
            }}</span>
          </h2>
          <p class="mt-0.5 max-w-[86ch]">{{ says(r) }}</p>
          <p class="small mt-1">
            In the name of {{ r.buyer }}. Written by {{ r.writtenBy
            }}<template v-if="r.confirmedBy">, put in force by {{ r.confirmedBy }}</template
            >. <RunSaid v-if="r.lastRun" :run="r.lastRun" :linked="rights.includes('see orders')" />
          </p>
          <p class="mt-2 flex flex-wrap gap-2">
            <button
              v-for="d in deedsOf(r)"
              :id="d.id"
              :key="d.says"
              type="button"
              class="action"
              :disabled="busy"
              :aria-label="`${d.says}: ${r.name}`"
              @click="d.press"
            >
              {{ d.says }}
            </button>
          </p>
        </article>
      </template>
      <RuleForm
        v-if="open === 'new' && data"
        :rule="null"
        :choices="data.choices"
        @kept="kept('new-rule')"
        @close="close('new-rule')"
      />
      <p v-if="mayWrite && open !== 'new'" class="mt-3 border-t border-rule pt-3">
        <button id="new-rule" type="button" class="action" @click="open = 'new'">Write a rule</button>
      </p>
      <section v-if="ended.length > 0" class="mt-6" aria-labelledby="ended">
        <h2 id="ended" class="head">Ended</h2>
        <p v-for="r in ended" :key="r.id" class="small mt-1">
          {{ r.name }}. <RunSaid v-if="r.lastRun" :run="r.lastRun" :linked="rights.includes('see orders')" />
          <button
            v-for="d in deedsOf(r)"
            :key="d.says"
            type="button"
            class="quiet-link ml-2 min-h-6"
            :disabled="busy"
            :aria-label="`${d.says}: ${r.name}`"
            @click="d.press"
          >
            {{ d.says }}
          </button>
        </p>
      </section>
      <template #margin>
        <h2 class="head mb-1.5">How it is kept in hand</h2>
        <p class="text-ink2">
          A rule orders only what its buyer may order too: within their limit, their part, the budgets and what was
          approved. What does not pass is left on the Desk.
        </p>
        <p class="mt-2 text-ink2">
          Whoever writes a rule does not put it in force. Its buyer may pause it at any time.
        </p>
        <p v-if="rights.includes('see orders')" class="mt-3">
          <NuxtLink class="quiet-link" to="/orders/runs">All runs</NuxtLink>
        </p>
      </template>
    </SheetPage>
  </div>
</template>
