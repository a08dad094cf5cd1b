<script setup lang="ts">
import type { PolicyForm, PolicyReason } from '#core/approval/policy-form'
import type { PolicyView, ZonedMoment } from '#shared/contract/policy'
import { capital, formatCount } from '#shared/words/format'
import { sayPolicyReason } from '#shared/words/policy-form'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useWording } from '~/composables/base/use-wording'

/** What may be done with the draft: asked for, confirmed, given back, thrown away; and what it still lacks. */
const props = defineProps<{
  draft: PolicyView['draft']
  form: PolicyForm
  changes: number
  reasons: readonly PolicyReason[]
  mayWrite: boolean
  busy: boolean
  trouble: string
  kept: 'kept' | 'keeping' | 'failed'
  nameOf: (id: string) => string
}>()
const emit = defineEmits<{
  ask: [from: ZonedMoment | null]
  confirm: []
  giveBack: [why: string]
  throwAway: []
  lead: [at: number | null]
  name: [name: string]
}>()
const wording = useWording()
const waits = computed(() => props.draft?.state === 'waiting')
const WHEN = [
  { id: 'at once', name: 'as soon as it is confirmed' },
  { id: 'later', name: 'from a day on' },
]
const when = ref('at once')
const day = ref('')
const time = ref('00:00')
const TIMES = ['00:00', '06:00', '08:00', '09:00', '12:00', '17:00'].map((t) => ({ id: t, name: t }))
const many = computed(() => formatCount(props.changes, 'change', 'changes'))
const lacksDay = computed(() => when.value === 'later' && day.value === '')
const from = computed<ZonedMoment | null>(() =>
  when.value === 'later' && day.value !== '' ? { day: day.value, time: time.value } : null,
)
const words = computed(() => {
  const d = props.draft
  if (waits.value && d !== null) {
    const start = d.inForceAt === null ? 'at once' : `from ${wording.moment(d.inForceAt)}`
    if (d.mayConfirm) return `Confirm ${many.value}; they hold ${start}, for all that is sent or still open`
    return `It waits for another administrator, or finance where there is none; then it holds ${start}`
  }
  if (props.reasons.length > 0)
    return `${capital(formatCount(props.reasons.length, 'thing', 'things'))} to put right first`
  if (props.changes === 0) return 'The draft says what holds already'
  if (lacksDay.value) return 'Choose the day from which it is to hold'
  return `Ask another administrator to put ${many.value} in force`
})
const why = ref('')
const isGivingBack = ref(false)
function press(): void {
  if (props.busy) return
  if (waits.value) {
    if (props.draft?.mayConfirm) emit('confirm')
    return
  }
  const [wrong] = props.reasons
  if (wrong !== undefined) emit('lead', wrong.at)
  else if (!lacksDay.value && props.changes > 0) emit('ask', from.value)
}
function giveBack(): void {
  if (props.busy) return
  if (props.draft?.isOwn) emit('giveBack', '')
  else if (!isGivingBack.value) isGivingBack.value = true
  else if (why.value.trim() !== '') emit('giveBack', why.value)
}
watch(waits, () => {
  isGivingBack.value = false
  why.value = ''
})
defineExpose({ press })
</script>

<template>
  <div>
    <p v-if="draft?.returned" class="notice-amber mb-2.5">It came back from {{ draft.returned }}</p>
    <p v-if="waits && draft" class="small mb-2.5">
      Asked for by {{ draft.isOwn ? 'you' : draft.askedBy }} {{ draft.askedAt ? wording.moment(draft.askedAt) : '' }}.
    </p>
    <template v-else-if="mayWrite">
      <label class="small block" for="policy-name">What this version changes, for the list of versions</label>
      <input
        id="policy-name"
        class="field mb-2"
        :value="form.name"
        maxlength="200"
        autocomplete="off"
        @input="emit('name', ($event.target as HTMLInputElement).value)"
      />
      <p class="mb-2.5 leading-7">
        It holds
        <BlankChoice v-model="when" :choices="WHEN" label="From when on it holds" placeholder="" light />
        <template v-if="when === 'later'"
          >:
          <BlankDay v-model="day" label="From which day on" placeholder="a day" :today="wording.today.value" />
          <BlankChoice v-model="time" :choices="TIMES" label="From what time on" placeholder="" light /></template
        >.
      </p>
    </template>
    <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
    <ul v-if="!waits && reasons.length > 0" class="mb-2.5" aria-label="What has to be put right">
      <li v-for="r in reasons" :key="JSON.stringify(r)">
        <button type="button" class="quiet-link text-left text-amber-ink" @click="emit('lead', r.at)">
          {{ sayPolicyReason(r, nameOf) }}
        </button>
      </li>
    </ul>
    <MainAction
      v-if="mayWrite || draft?.mayConfirm || draft?.isOwn"
      :missing="waits ? draft?.mayConfirm !== true : reasons.length > 0 || lacksDay || changes === 0"
      :busy="busy"
      :keys="waits && !draft?.mayConfirm ? '' : 'Ctrl ⏎'"
      @press="press"
      >{{ words }}</MainAction
    >
    <label v-if="isGivingBack" class="small mt-2 block"
      >What is to be changed
      <textarea v-model="why" class="field" rows="2" maxlength="1000" />
    </label>
    <button
      v-if="waits && (draft?.isOwn || draft?.mayConfirm)"
      type="button"
      class="action mt-2 w-full"
      @click="giveBack"
    >
      {{ draft?.isOwn ? 'Take it back and write on' : isGivingBack ? 'Give it back with this' : 'Give it back' }}
    </button>
    <template v-if="!waits && mayWrite">
      <button type="button" class="action mt-2 w-full" @click="emit('throwAway')">Throw the draft away</button>
      <p class="small mt-2" role="status">
        {{
          kept === 'failed'
            ? 'It could not be kept just now.'
            : kept === 'keeping'
              ? 'Being kept …'
              : 'Kept as a draft.'
        }}
      </p>
    </template>
  </div>
</template>
