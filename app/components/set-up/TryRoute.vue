<script setup lang="ts">
import { saysSame } from '#core/base/entries'
import { readTypedNumber } from '#core/base/typed-number'
import { moneyOf } from '#core/base/money'
import { SUPPLIER_SORTS, type Policy, type Subject, type SupplierSort } from '#core/approval/policy'
import { makeRoute } from '#core/approval/route'
import { presence } from '#core/people/person'
import type { PolicyView } from '#shared/contract/policy'
import { sayNote, saySeat } from '#shared/words/approval'
import { SUPPLIER_SORT_WORDS, type PolicyNames } from '#shared/words/policy'
import BlankChoice from '~/components/base/BlankChoice.vue'
import RouteList, { type RouteEntry } from '~/components/base/RouteList.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { worldOf } from '~/composables/set-up/policy-world'
import { useSessionStore } from '~/stores/session'

/**
 * A made-up request, and who would decide on it and why, by the same core that asks them: under what is in force, and
 * under a draft beside it.
 */
const props = defineProps<{ view: PolicyView; names: PolicyNames; draft: Policy | null }>()
const wording = useWording()
const world = computed(() => worldOf(props.view))
const raisers = computed(() =>
  props.view.people
    .filter((p) => presence(p, props.view.absences, props.view.today).at !== 'gone')
    .map((p) => ({ id: p.id, name: p.name }))
    .sort((a, b) => a.name.localeCompare(b.name)),
)
const owner = ref('')
const department = ref('')
const line = ref('')
const category = ref('')
const kind = ref('')
const amount = ref('1000')
const over = ref('inside')
const supplier = ref<SupplierSort>('known')
const currency = ref('')
const suppliers = SUPPLIER_SORTS.map((id) => ({ id, name: SUPPLIER_SORT_WORDS[id] }))
const currencies = computed(() => props.view.currencies.map((c) => ({ id: c, name: `priced in ${c}` })))
const OVER = [
  { id: 'inside', name: 'inside the budget' },
  { id: 'over', name: 'past the budget' },
]
const covered = ref('no')
const COVERED = [
  { id: 'no', name: 'under no agreement' },
  { id: 'yes', name: 'under an agreement' },
]
/** What is chosen in own fields, by their ids. */
const chosen = ref<Readonly<Record<string, string>>>({})
/** Own fields that some rule looks at, of what holds or of the draft. */
const ownFields = computed(() => {
  const rules = [...props.view.policy.rules, ...(props.draft?.rules ?? [])]
  const named = new Set(rules.flatMap((r) => r.conditions.flatMap((c) => (c.on === 'own field' ? c.fieldId : []))))
  return props.view.ownFields.filter((f) => named.has(f.id))
})
const session = useSessionStore()
const ownerId = computed(() => owner.value || (session.me?.id ?? raisers.value[0]?.id ?? ''))
const departments = computed(() => {
  const open = world.value.openTo.get(ownerId.value) ?? []
  return props.view.departments.filter((d) => !d.retired && open.includes(d.id))
})
const departmentId = computed(
  () => departments.value.find((d) => d.id === department.value)?.id ?? departments.value[0]?.id ?? '',
)
const lines = computed(() => props.view.lines.filter((l) => l.departmentId === departmentId.value))
const paying = computed(() => lines.value.find((l) => l.id === line.value) ?? lines.value[0])
const categories = computed(() => [{ id: '', name: 'something of no category' }, ...props.view.categories])
const kinds = computed(() => props.view.kinds.map((k) => ({ id: k.code, name: k.name })))
const kindCode = computed(() => kind.value || (world.value.kinds[0] ?? ''))
const number = computed(() => readTypedNumber(amount.value, wording.decimalMark))

/** A request that was sent, looked at instead of a made-up one. */
const typedNumber = ref('')
const real = shallowRef<{ number: string; title: string; subject: Subject } | null>(null)
const trouble = ref('')
const api = useApi()
async function look(): Promise<void> {
  trouble.value = ''
  if (typedNumber.value.trim() === '') {
    real.value = null
    return
  }
  try {
    real.value = await api.get('/api/approval-policy/requests/{number}', {
      params: { number: typedNumber.value.trim() },
    })
  } catch (e) {
    real.value = null
    trouble.value = sayError(e)
  }
}
function makeUp(): void {
  typedNumber.value = ''
  real.value = null
}

