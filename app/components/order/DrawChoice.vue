<script setup lang="ts">
import type { AgreementChoice } from '#shared/contract/agreement'
import DialogSheet from '~/components/base/DialogSheet.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** On which agreement an order draws: those that fit, and why the others do not. */
const props = defineProps<{ orderId: string; version: number; supplier: string }>()
const emit = defineEmits<{ said: []; close: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const current = ref<string | null>(null)
const choices = shallowRef<readonly AgreementChoice[] | null>(null)
onMounted(async () => {
  try {
    const found = await api.get('/api/orders/{id}/agreements', { params: { id: props.orderId } })
    current.value = found.agreementId
    choices.value = found.choices
  } catch (e) {
    trouble.value = sayError(e)
  }
})
const fitting = computed(() => (choices.value ?? []).filter((c) => c.reasons.length === 0))
const others = computed(() => (choices.value ?? []).filter((c) => c.reasons.length > 0))
const say = (agreementId: string | null) =>
  act(async () => {
    await api.put('/api/orders/{id}/agreement', {
      params: { id: props.orderId },
      version: props.version,
      body: { agreementId },
    })
    emit('said')
  })
</script>

<template>
  <DialogSheet :title="`On which agreement with ${supplier} it draws`" :width="560" @close="emit('close')">
    <p v-if="choices === null && trouble === ''" class="mt-3 text-ink2">Looking …</p>
    <ul class="mt-3">
      <li v-for="c in fitting" :key="c.id">
        <button type="button" class="option w-full text-left" :aria-busy="busy" @click="say(c.id)">
          <span :class="c.id === current ? 'font-semibold' : ''">{{ c.name }}</span><span
            v-if="c.id === current"
            class="text-green"
          >
            · as it is now</span
          ><span class="small block"
            >{{ c.number }} · to {{ wording.shortDay(c.endsOn)
            }}<template v-if="c.left"> · {{ wording.money(c.left) }} left to draw</template></span
          >
        </button>
      </li>
      <li v-if="choices !== null">
        <button type="button" class="option w-full text-left" :aria-busy="busy" @click="say(null)">
          <span :class="current === null ? 'font-semibold' : ''">On none</span
          ><span v-if="current === null" class="text-green"> · as it is now</span>
        </button>
      </li>
    </ul>
    <template v-if="others.length > 0">
      <h3 class="head mt-4">It does not fit</h3>
      <ul class="mt-1">
        <li v-for="c in others" :key="c.id" class="border-t border-rule py-1.5">
          {{ c.name }} <span class="small">{{ c.number }}</span><span class="small block text-ink2">{{
            c.reasons.join(' ')
          }}</span>
        </li>
      </ul>
    </template>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <p class="mt-4"><button type="button" class="action" @click="emit('close')">Leave it</button></p>
  </DialogSheet>
</template>
