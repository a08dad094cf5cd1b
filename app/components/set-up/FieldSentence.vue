<script setup lang="ts">
import type { OwnFieldType } from '#core/requisition/own-field'
import { formatCount } from '#shared/words/format'
import { TYPE_WORDS } from '#shared/words/request-form'
import type { EditableField } from '~/composables/set-up/use-form'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankMany from '~/components/base/BlankMany.vue'
import BlankText from '~/components/base/BlankText.vue'

/** An own field, as a sentence whose blanks can be changed; what stands on documents keeps its type. */
type Named = readonly { id: string; name: string }[]
defineProps<{ id: string; isNew: boolean; filled: number; kinds: Named; departments: Named; categories: Named }>()
const field = defineModel<EditableField>({ required: true })
const write = (change: Partial<EditableField>) => {
  field.value = { ...field.value, ...change }
}
const types = Object.entries(TYPE_WORDS).map(([id, name]) => ({ id, name }))
const PLACES = [
  { id: 'requisition', name: 'a request' },
  { id: 'line', name: 'a line' },
]
const NEEDS = [
  { id: 'needed', name: 'has to be filled in' },
  { id: 'free', name: 'may be left out' },
]
const choices = computed(() => field.value.choices.join(', '))
</script>

<template>
  <div class="sentence-small">
    With
    <BlankChoice
      v-if="isNew"
      :model-value="field.on"
      :choices="PLACES"
      label="Asked with"
      placeholder="what"
      @update:model-value="write({ on: $event as EditableField['on'], categoryIds: [] })"
    /><template v-else>{{ field.on === 'line' ? 'a line' : 'a request' }}</template> goes
    <b class="blank-strong"
      ><BlankText
        :id="`${id}-name`"
        :model-value="field.name"
        label="Name of the field"
        placeholder="what is asked"
        :most="80"
        @update:model-value="write({ name: $event })" /></b
    >,
    <BlankChoice
      v-if="isNew"
      :model-value="field.type"
      :choices="types"
      label="Its type"
      placeholder="what type"
      @update:model-value="write({ type: $event as OwnFieldType })"
    /><template v-else>{{ TYPE_WORDS[field.type] }}</template
    ><template v-if="field.type === 'choice'">
      of
      <BlankText
        :id="`${id}-choices`"
        :model-value="choices"
        label="What is chosen from, with commas between"
        placeholder="this, that"
        :most="2000"
        @update:model-value="
          write({
            choices: $event
              .split(',')
              .map((c) => c.trim())
              .filter((c, i, all) => c !== '' || i < all.length - 1),
          })
        " /></template
    >. It
    <BlankChoice
      :model-value="field.required ? 'needed' : 'free'"
      :choices="NEEDS"
      label="Whether it is needed"
      placeholder="may be left out"
      @update:model-value="write({ required: $event === 'needed' })"
    />, for
    <BlankMany
      :model-value="field.kinds"
      :choices="kinds"
      label="Of kinds"
      placeholder="requests of any kind"
      @update:model-value="write({ kinds: $event })"
    /><template v-if="field.on === 'line'">
      and
      <BlankMany
        :model-value="field.categoryIds"
        :choices="categories"
        label="Of categories"
        placeholder="things of any category"
        @update:model-value="write({ categoryIds: $event })" /></template
    >, by
    <BlankMany
      :model-value="field.departmentIds"
      :choices="departments"
      label="Of departments"
      placeholder="anybody"
      @update:model-value="write({ departmentIds: $event })"
    />.
  </div>
  <p class="small">
    Staff read:
    <BlankText
      :model-value="field.help"
      label="What staff read about this field"
      placeholder="what it means, if that needs saying"
      :most="300"
      @update:model-value="write({ help: $event })"
    />
  </p>
  <p v-if="!isNew" class="small">
    {{ filled === 0 ? 'filled in nowhere yet' : `filled in on ${formatCount(filled, 'request', 'requests')}` }}
  </p>
</template>
