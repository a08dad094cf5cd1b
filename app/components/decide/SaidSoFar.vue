<script setup lang="ts">
import type { RemarkView } from '#shared/contract/document'
import { sayRemark } from '#shared/words/document'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** What was asked, answered and given as a reason about a document, the oldest first. */
defineProps<{ remarks: readonly RemarkView[] }>()
const session = useSessionStore()
const wording = useWording()
</script>

<template>
  <div>
    <h2 class="head mb-1 mt-6">{{ remarks.length > 0 ? 'Said so far' : 'Nothing was said so far' }}</h2>
    <dl v-if="remarks.length > 0">
      <div
        v-for="r in remarks"
        :key="r.id"
        class="grid grid-cols-[132px_minmax(0,1fr)] gap-x-3 border-b border-rule py-2.5 max-[700px]:grid-cols-1"
      >
        <dt class="small pt-0.5">
          {{ r.personId === session.me?.id ? 'You' : r.name.split(' ')[0]
          }}<template v-if="r.to"> to {{ r.toId === session.me?.id ? 'you' : r.to.split(' ')[0] }}</template
          >, {{ wording.moment(r.at) }}
        </dt>
        <dd>{{ sayRemark(r) }}</dd>
      </div>
    </dl>
  </div>
</template>
