<script setup lang="ts">
import { readTypedNumber } from '#core/base/typed-number'
import { moneyOf } from '#core/base/money'
import { BLANK_DRAFT, BLANK_LINE } from '#core/requisition/draft'
import type { RequestForm } from '#core/requisition/form'
import { isAsked } from '#core/requisition/own-field'
import { mostQuotes, rulesThatHold } from '#core/requisition/rules'
import { sayAsked } from '#shared/words/request-form'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

const wording = useWording()

/** A request made up to try a form on: what would be asked for with it, by the same core that asks it. */
type Named = readonly { id: string; name: string }[]
const props = defineProps<{
  form: RequestForm
  currency: string
  departments: Named
  categories: Named
}>()
const kind = ref('')
const department = ref('')
const category = ref('')
const agreed = ref('no')
const amount = ref('1000.00')
const kinds = computed(() => props.form.kinds.map((k) => ({ id: k.code, name: k.name })))
const chosenKind = computed(() => props.form.kinds.find((k) => k.code === kind.value) ?? props.form.kinds[0])
const categories = computed(() => [{ id: '', name: 'something of no category' }, ...props.categories])
const departments = computed(() => [{ id: '', name: 'some department' }, ...props.departments])
const AGREED = [
  { id: 'no', name: 'no agreement' },
  { id: 'yes', name: 'an agreement' },
]

const asked = computed(() => {
  const line = { ...BLANK_LINE, id: 'line', itemId: 'item', categoryId: category.value || null }
  const draft = {
    ...BLANK_DRAFT,
    kind: chosenKind.value?.code ?? '',
    departmentId: department.value || null,
    lines: [line],
  }
  const facts = {
    baseCurrency: props.currency,
    perBase: new Map([[props.currency, '1']]),
    isAgreed: () => agreed.value === 'yes',
  }
  const holding = rulesThatHold(
    props.form.rules,
    draft,
    new Map([['line', moneyOf(amount.value, props.currency)]]),
    facts,
  )
  const quotes = mostQuotes(holding)?.rule
  return {
    fields: props.form.ownFields.filter((f) =>
      isAsked(f, {
        kind: draft.kind,
        departmentId: draft.departmentId,
        categoryId: f.on === 'line' ? line.categoryId : null,
      }),
    ),
    rules: holding.filter((r) => r.asks.what !== 'quotes' || r === quotes),
  }
})
const nothing = computed(() => asked.value.fields.length === 0 && asked.value.rules.length === 0)
function setAmount(event: Event): void {
  const read = readTypedNumber((event.target as HTMLInputElement).value, wording.decimalMark)
  if (read !== null && !read.startsWith('-')) amount.value = read
  ;(event.target as HTMLInputElement).value = wording.amount(moneyOf(amount.value, props.currency))
}
</script>

<template>
  <section aria-label="Try it">
    <h2 class="head mb-1.5">Try it</h2>
    <div class="leading-6">
      A request for
      <BlankChoice
        :model-value="chosenKind?.code ?? null"
        :choices="kinds"
        label="Of which kind"
        placeholder="nothing"
        @update:model-value="kind = $event"
      />
      by
      <BlankChoice
        :model-value="department"
        :choices="departments"
        label="By which department"
        placeholder="some department"
        @update:model-value="department = $event"
      />, with
      <BlankChoice
        :model-value="category"
        :choices="categories"
        label="Of which category"
        placeholder="something"
        @update:model-value="category = $event"
      />
      for
      <TypedBox
        class="blank blank-input"
        inputmode="decimal"
        aria-label="For how much"
        :value="wording.amount(moneyOf(amount, currency))"
        @change="setAmount"
      />
      under
      <BlankChoice
        :model-value="agreed"
        :choices="AGREED"
        label="Under an agreement"
        placeholder="no agreement"
        @update:model-value="agreed = $event"
      />
    </div>
    <p v-if="nothing" class="mt-2 text-ink2">is asked for nothing else.</p>
    <ul v-else class="mt-2" aria-label="What would be asked for">
      <li v-for="r in asked.rules" :key="r.id" class="border-t border-rule py-1.5">
        needs <b class="font-semibold">{{ sayAsked(r.asks) }}</b><span class="small block">{{ r.name }}</span>
      </li>
      <li v-for="f in asked.fields" :key="f.id" class="border-t border-rule py-1.5">
        {{ f.required ? 'has to say' : 'may say' }}
        <b class="font-semibold">{{ f.name || 'a field without a name' }}</b>{{
          f.on === 'line' ? ' with the line' : ''
        }}
      </li>
    </ul>
  </section>
</template>
