<script setup lang="ts">
import type { OwnField } from '#core/requisition/own-field'
import type { Job } from '#core/requisition/job'
import { readTypedNumber } from '#core/base/typed-number'
import type { PersonFound } from '#shared/contract/people'
import BlankDay from '~/components/base/BlankDay.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { jobChoices } from '~/composables/raise/job-choices'
import PersonPicker from '~/components/base/PersonPicker.vue'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

const wording = useWording()

/** An own field, filled in as its type asks. A new type is drawn here, below the others. */
const props = defineProps<{
  field: OwnField
  id: string
  today: string
  jobs: readonly Job[]
  personName: string | null
  lacking: boolean
}>()
const value = defineModel<string>({ required: true })
const emit = defineEmits<{ person: [person: PersonFound] }>()
const unread = ref('')
const label = computed(() => `${props.field.name}${props.field.required ? '' : ', if you like'}`)
const person = computed<PersonFound | null>({
  get: () =>
    value.value === '' || props.personName === null
      ? null
      : { id: value.value, name: props.personName, jobTitle: '', department: '' },
  set: (p) => {
    value.value = p?.id ?? ''
    if (p !== null) emit('person', p)
  },
})
const choices = computed(() => [
  ...(props.field.required ? [] : [{ id: '', name: 'nothing' }]),
  ...props.field.choices.map((c) => ({ id: c, name: c })),
])
const jobs = computed(() => jobChoices(props.jobs, props.field.required ? null : 'no job'))
function number(event: Event): void {
  const text = (event.target as HTMLInputElement).value
  const read = text.trim() === '' ? '' : readTypedNumber(text, wording.decimalMark)
  unread.value = read === null ? text : ''
  value.value = read ?? text.slice(0, 30)
}
const text = (event: Event) => {
  value.value = (event.target as HTMLInputElement).value
}
</script>

<template>
  <span
    class="inline-flex max-w-full items-baseline gap-1.5"
    :class="lacking ? '[&_.cell]:italic [&_.cell]:text-amber-ink! [&_.cell]:placeholder:text-amber-ink' : ''"
  >
    <label :for="id" class="shrink-0" :title="field.help">{{ field.name }}</label>
    <BlankDay
      v-if="field.type === 'date'"
      :id="id"
      compact
      :model-value="value === '' ? null : value"
      :label="label"
      placeholder="which day"
      :today="today"
      @update:model-value="value = $event"
    />
    <BlankChoice
      v-else-if="field.type === 'choice'"
      :id="id"
      compact
      :model-value="value"
      :choices="choices"
      :label="label"
      placeholder="choose"
      @update:model-value="value = $event"
    />
    <BlankChoice
      v-else-if="field.type === 'job'"
      :id="id"
      compact
      :model-value="value"
      :choices="jobs"
      :label="label"
      placeholder="which job"
      @update:model-value="value = $event"
    />
    <PersonPicker
      v-else-if="field.type === 'person'"
      :id="id"
      v-model="person"
      compact
      :label="label"
      placeholder="who"
    />
    <TypedBox
      v-else-if="field.type === 'number'"
      :id="id"
      class="cell cell-fit w-auto! placeholder:italic"
      inputmode="decimal"
      :aria-invalid="lacking"
      :value="unread === '' && /^-?[\d.]+$/.test(value) ? wording.decimal(value) : value"
      placeholder="how much"
      @change="number"
    />
    <input
      v-else
      :id="id"
      class="cell cell-fit w-auto! placeholder:italic"
      maxlength="1000"
      :aria-invalid="lacking"
      :value="value"
      placeholder="not said"
      @input="text"
    />
    <span v-if="field.help" class="sr-only">{{ field.help }}</span>
  </span>
</template>
