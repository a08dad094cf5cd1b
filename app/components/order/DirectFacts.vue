<script setup lang="ts">
import type { DirectOrder } from '#shared/contract/order'
import { formatSize } from '#shared/words/format'

/** What a direct order says besides its lines, as a request for them would: for whom, why, and with which files. */
defineProps<{ direct: DirectOrder; orderId: string }>()
const AttachmentPreview = defineAsyncComponent(() => import('~/components/base/AttachmentPreview.vue'))
/** The file that is looked at. */
const looking = shallowRef<DirectOrder['attachments'][number] | null>(null)
</script>

<template>
  <div>
    <p>
      <b class="font-semibold">{{ direct.title }}</b>{{ ' ' }}
      <span class="text-ink2">without a request, for {{ direct.for }} of {{ direct.department }}</span>
    </p>
    <p v-if="direct.why" class="max-w-[70ch] whitespace-pre-line">“{{ direct.why }}”</p>
    <p v-if="direct.justification" class="mt-1 max-w-[70ch] whitespace-pre-line">
      <span class="text-ink3">Justification:</span> {{ direct.justification }}
    </p>
    <p v-if="direct.overBudgetReason" class="mt-1 max-w-[70ch] whitespace-pre-line">
      <span class="text-ink3">Why the budget may be passed:</span> {{ direct.overBudgetReason }}
    </p>
    <p v-if="direct.attachments.length > 0" class="mt-2 flex flex-wrap gap-2">
      <button
        v-for="a in direct.attachments"
        :key="a.id"
        type="button"
        class="inline-flex items-center gap-2 rounded border border-edge px-2.5 py-1 hover:border-ink"
        @click="looking = a"
      >
        {{ a.name }} <span class="small">{{ a.kind }}, {{ formatSize(a.size) }}</span>
      </button>
    </p>
    <AttachmentPreview
      v-if="looking"
      :attachment="looking"
      :address="`/api/orders/${orderId}/attachments/${looking.id}`"
      @close="looking = null"
    />
  </div>
</template>
