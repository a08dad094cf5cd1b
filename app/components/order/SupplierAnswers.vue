<script setup lang="ts">
import { dayOf } from '#core/base/day'
import type { OrderView } from '#shared/contract/order'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** What the supplier answered to every sent state, and what the buyer does while it says nothing. */
const props = defineProps<{ order: OrderView; mayAct: boolean }>()
const emit = defineEmits<{ typing: []; done: [words: string] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const waits = computed(() => props.order.answers.some((a) => a.outcome === 'waits'))
/** Once a day is enough. */
const isReminded = computed(
  () =>
    props.order.remindedAt !== null &&
    dayOf(new Date(props.order.remindedAt), wording.zone.value) === wording.today.value,
)
const OUTCOMES = {
  waits: 'waits for the buyer',
  holds: 'it holds',
  declined: 'not agreed to',
  replaced: 'answered anew, or changed since',
} as const
const WAYS = { link: '', buyer: ' · typed in by the buyer', response: ' · as an OrderResponse' } as const
async function takeIn(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const [file] = field.files ?? []
  if (file === undefined) return
  await act(async () => {
    const { outcome } = await api.post('/api/orders/{id}/responses', {
      params: { id: props.order.id },
      raw: file,
      version: props.order.version,
    })
    emit('done', outcome === 'holds' ? 'The order is acknowledged.' : 'Their answer waits for your yes.')
  })
  field.value = ''
}
/** Why there is no answer to what holds. */
const silence = computed(() =>
  !props.order.isSent
    ? 'They were not sent it, and are asked for nothing.'
    : props.order.answers.length === 0
      ? 'Nothing yet.'
      : 'Nothing to what was sent last.',
)
const remind = () =>
  act(async () => {
    await api.post('/api/order-reminders', { body: { orderIds: [props.order.id] }, key: crypto.randomUUID() })
    emit('done', `${props.order.supplier} is asked once more for an answer.`)
  })
</script>

<template>
  <section aria-labelledby="answers" class="mt-5">
    <h2 id="answers" class="head mb-1.5">What {{ order.supplier }} answered</h2>
    <p v-if="trouble" class="notice-red mb-1.5" role="alert">{{ trouble }}</p>
    <p v-if="order.state === 'issued' && !waits" class="text-ink2">
      {{ silence }}
      <template v-if="order.remindedAt"> Asked once more {{ wording.moment(order.remindedAt) }}.</template>
    </p>
    <ul>
      <li v-for="a in order.answers" :key="a.id" class="border-b border-rule py-2">
        <p class="font-medium">
          {{ a.by }}, {{ wording.moment(a.givenAt)
          }}<template v-if="a.revision > 0">, revision {{ a.revision }}</template>
        </p>
        <p v-if="a.note" class="text-ink2">“{{ a.note }}”</p>
        <p v-if="a.said">Answered: “{{ a.said }}”</p>
        <p class="small">{{ OUTCOMES[a.outcome] }}{{ WAYS[a.way] }}</p>
      </li>
    </ul>
    <p v-if="mayAct && order.state === 'issued'" class="small mt-1.5 flex flex-wrap gap-x-4 gap-y-1">
      <button type="button" class="quiet-link min-h-6" @click="emit('typing')">Type in what they said</button>
      <label
        class="quiet-link inline-flex min-h-6 cursor-pointer items-center focus-within:outline focus-within:outline-2"
        ><input class="sr-only" type="file" accept=".xml,text/xml,application/xml" @change="takeIn" />Take in an
        OrderResponse</label
      >
      <button
        v-if="order.isSent && !waits && !isReminded"
        type="button"
        class="quiet-link min-h-6"
        :disabled="busy"
        @click="remind"
      >
        Ask them once more
      </button>
    </p>
  </section>
</template>
