<script setup lang="ts">
import { isAsked } from '#core/requisition/own-field'
import type { DraftVerdict } from '#core/requisition/compute'
import type { DraftFacts } from '#core/requisition/draft-facts'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import { jobChoices } from '~/composables/raise/job-choices'
import { useDraftEditor } from '~/composables/raise/draft-editor'
// It comes where there are own fields.
const OwnFieldInput = defineAsyncComponent(() => import('./OwnFieldInput.vue'))

/** What else may be said of a request, as small sentences: delivery, job, notes, own fields, accounting date. */
const props = defineProps<{
  facts: DraftFacts
  verdict: DraftVerdict
  isOpen: boolean
}>()
const { draft, names } = useDraftEditor()
const jobs = computed(() => [...props.facts.jobs.values()])
const choices = computed(() => jobChoices(jobs.value))
const fields = computed(() =>
  props.facts.ownFields.filter((f) => f.on === 'requisition' && isAsked(f, { ...draft, categoryId: null })),
)
const lacking = computed(
  () =>
    new Set(
      props.verdict.missing.flatMap((m) =>
        m.stops && typeof m.at === 'object' && m.at.line === null ? [m.at.field] : [],
      ),
    ),
)
/** Required fields, and whatever was filled in, stand there without being asked for. */
const shownFields = computed(() =>
  fields.value.filter((f) => props.isOpen || f.required || (draft.own[f.id] ?? '') !== ''),
)
</script>

<template>
  <div class="small space-y-1">
    <p v-if="draft.address" class="flex flex-wrap items-baseline gap-x-2 gap-y-1 text-ink2">
      <span>Delivered this once to</span>
      <input
        id="blank-address-name"
        v-model="draft.address.name"
        class="cell cell-fit w-auto! text-ink placeholder:italic placeholder:text-amber-ink"
        maxlength="120"
        aria-label="Name on the address"
        placeholder="whom or which house"
      /><span aria-hidden="true">,</span>
      <input
        v-model="draft.address.street"
        class="cell cell-fit w-auto! text-ink placeholder:italic placeholder:text-amber-ink"
        maxlength="120"
        aria-label="Street and number"
        placeholder="street and number"
      /><span aria-hidden="true">,</span>
      <input
        v-model="draft.address.postcode"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="20"
        aria-label="Postcode"
        placeholder="postcode"
      />
      <input
        v-model="draft.address.town"
        class="cell cell-fit w-auto! text-ink placeholder:italic placeholder:text-amber-ink"
        maxlength="80"
        aria-label="Town"
        placeholder="town"
      /><span aria-hidden="true">,</span>
      <input
        v-model="draft.address.country"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="80"
        aria-label="Country"
        placeholder="country"
      />
    </p>
    <p
      v-if="isOpen || draft.shipToDetail || draft.attention || draft.telephone || draft.instructions"
      class="flex flex-wrap items-baseline gap-x-2 gap-y-1"
    >
      <label for="room">Room or door</label
      ><input
        id="room"
        v-model="draft.shipToDetail"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="200"
        placeholder="any"
      />
      <span>·</span><label for="attention">for the attention of</label
      ><input
        id="attention"
        v-model="draft.attention"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="120"
        placeholder="nobody in particular"
      />
      <span>·</span><label for="telephone">telephone</label
      ><input
        id="telephone"
        v-model="draft.telephone"
        type="tel"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="60"
        placeholder="none"
      />
      <span>·</span><label for="instructions">whoever delivers should know</label
      ><input
        id="instructions"
        v-model="draft.instructions"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="1000"
        placeholder="nothing"
      />
    </p>
    <p
      v-if="isOpen || draft.jobId || draft.accountingDate || shownFields.length > 0"
      class="flex flex-wrap items-baseline gap-x-4 gap-y-1"
    >
      <span v-if="jobs.length > 0 && (isOpen || draft.jobId)" class="inline-flex items-baseline gap-1.5"
        >For job
        <BlankChoice
          id="blank-job"
          compact
          class="text-ink"
          :model-value="draft.jobId ?? ''"
          :choices="choices"
          label="For which job"
          placeholder="no job"
          @update:model-value="draft.jobId = $event || null"
      /></span>
      <OwnFieldInput
        v-for="f in shownFields"
        :id="`own-${f.id}`"
        :key="f.id"
        class="[&_.cell]:text-ink"
        :field="f"
        :model-value="draft.own[f.id] ?? ''"
        :today="facts.today"
        :jobs="jobs"
        :person-name="names[draft.own[f.id] ?? ''] ?? null"
        :lacking="lacking.has(`own ${f.id}`)"
        @update:model-value="draft.own[f.id] = $event"
        @person="names[$event.id] = $event.name"
      />
      <span v-if="isOpen || draft.accountingDate" class="inline-flex items-baseline gap-1.5"
        >booked on
        <BlankDay
          id="blank-accounting"
          compact
          class="text-ink"
          :model-value="draft.accountingDate"
          label="Accounting date"
          placeholder="the day it is sent"
          :today="facts.today"
          earliest="1990-01-01"
          @update:model-value="draft.accountingDate = $event"
        /><button v-if="draft.accountingDate" type="button" class="quiet-link" @click="draft.accountingDate = null">
          the day it is sent instead
        </button></span
      >
    </p>
    <p v-if="isOpen || draft.noteToSupplier" class="flex items-baseline gap-1.5">
      <label for="to-supplier" class="shrink-0">To the supplier</label
      ><input
        id="to-supplier"
        v-model="draft.noteToSupplier"
        class="cell text-ink placeholder:italic"
        maxlength="2000"
        placeholder="a note that stands on the order"
      />
    </p>
    <p v-if="isOpen || draft.noteInternal" class="flex items-baseline gap-1.5">
      <label for="note-internal" class="shrink-0">For colleagues only</label
      ><input
        id="note-internal"
        v-model="draft.noteInternal"
        class="cell text-ink placeholder:italic"
        maxlength="2000"
        placeholder="whoever decides or buys reads it; the supplier never does"
      />
    </p>
  </div>
</template>
