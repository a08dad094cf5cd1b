<script setup lang="ts">
import { formatCount } from '#shared/words/format'
import { ATTACHMENT_WORDS } from '#shared/words/request-form'
import type { AttachmentKind } from '#core/requisition/rules'
import type { EditableRule } from '~/composables/set-up/use-form'
import BlankAmount from '~/components/base/BlankAmount.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import BlankText from '~/components/base/BlankText.vue'

/** A rule for what is asked for with some requests, as a sentence whose blanks can be changed. */
type Named = readonly { id: string; name: string }[]
defineProps<{
  id: string
  currency: string
  kinds: Named
  departments: Named
  categories: Named
  replay: string
}>()
const rule = defineModel<EditableRule>({ required: true })
const write = (change: Partial<EditableRule>) => {
  rule.value = { ...rule.value, ...change }
}
const when = (change: Partial<EditableRule['when']>) => {
  write({ when: { ...rule.value.when, ...change } })
}
const ASKS = [
  ...[1, 2, 3, 4, 5].map((n) => ({ id: `quotes ${n}`, name: formatCount(n, 'quote', 'quotes') })),
  ...(['specification', 'drawing', 'other'] as const).map((kind) => ({
    id: `attachment ${kind}`,
    name: ATTACHMENT_WORDS[kind],
  })),
  { id: 'justification', name: 'a justification in words' },
  { id: 'reading', name: 'that something is read first' },
]
const AGREEMENTS = [
  { id: 'all', name: 'an agreement or not' },
  { id: 'without', name: 'no agreement' },
]
const asked = computed(() => {
  const { asks } = rule.value
  return asks.what === 'quotes'
    ? `quotes ${asks.count}`
    : asks.what === 'attachment'
      ? `attachment ${asks.kind}`
      : asks.what
})
function ask(id: string): void {
  const [what, which = ''] = id.split(' ')
  write({
    asks:
      what === 'quotes'
        ? { what, count: Number(which) }
        : what === 'attachment'
          ? { what, kind: which as AttachmentKind }
          : what === 'reading'
            ? { what, text: '' }
            : { what: 'justification' },
  })
}
const unread = ref('')
</script>

<template>
  <div class="sentence-small">
    Requests for
    <BlankMany
      :model-value="rule.when.kinds"
      :choices="kinds"
      label="Of kinds"
      placeholder="anything"
      @update:model-value="when({ kinds: $event })"
    />
    by
    <BlankMany
      :model-value="rule.when.departmentIds"
      :choices="departments"
      label="Of departments"
      placeholder="anybody"
      @update:model-value="when({ departmentIds: $event })"
    />
    with lines of
    <BlankMany
      :model-value="rule.when.categoryIds"
      :choices="categories"
      label="Of categories"
      placeholder="any category"
      @update:model-value="when({ categoryIds: $event })"
    />, under
    <BlankChoice
      :model-value="rule.when.withoutAgreement ? 'without' : 'all'"
      :light="!rule.when.withoutAgreement"
      :choices="AGREEMENTS"
      label="Agreements"
      placeholder=""
      @update:model-value="when({ withoutAgreement: $event === 'without' })"
    />, worth
    <BlankAmount
      :id="`${id}-amount`"
      :model-value="rule.when.from"
      :currency="currency"
      label="Worth which amount or more; nothing is any amount"
      placeholder="any amount"
      @update:model-value="when({ from: $event })"
      @unread="unread = $event"
    />{{ rule.when.from === null ? '' : ' or more' }}, need
    <BlankChoice
      :id="`${id}-asks`"
      :model-value="asked"
      :choices="ASKS"
      label="What they need"
      placeholder="what"
      @update:model-value="ask"
    /><template v-if="rule.asks.what === 'reading'"
      >: “<BlankText
        :id="`${id}-text`"
        :model-value="rule.asks.text"
        label="What has to be read"
        placeholder="what has to be read"
        :most="1000"
        @update:model-value="write({ asks: { what: 'reading', text: $event } })"
      />”</template
    >.
  </div>
  <p class="small">
    Staff read:
    <BlankText
      :id="`${id}-name`"
      :model-value="rule.name"
      label="Why it is asked for, as staff read it"
      placeholder="why it is asked for, in one sentence"
      :most="300"
      @update:model-value="write({ name: $event })"
    />
  </p>
  <p v-if="unread" class="small text-red!" role="alert">
    “{{ unread }}” is not an amount; what was there before stays.
  </p>
  <p v-else-if="replay" class="small">{{ replay }}</p>
</template>
