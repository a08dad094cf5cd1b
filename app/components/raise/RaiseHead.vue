<script setup lang="ts">
import { isAsked } from '#core/requisition/own-field'
import type { DraftVerdict } from '#core/requisition/compute'
import type { DraftFacts } from '#core/requisition/draft-facts'
import type { RaiseChoices } from '#shared/contract/requisition'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import BlankText from '~/components/base/BlankText.vue'
import { useWording } from '~/composables/base/use-wording'
import { useDraftEditor } from '~/composables/raise/draft-editor'
import { useSessionStore } from '~/stores/session'

const HeadDetails = defineAsyncComponent(() => import('./HeadDetails.vue'))

/** The sentence of a requisition, whose blanks are its fields, and what stands below it. */
const props = defineProps<{
  choices: RaiseChoices
  facts: DraftFacts
  verdict: DraftVerdict
  proposedTitle: string
  /** Who owns it, and whether whoever writes may still choose for whom it is. */
  owner: string
  ownerId: string
  mayRaiseFor: boolean
  /** It is ordered by whoever writes it, without a request. */
  isDirect: boolean
}>()
const emit = defineEmits<{ owner: [id: string] }>()
/** Whether more is said than the sentence holds. */
const more = defineModel<boolean>('more', { required: true })
const { draft } = useDraftEditor()
const session = useSessionStore()
const wording = useWording()

/** A choice among the places that opens an address for this time alone. */
const ONCE = 'once'
const shipTos = computed(() => [
  ...props.choices.shipTos.map((s) => ({ id: s.id, name: s.name, note: `${s.street}, ${s.postcode} ${s.town}` })),
  {
    id: ONCE,
    name: draft.address === null ? 'Another address' : draft.address.name || 'an address for this once',
    note: 'for this delivery alone',
  },
])
const kinds = computed(() => [...props.facts.kinds.values()].map((k) => ({ id: k.code, name: k.name, note: k.help })))
const people = computed(() =>
  props.choices.people.map((p) => ({
    id: p.id,
    name: p.id === session.me?.id ? 'yourself' : p.name,
    note: p.jobTitle,
  })),
)
/** Whether more is said, or has to be, than the sentence holds. */
const hasDetails = computed(
  () =>
    draft.address !== null ||
    draft.jobId !== null ||
    draft.accountingDate !== null ||
    [
      draft.shipToDetail,
      draft.attention,
      draft.telephone,
      draft.instructions,
      draft.noteToSupplier,
      draft.noteInternal,
      ...Object.values(draft.own),
    ].some((t) => t !== '') ||
    props.facts.ownFields.some(
      (f) => f.on === 'requisition' && f.required && isAsked(f, { ...draft, categoryId: null }),
    ),
)
const readings = computed(() =>
  props.verdict.rules.flatMap((r) => (r.asks.what === 'reading' ? [{ id: r.id, text: r.asks.text }] : [])),
)

/** Departments open to whoever it is for; the one that stands there stays in sight. */
const departments = computed(() => {
  const open = props.choices.people.find((p) => p.id === props.ownerId)?.departmentIds
  return props.choices.departments.filter(
    (d) => open === undefined || open.includes(d.id) || d.id === draft.departmentId,
  )
})
/** For somebody of another department, theirs and its place apply. */
function chooseOwner(id: string): void {
  emit('owner', id)
  const open = props.choices.people.find((p) => p.id === id)?.departmentIds ?? []
  const [home] = open
  if (home !== undefined && !open.includes(draft.departmentId ?? '')) chooseDepartment(home)
}
function chooseDepartment(id: string): void {
  if (id === draft.departmentId) return
  const usualOf = (of: string | null) => props.choices.departments.find((x) => x.id === of)?.usualShipToId ?? null
  if (draft.shipToId === null || draft.shipToId === usualOf(draft.departmentId)) draft.shipToId = usualOf(id)
  draft.departmentId = id
}
function chooseShipTo(id: string): void {
  if (id === ONCE) {
    draft.address ??= { name: '', street: '', postcode: '', town: '', country: '' }
    void nextTick(() => {
      document.getElementById('blank-address-name')?.focus()
    })
    return
  }
  draft.address = null
  draft.shipToId = id
}
function readRule(id: string): void {
  if (!draft.readWarnings.includes(id)) draft.readWarnings = [...draft.readWarnings, id]
}
</script>

<template>
  <div>
    <div class="sentence">
      <BlankChoice
        id="blank-department"
        :model-value="draft.departmentId"
        :choices="departments"
        label="For which department"
        placeholder="Which department"
        @update:model-value="chooseDepartment"
      />
      needs
      <BlankChoice
        v-if="kinds.length > 1 || kinds[0]?.id !== draft.kind"
        id="blank-kind"
        :model-value="draft.kind"
        :choices="kinds"
        label="What kind of request"
        placeholder="what kind of thing"
        @update:model-value="draft.kind = $event"
      /><template v-else>this</template> by
      <BlankDay
        id="blank-need-by"
        v-model="draft.needBy"
        :today="wording.today.value"
        :holidays="choices.holidays"
        label="Needed by"
        placeholder="which day"
      />, delivered to
      <BlankChoice
        id="blank-ship-to"
        :model-value="draft.address === null ? draft.shipToId : ONCE"
        :choices="shipTos"
        label="Where to"
        placeholder="which place"
        @update:model-value="chooseShipTo"
      />, because
      <BlankText
        id="blank-why"
        v-model="draft.why"
        label="Why it is needed"
        placeholder="why it is needed"
        :most="4000"
      />.
    </div>
    <p class="small mt-1.5 flex flex-wrap items-baseline gap-x-2">
      <span v-if="mayRaiseFor"
        >{{ isDirect ? 'Ordered' : 'Raised' }} by you, for
        <BlankChoice
          id="blank-owner"
          compact
          :model-value="ownerId"
          :choices="people"
          label="For whom"
          placeholder="whom"
          @update:model-value="chooseOwner"
        />
        ·</span
      >
      <span v-else>Owned by {{ owner }} ·</span><label for="title">called</label
      ><input
        id="title"
        v-model="draft.title"
        class="cell cell-fit w-auto!"
        maxlength="120"
        :placeholder="proposedTitle"
      />
      <span>·</span
      ><button type="button" class="quiet-link min-h-[24px]" :aria-expanded="more" @click="more = !more">
        {{ more ? 'less' : 'delivery, job, notes and more' }}
      </button>
    </p>
    <HeadDetails v-if="more || hasDetails" class="mt-1" :facts="facts" :verdict="verdict" :is-open="more" />
    <p
      v-for="r in readings"
      :id="`reading-${r.id}`"
      :key="r.id"
      tabindex="-1"
      class="mt-3"
      :class="draft.readWarnings.includes(r.id) ? 'small' : 'notice-amber'"
    >
      {{ r.text }}
      <button
        v-if="!draft.readWarnings.includes(r.id)"
        type="button"
        class="quiet-link font-semibold"
        @click="readRule(r.id)"
      >
        I have read this</button
      ><span v-else>Read.</span>
    </p>
  </div>
</template>
