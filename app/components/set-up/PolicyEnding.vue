<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { moneyOf, roundMoney } from '#core/base/money'
import type { MayChange, PolicyForm } from '#core/approval/policy-form'
import { formatCount } from '#shared/words/format'
import type { PersonFound } from '#shared/contract/people'
import { useWording } from '~/composables/base/use-wording'
import BlankChoice from '~/components/base/BlankChoice.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'

/** How a policy ends, and what becomes of what waits, as sentences whose blanks can be changed. */
const props = defineProps<{ form: PolicyForm; nameOf: (id: string) => string; currency: string }>()
const emit = defineEmits<{ write: [change: Partial<PolicyForm>] }>()
const ENDINGS = [
  { id: 'fallback', name: 'goes to whoever decides in the end' },
  { id: 'passes', name: 'passes, and nobody is asked' },
]
const CHANGING: { id: MayChange; name: string }[] = [
  { id: 'nothing', name: 'changes nothing of it' },
  { id: 'quantities', name: 'may lower quantities' },
  { id: 'quantities and payers', name: 'may lower quantities, or let another budget line pay' },
]
const SKIPPING = [
  { id: 'no', name: 'is never skipped' },
  { id: 'yes', name: 'may be skipped; then whoever decides in the end is asked' },
]
/** What is let up to an amount, whatever the amount, or not at all. */
type UpTo = PolicyForm['directOrders']
const keyOf = (set: UpTo): string =>
  set === null ? 'none' : set.upTo === null ? 'all' : dec(set.upTo.amount).toFixed()
const readUpTo = (id: string): UpTo =>
  id === 'none' ? null : { upTo: id === 'all' ? null : roundMoney(dec(id), props.currency) }
/** Some amounts to choose from, with the one that was set otherwise. */
function upTos(set: UpTo, some: readonly string[], says: { none: string; all: string; upTo: (a: string) => string }) {
  const all = [...new Set([...some, ...(set?.upTo == null ? [] : [keyOf(set)])])]
  return [
    { id: 'none', name: says.none },
    ...all
      .sort((a, b) => dec(a).comparedTo(dec(b)))
      .map((id) => ({ id, name: says.upTo(wording.kept(id, props.currency)) })),
    { id: 'all', name: says.all },
  ]
}
/** Up to which amount a mail may be answered. */
const byMail = computed(() =>
  upTos(props.form.byMail, ['500', '1000', '2500', '5000', '10000'], {
    none: 'in Rekko alone',
    all: 'by answering the mail too',
    upTo: (amount) => `by answering the mail too, up to ${amount}`,
  }),
)
/** Up to which amount buyers order without a request. */
const direct = computed(() =>
  upTos(props.form.directOrders, ['250', '500', '1000', '2500', '5000'], {
    none: 'not at all',
    all: 'whatever it is worth',
    upTo: (amount) => `up to ${amount}`,
  }),
)
/** By how much an order may pass what was approved, to choose from, with what was set otherwise. */
const keyOfTolerance = (t: { percent: string; amount: string }) => `${t.percent} ${dec(t.amount).toFixed()}`
const tolerances = computed(() => {
  const set = props.form.orderTolerance
  const some = [
    { percent: '0', amount: '0' },
    { percent: '2', amount: '20' },
    { percent: '5', amount: '50' },
    { percent: '10', amount: '100' },
  ]
  const own = set === null ? [] : [{ percent: set.percent, amount: set.amount.amount }]
  const all = new Map([...some, ...own].map((t) => [keyOfTolerance(t), t]))
  return [
    { id: '', name: 'from where Organisation says' },
    ...[...all].map(([id, t]) => ({
      id,
      name:
        dec(t.percent).isZero() || dec(t.amount).isZero()
          ? 'from the first cent'
          : `beyond ${wording.decimal(t.percent)} % or ${wording.kept(t.amount, props.currency)}`,
    })),
  ]
})
const toleranceNow = computed(() => {
  const set = props.form.orderTolerance
  return set === null ? '' : keyOfTolerance({ percent: set.percent, amount: set.amount.amount })
})
function readTolerance(id: string): PolicyForm['orderTolerance'] {
  const [percent, amount] = id.split(' ')
  return percent === undefined || amount === undefined ? null : { percent, amount: moneyOf(amount, props.currency) }
}
const wording = useWording()
const fallback = computed<PersonFound | null>(() =>
  props.form.fallbackId === null
    ? null
    : { id: props.form.fallbackId, name: props.nameOf(props.form.fallbackId), jobTitle: '', department: '' },
)
/** Some numbers of days to choose from, with the one that was set otherwise. */
function days(some: readonly number[], set: number | null, none: string, unit: string) {
  const all = [...new Set([...some, ...(set === null ? [] : [set])])].sort((a, b) => a - b)
  return [{ id: '', name: none }, ...all.map((n) => ({ id: String(n), name: formatCount(n, unit, `${unit}s`) }))]
}
const read = (id: string) => (id === '' ? null : Number(id))
</script>

