<script setup lang="ts">
import type { Standing } from '#core/supplier/record'
import type { SupplierView } from '#shared/contract/supplier'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** How a supplier stands from now on, and why. */
const props = defineProps<{ supplier: SupplierView; to: Standing }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const api = useApi()
const wording = useWording()
const reason = ref('')
const until = ref<string | null>(null)
const { busy, trouble, act } = useAct()
const TITLE: Partial<Record<Standing, string>> = {
  'on hold': `${props.supplier.name} is put on hold`,
  blocked: `${props.supplier.name} is blocked`,
  active: `${props.supplier.name} can be ordered from again`,
}
const needsReason = props.to !== 'active'
const isMissing = computed(() => needsReason && reason.value.trim() === '')
const action = computed(() => {
  if (isMissing.value) return 'Say why'
  if (props.to === 'active') return 'Let it be ordered from'
  return props.to === 'blocked' ? 'Block it: nothing is asked of it' : 'Put it on hold: nothing is asked of it'
})
async function keep(): Promise<void> {
  if (isMissing.value) document.getElementById('standing-reason')?.focus()
  if (isMissing.value) return
  const at = { params: { id: props.supplier.id }, version: props.supplier.version }
  const body = { to: props.to, reason: reason.value, until: until.value }
  if (await act(() => api.put('/api/suppliers/{id}/standing', { ...at, body }))) emit('kept')
}
</script>

<template>
  <DialogSheet :title="TITLE[to] ?? ''" @close="emit('close')" @main="keep">
    <template v-if="needsReason">
      <label class="label mt-3" for="standing-reason">Why; whoever meets it on a request reads it</label>
      <textarea id="standing-reason" v-model="reason" class="field" rows="2" maxlength="500" />
    </template>
    <p v-if="to === 'on hold'" class="mt-3">
      Until
      <BlankDay
        v-model="until"
        label="Last day of the hold"
        placeholder="it is lifted"
        :today="wording.today.value"
        optional
      />.
    </p>
    <p v-if="supplier.waitingRequests > 0 && needsReason" class="small mt-3">
      Requests on the way name it; their lines cannot be ordered meanwhile.
    </p>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[240px] flex-1">
        <MainAction :missing="isMissing" :busy="busy" keys="Ctrl ⏎" @press="keep">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
