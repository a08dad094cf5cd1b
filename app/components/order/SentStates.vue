<script setup lang="ts">
import type { Reply } from '#shared/contract/all-routes'
import type { OrderView } from '#shared/contract/order'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** Every sent state of an order: when and why, its PDF, how far it came, and what it says otherwise than before. */
const props = defineProps<{ order: OrderView }>()
const emit = defineEmits<{ sent: [] }>()
const api = useApi()
const wording = useWording()
const session = useSessionStore()
const { busy, trouble, act } = useAct()
type Compared = Reply<(typeof orderChangeRoutes)['compareRevisions']>
const compared = shallowRef<Compared | null>(null)

async function compare(is: number): Promise<void> {
  if (compared.value?.is === is) {
    compared.value = null
    return
  }
  await act(async () => {
    compared.value = await api.get('/api/orders/{id}/differences', {
      params: { id: props.order.id },
      query: { was: is - 1, is },
    })
  })
}
/** What holds may be sent once more by its buyer, unless it is on its way. */
const mayResend = (v: OrderView['revisions'][number]) =>
  props.order.buyerId === session.me?.id &&
  v.revision === props.order.revisions[0]?.revision &&
  v.hasPdf &&
  (v.sendings > 0 || (!props.order.isSent && props.order.state !== 'cancelled')) &&
  !v.isWaiting
const resend = () =>
  act(async () => {
    await api.post('/api/orders/{id}/sendings', { params: { id: props.order.id }, key: crypto.randomUUID() })
    emit('sent')
  })
const sayFar = (v: OrderView['revisions'][number]) =>
  v.sendings === 0 && !props.order.isSent
    ? `kept here: ${props.order.supplier} was not sent it`
    : v.sentAt !== null
      ? `e-mailed to ${v.address ?? ''}, ${wording.moment(v.sentAt)}${v.sendings > 1 ? ', once more' : ''}`
      : v.lastError !== null
        ? 'the mail server does not take it just now; it follows by itself'
        : 'its e-mail is on the way'
</script>

<template>
  <section aria-labelledby="sent-states">
    <h2 id="sent-states" class="head mb-1.5">{{ order.isSent ? 'As it was sent' : 'As it was written' }}</h2>
    <p v-if="trouble" class="notice-red mb-1.5" role="alert">{{ trouble }}</p>
    <ul>
      <li v-for="v in order.revisions" :key="v.revision" class="border-b border-rule py-2">
        <p class="font-medium">
          {{ v.revision > 0 ? `Revision ${v.revision}` : order.isSent ? 'First sending' : 'Issued' }},
          {{ wording.moment(v.issuedAt) }}
        </p>
        <p v-if="v.reason" class="text-ink2">“{{ v.reason }}”, {{ v.issuedBy }}</p>
        <p class="small">{{ sayFar(v) }}</p>
        <p class="small flex flex-wrap gap-x-3">
          <a v-if="v.hasPdf" class="quiet-link" :href="`/api/orders/${order.id}/pdf?revision=${v.revision}`">PDF</a>
          <a class="quiet-link" :href="`/api/orders/${order.id}/ubl?revision=${v.revision}`">UBL</a>
          <button
            v-if="v.revision > 0"
            type="button"
            class="quiet-link"
            :aria-expanded="compared?.is === v.revision"
            @click="compare(v.revision)"
          >
            what has changed
          </button>
          <button v-if="mayResend(v)" type="button" class="quiet-link" :disabled="busy" @click="resend">
            {{ v.sendings > 0 ? 'send it once more' : 'send it after all' }}
          </button>
        </p>
        <ul v-if="compared?.is === v.revision" class="mt-1.5 border-l-2 border-strong pl-2.5">
          <li v-for="d in compared.differences" :key="d">{{ d }}</li>
          <li v-if="compared.differences.length === 0" class="text-ink2">Nothing that the supplier reads.</li>
        </ul>
      </li>
    </ul>
  </section>
</template>