<template>
  <section aria-label="How it ends">
    <div class="sentence-small">
      What no rule fits
      <BlankChoice
        :model-value="form.ending"
        :choices="ENDINGS"
        label="What becomes of what no rule fits"
        placeholder=""
        @update:model-value="emit('write', { ending: $event as PolicyForm['ending'] })"
      />; in the end, where a step comes to nobody, or no rule fits an order,
      <PersonPicker
        :model-value="fallback"
        label="Who decides in the end"
        placeholder="nobody"
        @update:model-value="emit('write', { fallbackId: $event?.id ?? null })"
      />
      decides.
    </div>
    <p class="mt-1.5 leading-7">
      An own limit covers
      <BlankChoice
        :model-value="form.ownLimitDays === null ? '' : String(form.ownLimitDays)"
        :choices="
          days([1, 7, 14, 30, 90], form.ownLimitDays, 'each request by itself', 'day').map((c) => ({
            ...c,
            name: c.id === '' ? c.name : `all that names one supplier within ${c.name}`,
          }))
        "
        label="What is held against an own limit together"
        placeholder=""
        light
        @update:model-value="emit('write', { ownLimitDays: read($event) })"
      />. Whoever is asked is reminded after
      <BlankChoice
        :model-value="form.remindDays === null ? '' : String(form.remindDays)"
        :choices="days([1, 2, 3, 5, 10], form.remindDays, 'no time', 'business day')"
        label="When whoever is asked is reminded"
        placeholder=""
        light
        @update:model-value="emit('write', { remindDays: read($event) })"
      />, and their manager asked too after
      <BlankChoice
        :model-value="form.escalateDays === null ? '' : String(form.escalateDays)"
        :choices="days([3, 5, 8, 10, 20], form.escalateDays, 'no time', 'business day')"
        label="When the manager of whoever is asked is asked too"
        placeholder=""
        light
        @update:model-value="emit('write', { escalateDays: read($event) })"
      />. A step that waits
      <BlankChoice
        :model-value="form.maySkip ? 'yes' : 'no'"
        :choices="SKIPPING"
        label="Whether a step that waits may be skipped"
        placeholder=""
        light
        @update:model-value="emit('write', { maySkip: $event === 'yes' })"
      />. Whoever approves a request
      <BlankChoice
        :model-value="form.mayChange"
        :choices="CHANGING"
        label="What whoever approves may change"
        placeholder=""
        light
        @update:model-value="emit('write', { mayChange: $event as MayChange })"
      />. An order that is dearer than approved is decided on again
      <BlankChoice
        :model-value="toleranceNow"
        :choices="tolerances"
        label="From when an order dearer than approved is decided on again"
        placeholder=""
        light
        @update:model-value="emit('write', { orderTolerance: readTolerance($event) })"
      />. Without a request buyers order
      <BlankChoice
        :model-value="keyOf(form.directOrders)"
        :choices="direct"
        label="What buyers order without a request"
        placeholder=""
        light
        @update:model-value="emit('write', { directOrders: readUpTo($event) })"
      />. Decisions are made
      <BlankChoice
        :model-value="keyOf(form.byMail)"
        :choices="byMail"
        label="Which decisions may be answered by mail"
        placeholder=""
        light
        @update:model-value="emit('write', { byMail: readUpTo($event) })"
      />.
    </p>
  </section>
</template>
