<script setup lang="ts">
import {
  SUPPLIER_SORTS,
  type Condition,
  type PolicyStep,
  type Rule,
  type RuleDocuments,
  type SupplierSort,
} from '#core/approval/policy'
import type { Money } from '#core/base/money'
import type { PolicyView } from '#shared/contract/policy'
import { SUPPLIER_SORT_WORDS } from '#shared/words/policy'
import BlankAmount from '~/components/base/BlankAmount.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import BlankText from '~/components/base/BlankText.vue'
import PeopleBlank from '~/components/set-up/PeopleBlank.vue'
import PolicyStepBlanks from '~/components/set-up/PolicyStepBlanks.vue'
import { conditionOf, withCondition } from '~/composables/set-up/policy-edit'

/** A rule of the policy, as a sentence whose blanks can be changed: when it holds, and whom it asks. */
const props = defineProps<{
  id: string
  view: PolicyView
  ranks: readonly number[]
  nameOf: (id: string) => string
}>()
const rule = defineModel<Rule>({ required: true })
const emit = defineEmits<{ rank: [stepAt: number, place: 'before' | 'after' | number]; add: [] }>()
const unread = ref('')

const departments = computed(() => props.view.departments.filter((d) => !d.retired))
const accounts = computed(() =>
  props.view.accounts.filter((a) => !a.retired).map((a) => ({ id: a.code, name: `${a.code} ${a.name}` })),
)
const projects = computed(() => props.view.projects.map((code) => ({ id: code, name: code })))
const suppliers = SUPPLIER_SORTS.map((id) => ({ id, name: SUPPLIER_SORT_WORDS[id] }))
const currencies = computed(() => props.view.currencies.map((c) => ({ id: c, name: c })))
const kinds = computed(() => props.view.kinds.map((k) => ({ id: k.code, name: k.name })))
const put = (on: Condition['on'], to: Condition | null) => {
  rule.value = withCondition(rule.value, on, to)
}
/** A condition by names; one that names nothing is none. */
const some = (ids: readonly string[], to: Condition): Condition | null => (ids.length === 0 ? null : to)
const department = computed(() => conditionOf(rule.value, 'department'))
const amount = computed(() => conditionOf(rule.value, 'amount'))
function setAmount(end: 'from' | 'below', to: Money | null): void {
  const from = end === 'from' ? to : (amount.value?.from ?? null)
  const below = end === 'below' ? to : (amount.value?.below ?? null)
  put(
    'amount',
    from === null && below === null
      ? null
      : { on: 'amount', ...(from === null ? {} : { from }), ...(below === null ? {} : { below }) },
  )
}
const own = computed(() => conditionOf(rule.value, 'own field'))
const fields = computed(() => [
  { id: '', name: 'own fields say anything' },
  ...props.view.ownFields.map((f) => ({ id: f.id, name: f.name })),
])
const choices = computed(() =>
  (props.view.ownFields.find((f) => f.id === own.value?.fieldId)?.choices ?? []).map((c) => ({ id: c, name: c })),
)
function chooseField(fieldId: string): void {
  const [first] = props.view.ownFields.find((f) => f.id === fieldId)?.choices ?? []
  put('own field', first === undefined ? null : { on: 'own field', fieldId, values: [first] })
}
const BRANCH = [
  { id: 'branch', name: 'and what is part of it' },
  { id: 'alone', name: 'alone' },
]
const OVER = [
  { id: '', name: 'inside the budget or past it' },
  { id: 'inside', name: 'inside every budget' },
  { id: 'over', name: 'past a budget' },
]
const over = computed(() => {
  const c = conditionOf(rule.value, 'over budget')
  return c === null ? '' : c.is ? 'over' : 'inside'
})
const COVERED = [
  { id: '', name: 'with an agreement or without' },
  { id: 'yes', name: 'with something that an agreement covers' },
  { id: 'no', name: 'with something that no agreement covers' },
]
const covered = computed(() => {
  const c = conditionOf(rule.value, 'agreement')
  return c === null ? '' : c.is ? 'yes' : 'no'
})
const DOCUMENTS = [
  { id: 'requests', name: 'Requests' },
  { id: 'orders', name: 'Orders' },
  { id: 'both', name: 'Requests and orders' },
]
const SPARES = [
  { id: 'no', name: 'are asked all the same' },
  { id: 'yes', name: 'are spared' },
]
const setStep = (at: number, step: PolicyStep) => {
  rule.value = { ...rule.value, steps: rule.value.steps.map((s, i) => (i === at ? step : s)) }
}
async function leaveOut(at: number): Promise<void> {
  rule.value = { ...rule.value, steps: rule.value.steps.filter((_, i) => i !== at) }
  await nextTick()
  document.getElementById(`${props.id}-add`)?.focus()
}
</script>

