<script setup lang="ts">
import { dec } from '#core/base/decimal'
import type { LineWish } from '#core/order/change'
import MainAction from '~/components/base/MainAction.vue'
import AnswerForm from '~/components/order/AnswerForm.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { rowsOfParts } from '#shared/words/adjustment'
import { capital } from '#shared/words/format'
import { waysOf } from '#shared/words/ways'

definePageMeta({ layout: false })
const api = useApi()
const route = useRoute()
const key = typeof route.query.key === 'string' ? route.query.key : ''
const { data, error, refresh } = await useAsyncData(`answer-${key}`, () =>
  api.get('/api/order-answers/{key}', { params: { key } }),
)
useHead({ title: () => `${data.value?.number ?? 'Order'} · Rekko`, meta: [{ name: 'robots', content: 'noindex' }] })
const ways = waysOf('en-GB')
const { busy, trouble, act } = useAct()
/** What was just answered; the form gives way to it. */
const said = ref<'holds' | 'waits' | null>(null)
const again = ref(false)
const order = computed(() => data.value ?? null)
const sentence = computed(() => {
  const o = order.value
  if (o === null) return ''
  if (o.state === 'over') return `is over: nothing is to be answered any more.`
  if (o.state === 'holds') return 'is answered. Thank you.'
  if (o.state === 'waits') return `is answered; ${o.buyer} looks at what is otherwise.`
  return 'is yours to answer: do you deliver as ordered?'
})
const isOpen = computed(
  () => order.value !== null && (order.value.state === 'open' || (order.value.state === 'waits' && again.value)),
)
async function answer(given: { by: string; note: string; lines: LineWish[] }): Promise<void> {
  const revision = order.value?.revision ?? 0
  await act(async () => {
    const done = await api.post('/api/order-answers/{key}', { params: { key }, body: { revision, ...given } })
    said.value = done.outcome
    again.value = false
  })
  await refresh()
}
/** What its net is made of, where that is more than its lines. */
const parts = computed(() =>
  order.value === null
    ? ''
    : rowsOfParts(order.value, ways)
        .map((row) => `${row.says}: ${ways.amount(row.amount)}`)
        .join('; '),
)
const isRefused = (l: { is: LineWish | null }) => l.is !== null && dec(l.is.quantity).isZero()
const promised = computed(() => {
  const o = order.value
  return o?.lines.map((l) => ({ ...l, is: o.answer?.lines.find((a) => a.lineId === l.id) ?? null })) ?? []
})
</script>

<template>
  <main
    id="page"
    tabindex="-1"
    :class="[
      'mx-auto my-6 max-w-[940px] rounded border border-strong bg-sheet px-8 py-7 outline-none',
      'max-[700px]:m-0 max-[700px]:min-h-dvh max-[700px]:border-0 max-[700px]:px-5',
    ]"
  >
    <template v-if="error">
      <h1 class="sentence">This address opens no order.</h1>
      <p class="mt-2 max-w-[60ch] text-ink2">
        {{ error.statusCode === 404 ? 'It may have been cut off in the mail: copy all of it.' : sayError(error) }}
        Whoever sent you the order can send it once more.
      </p>
    </template>
    <template v-else-if="order">
      <p class="small mb-1">{{ order.organisation }} to {{ order.supplier }}</p>
      <h1 class="sentence">
        {{ order.calledFrom ? 'Call-off' : 'Purchase order' }} <b>{{ order.number }}</b><template
          v-if="order.revision > 0"
          >, revision {{ order.revision }},</template
        >
        {{ sentence }}
      </h1>
      <p class="mt-2 max-w-[74ch] text-ink2">
        For {{ ways.money(order.net) }} without tax<template v-if="parts !== ''"> ({{ parts }})</template>, to be
        delivered to {{ order.shipTo }}. {{ capital(order.terms) }}.
        <template v-if="order.calledFrom"
          >It is called off of our blanket order <b>{{ order.calledFrom }}</b>.
        </template>
        <template v-if="order.placedAs"
          >It confirms what was ordered already as <b>{{ order.placedAs }}</b>: please do not deliver it twice.
        </template>
        Questions: {{ order.buyer
        }}<template v-if="order.buyerEmail"
          >,
          <a class="quiet-link" :href="`mailto:${order.buyerEmail}?subject=${order.number}`">{{
            order.buyerEmail
          }}</a></template
        >.
      </p>
      <p v-if="order.answer?.outcome === 'declined' && order.state === 'open'" class="notice-amber mt-3">
        {{ order.buyer }} does not agree to what {{ order.answer.by }} answered: “{{ order.answer.said }}” Please answer
        anew.
      </p>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <template v-if="isOpen">
        <AnswerForm
          class="mt-4"
          :order="order"
          :begun="order.answer?.lines ?? null"
          :by="order.answer?.by ?? ''"
          :note="order.answer?.note ?? ''"
          :today="order.today"
          :heard="false"
          :busy="busy"
          @answer="answer"
        >
          <template #default="{ words, send, missing }">
            <div class="mt-4 max-w-[420px]">
              <MainAction :missing="missing" :busy="busy" @press="send">{{ words }}</MainAction>
              <p class="small mt-2">
                What is as ordered holds at once; what is not waits for {{ order.buyer }}. You can answer anew until
                then.
              </p>
            </div>
          </template>
        </AnswerForm>
      </template>
      <template v-else-if="order.state !== 'over'">
        <p v-if="said" class="notice-green mt-3" role="status">
          {{
            said === 'holds'
              ? 'Thank you: the order is acknowledged.'
              : `Thank you: ${order.buyer} is told and will answer you.`
          }}
        </p>
        <table class="table mt-4">
          <caption class="sr-only">
            What was answered
          </caption>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col" class="num">How many</th>
              <th scope="col" class="num">Price in {{ order.currency }}</th>
              <th scope="col" class="pl-3!">By when</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in promised" :key="l.id">
              <td class="font-semibold" :class="isRefused(l) ? 'text-ink3 line-through' : ''">{{ l.description }}</td>
              <td v-if="isRefused(l)" colspan="3" class="num">does not come</td>
              <template v-else>
                <td class="num">{{ ways.quantity(l.is?.quantity ?? l.quantity, l.unit) }}</td>
                <td class="num">{{ ways.price(l.is?.unitPrice ?? l.unitPrice, order.currency) }}</td>
                <td class="pl-3!">{{ ways.date(l.is?.needBy ?? l.needBy, order.today) }}</td>
              </template>
            </tr>
          </tbody>
        </table>
        <p v-if="order.answer" class="mt-2 text-ink2">
          Answered by {{ order.answer.by }}{{ order.answer.note === '' ? '.' : `: “${order.answer.note}”` }}
        </p>
        <button v-if="order.state === 'waits'" type="button" class="action mt-3" @click="again = true">
          Answer it anew
        </button>
        <p v-else class="small mt-2">If something has changed since, write to {{ order.buyer }}.</p>
      </template>
    </template>
  </main>
</template>
