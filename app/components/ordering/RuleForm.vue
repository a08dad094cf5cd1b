<script setup lang="ts">
import { ORDERING_PRICES } from '#core/order/by-itself'
import type { KeptRule, RuleChoices, RuleView, TriedRule as Tried } from '#shared/contract/ordering'
import type { SupplierFound } from '#shared/contract/catalogue'
import { PRICE_WORDS, sayTime } from '#shared/words/ordering'
import BlankAmount from '~/components/base/BlankAmount.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import SupplierPicker from '~/components/base/SupplierPicker.vue'
import GroupingBlanks from '~/components/order/GroupingBlanks.vue'
import TriedRule from './TriedRule.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'

/** A rule of ordering by itself, written as sentences, with what it would order now. */
const props = defineProps<{ rule: RuleView | null; choices: RuleChoices }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const api = useApi()
const { busy, trouble, act } = useAct()
const before = props.rule
const name = ref(before?.name ?? '')
const buyerId = ref(before?.buyerId ?? '')
const form = reactive<KeptRule['form']>(
  before === null
    ? {
        ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'agreed', upTo: null },
        ...{ time: { each: 'day', hour: 7 }, mostRequests: 5, windowDays: null, byDepartment: false },
        ...{ choose: 'cheapest', waitFor: null },
      }
    : structuredClone(toRaw(before.form)),
)
const suppliers = ref([...props.choices.suppliers])
const nameField = useTemplateRef<HTMLInputElement>('nameField')
onMounted(() => nameField.value?.focus())

const PRICES = ORDERING_PRICES.map((id) => ({ id, name: PRICE_WORDS[id] }))
const TIMES = [
  { id: 'approval', name: sayTime({ each: 'approval' }) },
  ...Array.from({ length: 24 }, (_, h) => ({
    id: String(h),
    name: sayTime({ each: 'day', hour: h }),
  })),
]
const time = computed({
  get: () => (form.time.each === 'approval' ? 'approval' : String(form.time.hour)),
  set: (id) => {
    form.time = id === 'approval' ? { each: 'approval' } : { each: 'day', hour: Number(id) }
  },
})
const nameOf = (id: string) => suppliers.value.find((s) => s.id === id)?.name ?? 'one that is gone'
function addSupplier(supplier: SupplierFound | null): void {
  if (supplier === null || form.supplierIds.includes(supplier.id)) return
  suppliers.value.push({ id: supplier.id, name: supplier.name })
  form.supplierIds = [...form.supplierIds, supplier.id]
}
/** What was typed as an amount and cannot be read. */
const unread = reactive({ upTo: '', waitFor: '' })
const missing = computed(() => [
  ...(name.value.trim() === '' ? [{ at: 'ordering-name', says: 'Name the rule' }] : []),
  ...(buyerId.value === '' ? [{ at: 'ordering-buyer', says: 'Say in whose name it orders' }] : []),
  ...(unread.upTo === '' ? [] : [{ at: 'ordering-up-to', says: 'Write an amount that can be read' }]),
  ...(unread.waitFor === '' ? [] : [{ at: 'ordering-wait-for', says: 'Write an amount that can be read' }]),
])
const tried = shallowRef<Tried | null>(null)
// What it would order is of what is written, and of nothing before.
watch([form, buyerId], () => {
  tried.value = null
})
function focusOn(id: string): void {
  document.getElementById(id)?.focus()
}
async function tryIt(): Promise<void> {
  const wrong = missing.value.find((m) => m.at !== 'ordering-name')
  if (wrong !== undefined) {
    focusOn(wrong.at)
    return
  }
  await act(async () => {
    tried.value = await api.post('/api/ordering-rules/trial', { body: { form: toRaw(form), buyerId: buyerId.value } })
  })
}
async function keep(): Promise<void> {
  const [first] = missing.value
  if (first !== undefined) {
    focusOn(first.at)
    return
  }
  const body: KeptRule = { name: name.value, buyerId: buyerId.value, form: toRaw(form) }
  const done = await act(async () => {
    if (before === null) await api.post('/api/ordering-rules', { body, key: crypto.randomUUID() })
    else await api.put('/api/ordering-rules/{id}', { params: { id: before.id }, version: before.version, body })
  })
  if (done) emit('kept')
}
</script>

