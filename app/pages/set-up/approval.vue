<script setup lang="ts">
import type { Finding } from '#core/approval/findings'
import type { PolicyForm } from '#core/approval/policy-form'
import type { Rule } from '#core/approval/policy'
import { capital, formatCount, inWords } from '#shared/words/format'
import { sayEnding, sayExample, sayFinding, sayOwn, sayRule } from '#shared/words/policy'
import {
  sayByMail,
  sayDirectOrders,
  sayOwnLimitDays,
  sayPolicyReason,
  sayMayChange,
  saySkipping,
  sayTolerance,
  sayWaiting,
} from '#shared/words/policy-form'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import PolicyAsk from '~/components/set-up/PolicyAsk.vue'
import PolicyChanges from '~/components/set-up/PolicyChanges.vue'
import PolicyEnding from '~/components/set-up/PolicyEnding.vue'
import PolicyRuleBlanks from '~/components/set-up/PolicyRuleBlanks.vue'
import PolicyVersions from '~/components/set-up/PolicyVersions.vue'
import ReplayDraft from '~/components/set-up/ReplayDraft.vue'
import TryRoute from '~/components/set-up/TryRoute.vue'
import { useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { nth, rankAfter, ranksOf, roomBefore } from '~/composables/set-up/policy-edit'
import { policyNames } from '~/composables/set-up/policy-world'
import { usePolicyCheck } from '~/composables/set-up/use-policy-check'
import { usePolicyDraft } from '~/composables/set-up/use-policy-draft'

useHead({ title: 'Approval · Rekko' })
const api = useApi()
const wording = useWording()
const undo = useUndo()
const { data: first, error } = await useAsyncData('approval-policy', () => api.get('/api/approval-policy'))
if (error.value || !first.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const d = usePolicyDraft(first.value)
const { view, form, isDraft, mayWrite, changes, policy, reasons } = d
useLive((happened) => {
  if (happened.some((c) => c.kind === 'settings' || c.kind === 'again')) void d.follow()
})
const names = computed(() => policyNames(view.value))
const { check, failed } = usePolicyCheck(
  () => view.value,
  () => policy.value,
)

const sentence = computed(() => {
  const n = form.value.rules.length
  const says = n === 0 ? 'no rule says' : `${inWords(n)} ${n === 1 ? 'rule says' : 'rules say'}`
  const { last, number, versions } = view.value
  const begins = versions.find((v) => v.number === last.number)?.inForceAt
  if (isDraft.value) return `Under the draft, ${says} who decides.`
  return last.number === number || begins === undefined
    ? `${capital(says)} who decides.`
    : `From ${wording.moment(begins)} on, ${says} who decides.`
})
const holdsNow = computed(() => `version ${view.value.number} in force since ${wording.moment(view.value.inForceAt)}`)
/** In which order the steps of all rules run: the first rank is 1. */
const ranks = computed(() => ranksOf(form.value.rules))
const orderOf = (rule: Rule) => {
  const own = [...new Set(rule.steps.map((s) => ranks.value.indexOf(s.rank)))].sort((a, b) => a - b)
  return ranks.value.length < 2 || own.length === 0 ? '' : `asked ${own.map(nth).join(' and ')}`
}

const findings = computed(() => check.value?.findings ?? [])
const ofRule = (id: string) => findings.value.filter((f) => f.code !== 'own' && 'ruleId' in f && f.ruleId === id)
const ownOf = (id: string) => findings.value.flatMap((f) => (f.code === 'own' && f.ruleId === id ? [f] : []))
const others = computed(() => findings.value.filter((f) => !('ruleId' in f) || f.ruleId === null))
const isTrouble = (f: Finding) => f.code === 'held' || f.code === 'circle' || f.code === 'never-fits'
const checked = computed(() => {
  if (failed.value) return 'It could not be checked in this browser.'
  if (check.value === null) return 'Looking at what it does with every sort of request …'
  const { unchecked } = check.value
  const n = findings.value.filter((f) => f.code !== 'own').length
  return (
    `${n === 0 ? 'Nothing was found' : `${capital(formatCount(n, 'thing was', 'things were'))} found`}` +
    `${unchecked === 0 ? '.' : `; ${formatCount(unchecked, 'person', 'people')} who raise were not looked at in time.`}`
  )
})

/** The rule that is being written; the others are read. */
const open = ref<string | null>(null)
const write = (change: Partial<PolicyForm>) => {
  d.write({ ...form.value, ...change })
}
const writeRules = (rules: readonly Rule[]) => {
  write({ rules })
}
const writeRule = (rule: Rule) => {
  writeRules(form.value.rules.map((r) => (r.id === rule.id ? rule : r)))
}
const focus = async (id: string) => {
  await nextTick()
  document.getElementById(id)?.focus()
}
function edit(id: string | null): void {
  const was = open.value
  open.value = id
  void focus(id === null ? `rule-${was ?? ''}` : `rule-${id}-documents`)
}
/** Leads to where the policy is changed. */
function editFirst(): void {
  const [first] = form.value.rules
  if (first === undefined) addRule()
  else edit(first.id)
}
function addRule(): void {
  const id = crypto.randomUUID()
  const steps = [
    { rank: rankAfter(form.value.rules), who: { by: 'chain', until: 'covered' }, mustCover: false },
  ] as const
  writeRules([...form.value.rules, { id, name: '', conditions: [], steps, sparesManagers: false }])
  edit(id)
}
function addStep(rule: Rule): void {
  const rank = rankAfter(form.value.rules)
  writeRule({ ...rule, steps: [...rule.steps, { rank, who: { by: 'person', personId: '' }, mustCover: false }] })
  void focus(`rule-${rule.id}-step-${rule.steps.length}`)
}
function setRank(rule: Rule, at: number, place: 'before' | 'after' | number): void {
  const rules = place === 'before' ? roomBefore(form.value.rules) : form.value.rules
  const rank = place === 'before' ? 5 : place === 'after' ? rankAfter(rules) : place
  writeRules(
    rules.map((r) => (r.id === rule.id ? { ...r, steps: r.steps.map((s, i) => (i === at ? { ...s, rank } : s)) } : r)),
  )
}
function takeAway(rule: Rule): void {
  const before = form.value
  if (open.value === rule.id) open.value = null
  writeRules(form.value.rules.filter((r) => r.id !== rule.id))
  undo.show('The rule is taken out of the draft.', 'Put it back', 10, () => {
    d.write(before)
  })
  void focus('add-rule')
}
function move(from: number, to: number): void {
  const rules = [...form.value.rules]
  const [rule] = rules.splice(from, 1)
  if (rule === undefined || to < 0 || to > rules.length || from === to) return
  rules.splice(to, 0, rule)
  writeRules(rules)
  void focus(`rule-${rule.id}`)
}
/** Alt with an arrow moves the rule that has the focus; a key held down moves it once. */
function onRuleKey(event: KeyboardEvent, at: number): void {
  if (!mayWrite.value || !event.altKey || event.repeat) return
  const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
  if (by === 0) return
  event.preventDefault()
  move(at, at + by)
}
const dragged = ref<number | null>(null)
const over = ref<number | null>(null)
function drop(at: number): void {
  if (dragged.value !== null) move(dragged.value, at)
  dragged.value = over.value = null
}

function restore(past: PolicyForm, number: number): void {
  const before = form.value
  d.write({ ...past, name: `As in version ${number}: ${past.name}`.slice(0, 200) })
  undo.show(`The draft says what version ${number} said.`, 'Put it back', 10, () => {
    d.write(before)
  })
}
async function throwAway(): Promise<void> {
  const before = form.value
  open.value = null
  if (await d.throwAway())
    undo.show('The draft is thrown away.', 'Bring it back', 10, () => {
      d.write(before)
    })
}
function leadTo(at: number | null): void {
  const rule = at === null ? undefined : form.value.rules[at]
  if (rule !== undefined) edit(rule.id)
  else void focus('policy-name')
}
const asking = useTemplateRef<{ press: () => void }>('asking')
usePlaceKeys(
  [
    { keys: 'Ctrl Enter', does: 'ask for the draft to be put in force, or confirm it' },
    { keys: 'Alt ↑ ↓', does: 'move the rule that has the focus' },
  ],
  (event) => {
    if (isMainKey(event)) {
      event.preventDefault()
      asking.value?.press()
    }
  },
)
</script>

<template>
  <div>
    <PageNote>{{ holdsNow }}</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p class="small mt-1.5" role="status">{{ checked }}</p>
      <p v-if="d.told.value" class="notice-amber mt-2" role="status">{{ d.told.value }}</p>
      <ol class="mt-5 border-t border-ink" aria-label="Rules, in their order">
        <li
          v-for="(rule, at) in form.rules"
          :id="`rule-${rule.id}`"
          :key="rule.id"
          tabindex="-1"
          class="grid grid-cols-[26px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-3 outline-offset-2"
          :class="over === at && dragged !== null && dragged !== at ? 'bg-green-ground' : ''"
          @keydown="onRuleKey($event, at)"
          @dragover.prevent="over = at"
          @drop.prevent="drop(at)"
        >
          <span
            class="pt-0.5 font-serif text-[18px] leading-7 text-ink3"
            :class="mayWrite ? 'cursor-grab' : ''"
            :draggable="mayWrite"
            aria-hidden="true"
            @dragstart="dragged = at"
            @dragend="dragged = over = null"
            >{{ at + 1 }}</span
          >
          <div class="min-w-0">
            <PolicyRuleBlanks
              v-if="open === rule.id && mayWrite"
              :id="`rule-${rule.id}`"
              :model-value="rule"
              :view="view"
              :ranks="ranks"
              :name-of="names.person"
              @update:model-value="writeRule"
              @rank="(stepAt, place) => setRank(rule, stepAt, place)"
              @add="addStep(rule)"
            />
            <template v-else>
              <p class="sentence-small">{{ sayRule(rule, names, wording.ways) }}</p>
              <p class="small">
                {{ [rule.name, orderOf(rule)].filter((t) => t !== '').join(' · ') }}
              </p>
            </template>
            <p v-if="ownOf(rule.id).length > 0" class="small mt-1">{{ sayOwn(ownOf(rule.id), names) }}</p>
            <p v-for="r in reasons.filter((x) => x.at === at)" :key="JSON.stringify(r)" class="small text-amber-ink!">
              {{ sayPolicyReason(r, names.person) }}
            </p>
            <ul v-if="ofRule(rule.id).length > 0" class="mt-2 space-y-1.5" aria-label="What was found">
              <li
                v-for="f in ofRule(rule.id)"
                :key="JSON.stringify(f)"
                :class="isTrouble(f) ? 'notice-red' : 'notice-amber'"
              >
                {{ sayFinding(f, policy, names, wording.ways) }}
                <span class="small block">{{ sayExample(f, names, wording.ways) }}</span>
              </li>
            </ul>
          </div>
          <span v-if="mayWrite" class="flex flex-col items-end gap-1 pt-1">
            <button
              type="button"
              class="small quiet-link min-h-6"
              :aria-expanded="open === rule.id"
              :aria-label="`${open === rule.id ? 'Close' : 'Change'} rule ${at + 1}`"
              @click="edit(open === rule.id ? null : rule.id)"
            >
              {{ open === rule.id ? 'done' : 'change' }}
            </button>
            <template v-if="open === rule.id">
              <button
                type="button"
                class="small quiet-link min-h-6"
                :aria-label="`Take rule ${at + 1} away`"
                @click="takeAway(rule)"
              >
                take away
              </button>
              <button
                v-if="at > 0"
                type="button"
                class="small quiet-link min-h-6"
                :aria-label="`Move rule ${at + 1} up`"
                @click="move(at, at - 1)"
              >
                move up
              </button>
              <button
                v-if="at < form.rules.length - 1"
                type="button"
                class="small quiet-link min-h-6"
                :aria-label="`Move rule ${at + 1} down`"
                @click="move(at, at + 1)"
              >
                move down
              </button>
            </template>
          </span>
        </li>
      </ol>
      <button v-if="mayWrite" id="add-rule" type="button" class="quiet-link mt-2.5 text-ink2" @click="addRule">
        add a rule
      </button>
      <PolicyEnding
        v-if="mayWrite"
        class="mt-4"
        :form="form"
        :name-of="names.person"
        :currency="view.currency"
        @write="write"
      />
      <template v-else>
        <p class="sentence-small mt-3">{{ sayEnding(form, names) }}</p>
        <p class="small mt-1">
          {{ sayOwnLimitDays(form.ownLimitDays) }} {{ sayWaiting(form) }} {{ saySkipping(form.maySkip) }}
          {{ sayMayChange(form.mayChange) }} {{ sayTolerance(form.orderTolerance, wording.ways) }}
          {{ sayDirectOrders(form.directOrders, wording.ways) }} {{ sayByMail(form.byMail, wording.ways) }}
        </p>
      </template>
      <ul v-if="others.length > 0" class="mt-2 space-y-1.5" aria-label="What was found besides">
        <li v-for="f in others" :key="JSON.stringify(f)" :class="isTrouble(f) ? 'notice-red' : 'notice-amber'">
          {{ sayFinding(f, policy, names, wording.ways) }}
          <span v-if="sayExample(f, names, wording.ways)" class="small block">{{
            sayExample(f, names, wording.ways)
          }}</span>
        </li>
      </ul>
      <ReplayDraft v-if="view.draft !== null && view.draft.state !== 'none'" :view="view" :name-of="names.person" />
      <PolicyVersions
        :view="view"
        :names="names"
        :may-write="mayWrite"
        @restore="restore"
        @call-off="(number) => d.callOff(number)"
      />
      <template #margin>
        <TryRoute :view="view" :names="names" :draft="changes.length > 0 ? policy : null" />
        <section v-if="isDraft" class="mt-6" aria-label="What the draft changes">
          <h2 class="head mb-1">What the draft changes</h2>
          <PolicyChanges :before="view.form" :after="form" :names="names" none="" />
        </section>
      </template>
      <template #action>
        <PolicyAsk
          v-if="isDraft"
          ref="asking"
          :draft="view.draft"
          :form="form"
          :changes="changes.length"
          :reasons="reasons"
          :may-write="mayWrite"
          :busy="d.busy.value"
          :trouble="d.trouble.value"
          :kept="d.kept.value"
          :name-of="names.person"
          @ask="d.ask"
          @confirm="d.confirm"
          @give-back="d.giveBack"
          @throw-away="throwAway"
          @lead="leadTo"
          @name="write({ name: $event })"
        />
        <template v-else-if="mayWrite">
          <p v-if="d.trouble.value" class="notice-red mb-2.5" role="alert">{{ d.trouble.value }}</p>
          <MainAction missing @press="editFirst"
            >Change a rule; nothing holds until somebody else confirms it</MainAction
          >
        </template>
      </template>
    </SheetPage>
  </div>
</template>
