<script setup lang="ts">
import { formatCount } from '#shared/words/format'
import type { EditableForm } from '~/composables/set-up/use-form'
import BlankText from '~/components/base/BlankText.vue'

/** A kind of request, as a sentence whose blanks can be changed. */
defineProps<{ id: string; first: boolean; sent: number }>()
const kind = defineModel<EditableForm['kinds'][number]>({ required: true })
const write = (change: Partial<EditableForm['kinds'][number]>) => {
  kind.value = { ...kind.value, ...change }
}
</script>

<template>
  <div class="sentence-small">
    <b class="blank-strong"
      ><BlankText
        :id="`${id}-name`"
        :model-value="kind.name"
        label="Name of the kind, as in: a request for"
        placeholder="what is asked for"
        :most="60"
        @update:model-value="write({ name: $event })" /></b
    >, with numbers that begin with
    <BlankText
      :id="`${id}-series`"
      :model-value="kind.series"
      label="Letters its numbers begin with"
      placeholder="letters"
      :most="3"
      @update:model-value="write({ series: $event.toUpperCase() })"
    />{{ first ? ', is what a new request begins as' : '' }}.
  </div>
  <p class="small">
    Staff read:
    <BlankText
      :model-value="kind.help"
      label="What staff read about this kind"
      placeholder="what it is for, if that needs saying"
      :most="300"
      @update:model-value="write({ help: $event })"
    />
  </p>
  <p class="small">{{ sent === 0 ? 'none sent yet' : `${formatCount(sent, 'request', 'requests')} sent` }}</p>
</template>