<template>
  <form
    class="my-3 rounded border border-strong px-4 py-3"
    :aria-label="before === null ? 'A new rule' : `The rule ${before.name}`"
    @submit.prevent="keep"
    @keydown.esc.stop="emit('close')"
  >
    <label class="label block" for="ordering-name">What the rule is called</label>
    <input
      id="ordering-name"
      ref="nameField"
      v-model="name"
      class="field mb-3 max-w-[420px]"
      maxlength="120"
      autocomplete="off"
      @keydown.enter.prevent
    />
    <div class="max-w-[86ch] leading-7">
      Lines
      <BlankChoice
        :model-value="form.price"
        :choices="PRICES"
        label="At which prices"
        placeholder=""
        @update:model-value="form.price = $event as typeof form.price"
      />, of
      <BlankMany
        v-model="form.categoryIds"
        :choices="choices.categories"
        label="Of which categories"
        placeholder="any category"
      />, for
      <BlankMany
        v-model="form.departmentIds"
        :choices="choices.departments"
        label="For which departments"
        placeholder="any department"
      />, in requests of
      <BlankMany v-model="form.kinds" :choices="choices.kinds" label="Of which kinds" placeholder="any kind" />,
    </div>
    <div class="mt-1 max-w-[86ch] leading-7">
      from
      <template v-for="(s, i) in form.supplierIds" :key="s"
        ><template v-if="i > 0"> or </template
        ><button
          type="button"
          class="quiet-link min-h-6 font-semibold"
          :aria-label="`Without ${nameOf(s)}`"
          @click="form.supplierIds = form.supplierIds.filter((x) => x !== s)"
        >
          {{ nameOf(s) }} ×
        </button></template
      ><template v-if="form.supplierIds.length > 0"> or </template>
      <SupplierPicker
        :key="form.supplierIds.length"
        :name="null"
        :none="form.supplierIds.length === 0 ? 'any supplier' : null"
        label="From which supplier"
        @choose="addSupplier"
      />
      are ordered
      <BlankChoice v-model="time" :choices="TIMES" label="When" placeholder="" />
      in the name of
      <BlankChoice
        id="ordering-buyer"
        :model-value="buyerId"
        :choices="choices.buyers"
        label="In whose name"
        placeholder="which buyer"
        @update:model-value="buyerId = $event"
      />, in orders of up to
      <BlankAmount
        id="ordering-up-to"
        :model-value="form.upTo === null ? null : { amount: form.upTo, currency: choices.currency }"
        :currency="choices.currency"
        label="Up to which amount"
        placeholder="what the buyer may order"
        @update:model-value="form.upTo = $event?.amount ?? null"
        @unread="unread.upTo = $event"
      />.
    </div>
    <div class="mt-1 max-w-[86ch] leading-7 text-ink2">
      <GroupingBlanks
        :model-value="form"
        :currency="choices.currency"
        wait-for-id="ordering-wait-for"
        @update:model-value="Object.assign(form, $event)"
        @unread="unread.waitFor = $event"
      />
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <p v-if="before?.state === 'in force' || before?.state === 'paused'" class="notice-amber mt-3">
      Changed, it orders nothing until somebody else puts it in force anew.
    </p>
    <p class="mt-3 flex flex-wrap items-center gap-x-3 gap-y-2">
      <button type="submit" class="action" :disabled="busy">
        {{ missing[0]?.says ?? 'Keep it as it stands here' }}</button><button
        type="button"
        class="action"
        :disabled="busy"
        @click="tryIt"
      >
        See what it would order now</button
      ><button type="button" class="quiet-link min-h-6" @click="emit('close')">leave it as it was</button>
    </p>
    <TriedRule v-if="tried" :tried="tried" />
  </form>
</template>