const madeUp = computed<Subject | null>(() => {
  const coded = paying.value
  if (number.value === null || number.value.startsWith('-') || coded === undefined) return null
  const worth = moneyOf(number.value, props.view.currency)
  return {
    document: 'requisition',
    kind: kindCode.value,
    amount: worth,
    together: worth,
    ownerId: ownerId.value,
    raisedById: ownerId.value,
    ownedBy: [],
    departmentId: departmentId.value,
    branch: props.view.departments.find((d) => d.id === departmentId.value)?.branch ?? [],
    codings: [
      {
        budgetLineId: coded.id,
        account: coded.account,
        project: coded.project,
        category: category.value || null,
        supplier: supplier.value,
        currency: currency.value || props.view.currency,
        hasAgreement: covered.value === 'yes',
        holderId: coded.holderId,
      },
    ],
    overBudget: over.value === 'over',
    own: Object.fromEntries(Object.entries(chosen.value).map(([id, v]) => [id, v === '' ? [] : [v]])),
  }
})
const subject = computed(() => real.value?.subject ?? madeUp.value)
const lineName = (id: string) => props.view.lines.find((l) => l.id === id)?.name ?? ''
/** What becomes of the request under a policy, in words. */
function tryUnder(policy: Policy, s: Subject) {
  const route = makeRoute(s, policy, world.value.people)
  const entries = route.steps.flatMap((step, i) =>
    step.seats.map((seat): RouteEntry => ({
      key: `${i} ${seat.actorId}`,
      name: props.names.person(seat.actorId),
      state: i === 0 ? 'open' : 'ahead',
      you: false,
      why: saySeat(
        seat.why,
        {
          of: props.names.person(s.ownerId),
          forName: seat.forId === null ? null : props.names.person(seat.forId),
          lines: seat.why.code === 'budget-holder' ? seat.why.budgetLineIds.map(lineName) : [],
        },
        wording.ways,
      ),
    })),
  )
  const notes = route.notes.flatMap((n) =>
    n.code === 'spared-by-own-limit'
      ? `Within the own limit of ${wording.amount(n.limit)}, no manager is asked.`
      : (sayNote(n, props.names.person, wording.ways) ?? []),
  )
  return { held: route.held !== null, entries, notes: [...new Set(notes)] }
}
const tried = computed(() => {
  const s = subject.value
  if (s === null) return []
  const now = { title: 'As it is', ...tryUnder(props.view.policy, s) }
  if (props.draft === null) return [{ ...now, title: '' }]
  const then = { title: 'Under the draft', ...tryUnder(props.draft, s) }
  return saysSame({ ...now, title: '' }, { ...then, title: '' })
    ? [{ ...now, title: 'As it is, and under the draft' }]
    : [now, then]
})
</script>

<template>
  <section aria-labelledby="try-route">
    <h2 id="try-route" class="head mb-1">Try it</h2>
    <form class="mb-2 flex flex-wrap items-center gap-x-3" @submit.prevent="look">
      <label for="try-number">One that was sent:</label>
      <input
        id="try-number"
        v-model="typedNumber"
        class="field inline-block! w-[150px]! min-h-[30px]! py-0.5!"
        placeholder="its number"
        autocomplete="off"
      />
      <button type="submit" class="quiet-link min-h-6">Try it on this</button>
      <button v-if="real" type="button" class="quiet-link min-h-6" @click="makeUp">A made-up one again</button>
    </form>
    <p v-if="trouble" class="notice-red mb-2" role="alert">{{ trouble }}</p>
    <p v-if="real" class="font-semibold">
      {{ real.number }}, {{ real.title }}: {{ wording.money(real.subject.amount) }} of
      {{ names.person(real.subject.ownerId) }}
    </p>
    <div v-else class="leading-7">
      Or a made-up one, of
      <BlankChoice
        :model-value="ownerId"
        :choices="raisers"
        label="Who raises it"
        placeholder="somebody"
        light
        @update:model-value="owner = $event"
      />
      for
      <BlankChoice
        :model-value="departmentId"
        :choices="departments"
        label="For which department"
        placeholder="no department"
        light
        @update:model-value="department = $event"
      />
      over
      <input
        v-model="amount"
        class="field inline-block! w-[96px]! min-h-[30px]! py-0.5! text-right tabular-nums"
        inputmode="decimal"
        autocomplete="off"
        :aria-label="`How much, in ${view.currency}`"
      />, paid from
      <BlankChoice
        :model-value="paying?.id ?? null"
        :choices="lines"
        label="Which budget line pays"
        placeholder="no budget line"
        light
        @update:model-value="line = $event"
      />,
      <BlankChoice
        v-model="over"
        :choices="OVER"
        label="Inside or past the budget"
        placeholder="inside the budget"
        light
      />, with
      <BlankChoice
        v-model="category"
        :choices="categories"
        label="Of which category"
        placeholder="something of no category"
        light
      />,
      <BlankChoice
        :model-value="supplier"
        :choices="suppliers"
        label="From what supplier"
        placeholder=""
        light
        @update:model-value="supplier = $event as SupplierSort"
      />,
      <BlankChoice
        v-model="covered"
        :choices="COVERED"
        label="Covered by an agreement or not"
        placeholder=""
        light
      /><template v-if="currencies.length > 1"
        >,
        <BlankChoice
          :model-value="currency || view.currency"
          :choices="currencies"
          label="Priced in which currency"
          placeholder=""
          light
          @update:model-value="currency = $event" /></template
      ><template v-if="kinds.length > 1">
        for
        <BlankChoice
          :model-value="kindCode"
          :choices="kinds"
          label="Of which kind"
          placeholder="no kind"
          light
          @update:model-value="kind = $event" /></template
      ><template v-for="f in ownFields" :key="f.id"
        >, {{ f.name }}
        <BlankChoice
          :model-value="chosen[f.id] ?? ''"
          :choices="[{ id: '', name: 'not said' }, ...f.choices.map((c) => ({ id: c, name: c }))]"
          :label="`What ${f.name} says`"
          placeholder=""
          light
          @update:model-value="chosen = { ...chosen, [f.id]: $event }" /></template
      >.
    </div>
    <p v-if="subject === null" class="notice-amber mt-2">
      {{ paying === undefined ? 'No budget line of this department pays this year.' : `“${amount}” is no amount.` }}
    </p>
    <div v-else class="mt-2 space-y-3">
      <div v-for="t in tried" :key="t.title">
        <h3 v-if="t.title" class="small mb-1 font-semibold!">{{ t.title }}</h3>
        <p v-if="t.held" class="notice-red">It would be held: nobody is found who may decide.</p>
        <p v-else-if="t.entries.length === 0" class="font-semibold">It passes at once, and nobody is asked.</p>
        <RouteList v-else :entries="t.entries" />
        <p v-for="n in t.notes" :key="n" class="small mt-1">{{ n }}</p>
      </div>
    </div>
  </section>
</template>
