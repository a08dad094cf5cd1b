<script setup lang="ts">
import type { TransferView } from '#shared/contract/budget'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** Money that waits to move between budget lines: for whoever decides, and for whoever proposed it. */
defineProps<{ transfers: readonly TransferView[] }>()
const emit = defineEmits<{ decided: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
/** The one that is being refused, with the reason. */
const refusing = ref<string | null>(null)
const why = ref('')

async function decide(t: TransferView, outcome: 'agree' | 'refuse'): Promise<void> {
  if (outcome === 'refuse' && (refusing.value !== t.id || why.value.trim() === '')) {
    if (refusing.value !== t.id) why.value = ''
    refusing.value = t.id
    await nextTick()
    document.getElementById(`why-${t.id}`)?.focus()
    return
  }
  await act(() =>
    api.post('/api/budget-transfers/{id}/decisions', {
      params: { id: t.id },
      body: { outcome, comment: outcome === 'refuse' ? why.value : '' },
      key: `transfer-${t.id}-${outcome}`,
    }),
  )
  refusing.value = null
  emit('decided')
}
async function takeBack(t: TransferView): Promise<void> {
  await act(() => api.remove('/api/budget-transfers/{id}', { params: { id: t.id } }))
  emit('decided')
}
</script>

<template>
  <section class="notice-amber mt-3" aria-label="Money that is to move">
    <ul class="space-y-3">
      <li v-for="t in transfers" :key="t.id">
        <p>
          <b class="font-semibold">{{ t.isOwn ? 'You propose' : `${t.proposedBy} proposes` }}</b> to move
          <b class="font-semibold">{{ wording.money(t.amount) }}</b> from {{ t.from }} to {{ t.to }}: “{{ t.reason }}”
          <span v-if="!t.decides">It waits for {{ t.decider ?? 'finance' }}.</span>
        </p>
        <div v-if="t.decides" class="mt-1.5 flex flex-wrap items-center gap-2">
          <input
            v-if="refusing === t.id"
            :id="`why-${t.id}`"
            v-model="why"
            class="field w-[min(320px,100%)]! min-h-[36px]! py-1.5! text-ink"
            maxlength="1000"
            aria-label="Why it is refused"
            placeholder="Why it is refused"
            @keydown.enter.prevent="decide(t, 'refuse')"
            @keydown.esc="refusing = null"
          />
          <button v-else type="button" class="action" :disabled="busy" @click="decide(t, 'agree')">
            Agree; the money moves
          </button>
          <button type="button" class="action action-danger" :disabled="busy" @click="decide(t, 'refuse')">
            Refuse
          </button>
          <button v-if="refusing === t.id" type="button" class="action" @click="refusing = null">Leave it</button>
        </div>
        <button v-else-if="t.isOwn" type="button" class="quiet-link" :disabled="busy" @click="takeBack(t)">
          Take it back
        </button>
      </li>
    </ul>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
  </section>
</template>
