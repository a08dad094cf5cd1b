<script setup lang="ts">
import { ATTACHMENT_KINDS, type AttachedAs } from '#core/requisition/rules'
import type { AttachmentView } from '#shared/contract/document'
import { formatSize } from '#shared/words/format'
import BlankChoice from '~/components/base/BlankChoice.vue'
// It comes when something is looked at.
const AttachmentPreview = defineAsyncComponent(() => import('~/components/base/AttachmentPreview.vue'))

/** What is attached, of which kind, and whether the supplier gets it. */
const props = defineProps<{
  attachments: readonly AttachmentView[]
  requisitionId: string
  mayChange: boolean
  uploading: { name: string; share: number } | null
  /** How often something was attached on this page. */
  attachedTimes: number
}>()
const emit = defineEmits<{
  remove: [id: string]
  describe: [attachment: AttachmentView, as: { kind: AttachedAs; forSupplier: boolean }]
}>()
const looking = shallowRef<AttachmentView | null>(null)
const firstUnsaid = computed(() => props.attachments.find((a) => a.kind === 'unsaid')?.id ?? null)
/** The choice of the first file of which it is not said what it is. */
const asked = () => document.querySelector<HTMLElement>('#attachment-kind [role="button"]')
/** What a file is, is asked and never assumed: when it is there, the choice opens by itself. */
function ask(): void {
  const choice = asked()
  if (choice === null) return
  choice.scrollIntoView({ block: 'center' })
  choice.focus()
  choice.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }))
  // What can be chosen opens below, perhaps past the edge.
  void nextTick(() => {
    choice.nextElementSibling?.scrollIntoView({ block: 'nearest' })
  })
}
watch(() => props.attachedTimes, ask, { flush: 'post' })
// The list may itself come later than a small file.
onMounted(() => {
  if (props.attachedTimes > 0) ask()
})
const KINDS = ATTACHMENT_KINDS.map((k) => ({ id: k, name: k === 'other' ? 'something else' : k }))
const WHO = [
  { id: 'internal', name: 'for colleagues only' },
  { id: 'supplier', name: 'goes to the supplier', note: 'with the order' },
]
</script>

<template>
  <div>
    <ul v-if="attachments.length > 0" class="mb-2 flex flex-wrap gap-2" aria-label="Attached">
      <li
        v-for="a in attachments"
        :key="a.id"
        class="inline-flex max-w-full flex-wrap items-baseline gap-x-2 rounded border border-edge px-2.5 py-1"
      >
        <button
          type="button"
          class="min-w-0 truncate hover:underline"
          :aria-label="`Look at ${a.name}`"
          @click="looking = a"
        >
          {{ a.name }}</button><span class="small shrink-0">{{ formatSize(a.size) }}</span>
        <template v-if="mayChange">
          <span :id="a.id === firstUnsaid ? 'attachment-kind' : undefined" tabindex="-1" @focus.self="asked()?.focus()">
            <BlankChoice
              compact
              class="small"
              :class="a.kind === 'unsaid' ? 'text-amber-ink! italic' : ''"
              :model-value="a.kind === 'unsaid' ? null : a.kind"
              :choices="KINDS"
              :label="`${a.name} is a`"
              placeholder="what is it?"
              @update:model-value="emit('describe', a, { kind: $event as AttachedAs, forSupplier: a.forSupplier })"
            />
          </span>
          <BlankChoice
            compact
            class="small"
            :model-value="a.forSupplier ? 'supplier' : 'internal'"
            :choices="WHO"
            :label="`Who gets ${a.name}`"
            placeholder="who"
            @update:model-value="emit('describe', a, { kind: a.kind, forSupplier: $event === 'supplier' })"
          />
          <button
            type="button"
            class="small quiet-link shrink-0"
            :aria-label="`Take ${a.name} off`"
            @click="emit('remove', a.id)"
          >
            take off
          </button>
        </template>
        <span v-else class="small shrink-0">{{ a.kind }}{{ a.forSupplier ? ', goes to the supplier' : '' }}</span>
      </li>
    </ul>
    <p v-if="uploading" class="small mb-2" role="status">
      <label
        >taking in {{ uploading.name }}
        <progress class="mx-1 h-1.5 w-[120px] align-middle accent-[var(--ink)]" :value="uploading.share" max="1">
          {{ Math.round(uploading.share * 100) }} %
        </progress></label
      >
      {{ Math.round(uploading.share * 100) }} %
    </p>
    <AttachmentPreview
      v-if="looking"
      :attachment="looking"
      :address="`/api/requisitions/${requisitionId}/attachments/${looking.id}`"
      @close="looking = null"
    />
  </div>
</template>