<template>
  <div>
    <div class="sentence-small leading-8!">
      <BlankChoice
        :id="`${id}-documents`"
        :model-value="rule.documents ?? 'requests'"
        :choices="DOCUMENTS"
        label="Which documents it is for"
        placeholder=""
        :light="(rule.documents ?? 'requests') === 'requests'"
        @update:model-value="rule = { ...rule, documents: $event as RuleDocuments }"
      />
      of
      <BlankMany
        :id="`${id}-department`"
        :model-value="department?.ids ?? []"
        :choices="departments"
        label="Of which departments"
        placeholder="any department"
        @update:model-value="
          put('department', some($event, { on: 'department', ids: $event, branch: department?.branch ?? true }))
        "
      /><template v-if="department"
        >,
        <BlankChoice
          :model-value="department.branch ? 'branch' : 'alone'"
          :choices="BRANCH"
          label="With what is part of it"
          placeholder=""
          light
          @update:model-value="put('department', { ...department, branch: $event === 'branch' })" /></template
      >, owned by
      <PeopleBlank
        :model-value="conditionOf(rule, 'owner')?.ids ?? []"
        :name-of="nameOf"
        label="Owned by whom"
        placeholder="anybody"
        @update:model-value="put('owner', some($event, { on: 'owner', ids: [...$event] }))"
      />, for
      <BlankMany
        :model-value="conditionOf(rule, 'kind')?.kinds ?? []"
        :choices="kinds"
        label="For which kinds"
        placeholder="anything"
        @update:model-value="put('kind', some($event, { on: 'kind', kinds: $event }))"
      />, with something of
      <BlankMany
        :model-value="conditionOf(rule, 'category')?.ids ?? []"
        :choices="view.categories"
        label="With something of which categories"
        placeholder="any category"
        @update:model-value="put('category', some($event, { on: 'category', ids: $event }))"
      />, paid from
      <BlankMany
        :model-value="conditionOf(rule, 'account')?.codes ?? []"
        :choices="accounts"
        label="Paid from which accounts"
        placeholder="any account"
        @update:model-value="put('account', some($event, { on: 'account', codes: $event }))"
      /><template v-if="projects.length > 0"
        >, for
        <BlankMany
          :model-value="conditionOf(rule, 'project')?.codes ?? []"
          :choices="projects"
          label="Paid from which projects"
          placeholder="any project or none"
          @update:model-value="put('project', some($event, { on: 'project', codes: $event }))" /></template
      ><template v-if="view.ownFields.length > 0"
        >, whose
        <BlankChoice
          :model-value="own?.fieldId ?? ''"
          :choices="fields"
          label="Which own field counts"
          placeholder=""
          :light="own === null"
          @update:model-value="chooseField" /><template v-if="own">
          is
          <BlankMany
            :model-value="own.values"
            :choices="choices"
            label="What is chosen in it"
            placeholder="something"
            @update:model-value="put('own field', { ...own, values: $event })" /></template></template
      >,
      <BlankMany
        :model-value="conditionOf(rule, 'supplier')?.sorts ?? []"
        :choices="suppliers"
        label="To what suppliers"
        placeholder="to any supplier"
        @update:model-value="put('supplier', some($event, { on: 'supplier', sorts: $event as SupplierSort[] }))"
      />,
      <BlankChoice
        :model-value="covered"
        :choices="COVERED"
        label="Covered by an agreement or not"
        placeholder=""
        :light="covered === ''"
        @update:model-value="put('agreement', $event === '' ? null : { on: 'agreement', is: $event === 'yes' })"
      />, priced in
      <BlankMany
        :model-value="conditionOf(rule, 'currency')?.codes ?? []"
        :choices="currencies"
        label="Priced in which currencies"
        placeholder="any currency"
        @update:model-value="put('currency', some($event, { on: 'currency', codes: $event }))"
      />, from
      <BlankAmount
        :model-value="amount?.from ?? null"
        :currency="view.currency"
        label="From which amount on, itself included"
        placeholder="any amount"
        @update:model-value="setAmount('from', $event)"
        @unread="unread = $event"
      />
      and below
      <BlankAmount
        :model-value="amount?.below ?? null"
        :currency="view.currency"
        label="Below which amount"
        placeholder="any amount"
        @update:model-value="setAmount('below', $event)"
        @unread="unread = $event"
      />,
      <BlankChoice
        :model-value="over"
        :choices="OVER"
        label="Inside or past the budget"
        placeholder=""
        :light="over === ''"
        @update:model-value="put('over budget', $event === '' ? null : { on: 'over budget', is: $event === 'over' })"
      />:
    </div>
    <ul class="mt-1" aria-label="Who is asked">
      <li v-for="(step, at) in rule.steps" :key="at" class="flex items-baseline gap-3 py-0.5">
        <PolicyStepBlanks
          :id="`${id}-step-${at}`"
          class="min-w-0 flex-1"
          :model-value="step"
          :ranks="ranks"
          :departments="departments"
          :name-of="nameOf"
          @update:model-value="setStep(at, $event)"
          @rank="emit('rank', at, $event)"
        />
        <button
          type="button"
          class="small quiet-link min-h-6 shrink-0"
          :aria-label="`Leave step ${at + 1} out`"
          @click="leaveOut(at)"
        >
          leave out
        </button>
      </li>
    </ul>
    <p class="leading-7">
      <button :id="`${id}-add`" type="button" class="quiet-link min-h-6" @click="emit('add')">ask somebody else</button>
      <template v-if="rule.documents !== 'orders' || rule.sparesManagers">
        · where an own limit covers it, managers
        <BlankChoice
          :model-value="rule.sparesManagers ? 'yes' : 'no'"
          :choices="SPARES"
          label="Whether an own limit spares the managers"
          placeholder=""
          :light="!rule.sparesManagers"
          @update:model-value="rule = { ...rule, sparesManagers: $event === 'yes' }"
      /></template>
    </p>
    <p class="small">
      Why it is there:
      <BlankText
        :model-value="rule.name"
        label="Why the rule is there"
        placeholder="a note for whoever reads the policy next"
        :most="300"
        @update:model-value="rule = { ...rule, name: $event }"
      />
    </p>
    <p v-if="unread" class="small text-red!" role="alert">
      “{{ unread }}” is not an amount; what was there before stays.
    </p>
  </div>
</template>
