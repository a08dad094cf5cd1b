<script setup lang="ts">
import { dec } from '#core/base/decimal'
import type { Reply } from '#shared/contract/all-routes'
import type { OrderView } from '#shared/contract/order'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** What a supplier answered otherwise than ordered: what it would come to, and the buyer's yes or no. */
const props = defineProps<{ order: OrderView; answer: OrderView['answers'][number] }>()
const emit = defineEmits<{ done: [words: string] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const rest = ref<'returns' | 'ends'>('returns')
const isLess = computed(() =>
  props.answer.wishes.some((w) =>
    dec(w.quantity).lt(dec(props.order.lines.find((l) => l.id === w.lineId)?.quantity ?? '0')),
  ),
)
type Checked = Reply<(typeof orderChangeRoutes)['checkOrderChange']>
const checked = shallowRef<Checked | null>(null)
const unread = ref('')
async function check(): Promise<void> {
  try {
    checked.value = await api.post('/api/orders/{id}/change-checks', {
      params: { id: props.order.id },
      body: { lines: props.answer.wishes, shipToId: null, rest: rest.value },
    })
    unread.value = ''
  } catch (e) {
    unread.value = sayError(e)
  }
}
onMounted(check)
/** One key for one yes: pressed again after a failing, it is said once. */
let key = crypto.randomUUID()
watch([rest, () => props.answer.id, () => props.order.version], () => {
  key = crypto.randomUUID()
  void check()
})
const isRefused = computed(() => checked.value !== null && checked.value.refusals.length > 0)
const mayAgree = computed(() => checked.value !== null && (!isRefused.value || checked.value.needsDecision))
const words = computed(() => {
  const c = checked.value
  if (c?.needsDecision === true) return 'Agree, once whoever decides has approved'
  if (c?.isCancellation === true) return 'Agree: the order is cancelled'
  return `Agree: send revision ${(props.order.revisions[0]?.revision ?? 0) + 1}`
})
const agree = () =>
  act(async () => {
    const { state } = await api.post('/api/orders/{id}/agreements-to-answer', {
      params: { id: props.order.id },
      body: { answerId: props.answer.id, rest: rest.value, asks: checked.value?.needsDecision === true },
      version: props.order.version,
      key,
    })
    const did = checked.value?.isCancellation === true ? 'is cancelled' : 'is changed as it was answered'
    emit('done', state === 'in force' ? `${props.order.number} ${did}.` : 'It waits to be decided on.')
  })
const declining = ref(false)
const why = ref('')
async function decline(): Promise<void> {
  if (why.value.trim() === '') {
    document.getElementById('why-not')?.focus()
    return
  }
  await act(async () => {
    await api.post('/api/orders/{id}/refusals-of-answer', {
      params: { id: props.order.id },
      body: { answerId: props.answer.id, text: why.value },
      version: props.order.version,
      key: crypto.randomUUID(),
    })
    emit('done', `${props.order.supplier} is told that it stands as it was sent.`)
  })
}
async function beginDeclining(): Promise<void> {
  declining.value = true
  await nextTick()
  document.getElementById('why-not')?.focus()
}
</script>

<template>
  <section class="notice-amber mt-3" aria-label="What the supplier answered">
    <p>
      <b class="font-semibold">{{ order.supplier }} answered otherwise than it was ordered ({{ answer.by }}).</b>
      Until you say yes it stands as it was sent.
    </p>
    <ul class="mt-1.5 list-disc pl-5">
      <li v-for="d in answer.differences" :key="d">{{ d }}</li>
    </ul>
    <p v-if="answer.note" class="mt-1.5">“{{ answer.note }}”</p>
    <template v-if="checked">
      <p class="mt-1.5">
        It would come to {{ wording.money(checked.net) }} without tax; {{ wording.money(order.net) }} stand.
      </p>
      <ul>
        <li v-for="c in checked.consequences" :key="c">{{ c }}</li>
        <li v-for="r in checked.refusals" :key="r" class="font-medium">{{ r }}</li>
      </ul>
    </template>
    <p v-if="isLess && order.direct === null" class="mt-1.5">
      What does not come
      <BlankChoice
        :model-value="rest"
        :choices="[
          { id: 'returns', name: 'waits on the Desk to be ordered again' },
          { id: 'ends', name: 'is not needed any more' },
        ]"
        label="What becomes of what does not come"
        placeholder=""
        light
        @update:model-value="rest = $event === 'ends' ? 'ends' : 'returns'"
      />.
    </p>
    <p v-if="trouble || unread" class="notice-red mt-2" role="alert">{{ trouble || unread }}</p>
    <form v-if="declining" class="mt-2" @submit.prevent="decline">
      <label class="label" for="why-not">Why not, for the supplier</label>
      <textarea id="why-not" v-model="why" class="field" rows="2" maxlength="1000" />
      <p class="mt-2 flex flex-wrap gap-2">
        <button type="submit" class="action" :aria-busy="busy" :data-missing="why.trim() === ''">
          {{ why.trim() === '' ? 'Say why first' : 'Tell them no' }}
        </button>
        <button type="button" class="action" @click="declining = false">Leave it</button>
      </p>
    </form>
    <p v-else class="mt-2 flex flex-wrap gap-2">
      <button v-if="mayAgree" type="button" class="action" :aria-busy="busy" @click="agree">{{ words }}</button>
      <button type="button" class="action" @click="beginDeclining">Say no, and why</button>
    </p>
  </section>
</template>
