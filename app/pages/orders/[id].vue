<script setup lang="ts">
import type { LineWish } from '#core/order/change'
import { sayPlaced } from '#shared/words/conditions'
import { capital } from '#shared/words/format'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import AnswerForm from '~/components/order/AnswerForm.vue'
import AnswerWaits from '~/components/order/AnswerWaits.vue'
import CalledOff from '~/components/order/CalledOff.vue'
import ChangeWaits from '~/components/order/ChangeWaits.vue'
import DirectFacts from '~/components/order/DirectFacts.vue'
import OrderLines from '~/components/order/OrderLines.vue'
import SentStates from '~/components/order/SentStates.vue'
import SupplierAnswers from '~/components/order/SupplierAnswers.vue'
import TalkLog from '~/components/order/TalkLog.vue'
import { useAct } from '~/composables/base/use-act'
import { ApiProblem, useApi } from '~/composables/base/use-api'
import { usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'

const api = useApi()
const route = useRoute()
const wording = useWording()
const id = String(route.params.id)
/** The order; or where it is while it is not issued: with its buyer, or with whoever decides on it. */
const { data, error, refresh } = await useAsyncData(`order-${id}`, async () => {
  try {
    return { order: await api.get('/api/orders/{id}', { params: { id } }), to: null }
  } catch (e) {
    if (!(e instanceof ApiProblem) || e.status !== 409) throw e
    return { order: null, to: e.kind.endsWith('on-the-desk') ? '/desk' : `/decide/${id}` }
  }
})
if (error.value || !data.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
if (data.value.to !== null) await navigateTo(data.value.to, { replace: true })
const order = computed(() => data.value?.order ?? null)
useHead({ title: () => `${order.value?.number ?? 'Order'} · Rekko` })
useLive((changes) => {
  if (changes.some((c) => c.kind === 'again' || c.id === id)) void refresh()
})
const served = computed(() => [
  ...new Map((order.value?.lines ?? []).flatMap((l) => l.sources.map((s) => [s.requisitionId, s.number] as const))),
])
const first = computed(() => (order.value?.lines ?? []).map((l) => l.needBy).sort()[0] ?? '')
// It comes when somebody changes it.
const ChangeOrder = defineAsyncComponent(() => import('~/components/order/ChangeOrder.vue'))
const { busy, trouble, act } = useAct()
const writing = ref(false)
// It comes when somebody calls a part of it off.
const CallOff = defineAsyncComponent(() => import('~/components/order/CallOff.vue'))
const calling = ref(false)
const DrawChoice = defineAsyncComponent(() => import('~/components/order/DrawChoice.vue'))
/** It is being said on which agreement it draws. */
const drawing = ref(false)
const said = ref('')
const mayBegin = computed(
  () => order.value?.mayChange === true && (order.value.change === null || order.value.change.state === 'draft'),
)
function beginCall(): void {
  said.value = ''
  calling.value = true
}
function begin(): void {
  said.value = ''
  writing.value = true
}
async function changed(words: string): Promise<void> {
  writing.value = false
  calling.value = false
  drawing.value = false
  said.value = words
  await refresh()
}
/** What the supplier said by telephone or letter is being typed in. */
const hearing = ref(false)
const waitingAnswer = computed(() => order.value?.answers.find((a) => a.outcome === 'waits') ?? null)
async function answered(words: string): Promise<void> {
  said.value = words
  await refresh()
}
const typeIn = (given: { by: string; note: string; lines: LineWish[] }) =>
  act(async () => {
    const { outcome } = await api.post('/api/orders/{id}/answers', {
      params: { id },
      body: { revision: order.value?.revisions[0]?.revision ?? 0, ...given },
      version: order.value?.version ?? 0,
      key: crypto.randomUUID(),
    })
    hearing.value = false
    await answered(outcome === 'holds' ? 'The order is acknowledged.' : 'Their answer waits for your yes.')
  })
const make = (changeId: string) =>
  act(async () => {
    await api.post('/api/order-changes/{id}/making', { params: { id: changeId }, key: crypto.randomUUID() })
    await refresh()
  })
const throwAway = (changeId: string) =>
  act(async () => {
    await api.remove('/api/order-changes/{id}', { params: { id: changeId } })
    await refresh()
  })
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'send the change' }], () => undefined)
</script>

<template>
  <div v-if="order">
    <PageNote
      >{{ order.number }} · {{ order.state
      }}<template v-if="!order.calledFrom">
        ·
        <NuxtLink class="quiet-link" :to="`/raise?order=${id}`">ask for the same again</NuxtLink></template
      ></PageNote
    >
    <CallOff
      v-if="calling && order.blanket"
      :order="order"
      :blanket="order.blanket"
      @called="changed"
      @leave="calling = false"
    />
    <ChangeOrder v-else-if="writing" :order="order" @changed="changed" @leave="writing = false" />
    <SheetPage v-else>
      <h1 class="sentence">
        <b>{{ order.number }}</b> to <b>{{ order.supplier }}</b> for <b>{{ wording.money(order.net) }}</b>,
        <template v-if="order.blanket">called off in parts until {{ wording.day(order.blanket.expiresOn) }}.</template
        ><template v-else>delivered to {{ order.shipTo }} by {{ wording.day(first) }}.</template>
      </h1>
      <p v-if="order.calledFrom" class="mt-1.5 font-medium">
        Called off of
        <NuxtLink class="quiet-link" :to="`/orders/${order.calledFrom.id}`">{{ order.calledFrom.number }}</NuxtLink>,
        which holds its money.
      </p>
      <p class="mt-1.5 text-ink2">
        issued
        <time :datetime="order.issuedAt" :title="wording.exact(order.issuedAt)">{{
          wording.moment(order.issuedAt)
        }}</time>
        by {{ order.buyer }} · {{ order.terms }} · {{ [order.shipToAddress, ...order.deliveryDetails].join(' · ') }}
      </p>
      <DirectFacts v-if="order.direct" class="mt-3" :direct="order.direct" :order-id="order.id" />
      <p v-if="order.placedAs" class="mt-1.5 font-medium">{{ capital(sayPlaced(order, order.supplier)) }}.</p>
      <p v-if="order.state === 'cancelled'" class="notice-amber mt-3">
        It is cancelled: nothing of it is to be delivered, and no money is held for it.
      </p>
      <ChangeWaits
        v-if="order.change"
        :change="order.change"
        :may-act="order.mayChange"
        :busy="busy"
        @anew="begin"
        @make="make(order.change.id)"
        @throw="throwAway(order.change.id)"
      />
      <AnswerWaits
        v-if="waitingAnswer && order.mayChange && !order.change && !hearing"
        :order="order"
        :answer="waitingAnswer"
        @done="answered"
      />
      <p v-else-if="waitingAnswer && !order.mayChange" class="notice-amber mt-3">
        {{ order.supplier }} answered otherwise than it was ordered; {{ order.buyer }} says whether that is taken.
      </p>
      <section v-if="hearing" class="mt-4" aria-label="What the supplier said">
        <h2 class="head mb-1">What {{ order.supplier }} said</h2>
        <AnswerForm
          :order="order"
          :begun="waitingAnswer?.lines ?? null"
          :by="waitingAnswer?.by ?? ''"
          :note="waitingAnswer?.note ?? ''"
          :today="wording.today.value"
          heard
          :busy="busy"
          @answer="typeIn"
        >
          <template #default="{ words, send, missing }">
            <p class="mt-3 flex flex-wrap gap-2">
              <button type="button" class="action" :data-missing="missing" :aria-busy="busy" @click="send">
                {{ words }}
              </button>
              <button type="button" class="action" @click="hearing = false">Leave it</button>
            </p>
          </template>
        </AnswerForm>
      </section>
      <OrderLines v-else class="mt-4" :order="order" />
      <CalledOff v-if="order.blanket && !hearing" :blanket="order.blanket" :currency="order.currency" />
      <p v-if="order.note" class="mt-4 whitespace-pre-line">
        <span class="text-ink3">To the supplier:</span> {{ order.note }}
      </p>
      <section v-if="order.internalNotes.length > 0" class="mt-4">
        <h2 class="head mb-1">For colleagues only</h2>
        <p v-for="(n, i) in order.internalNotes" :key="i" class="text-ink2">{{ n.number }}: {{ n.note }}</p>
      </section>
      <template #margin>
        <SentStates :order="order" @sent="refresh()" />
        <SupplierAnswers
          v-if="order.state !== 'cancelled' || order.answers.length > 0"
          :order="order"
          :may-act="order.mayChange"
          @typing="hearing = true"
          @done="answered"
        />
        <TalkLog
          v-if="order.mayNote || order.talks.length > 0"
          :order="order"
          :may-note="order.mayNote"
          @noted="refresh()"
        />
        <template v-if="order.agreement || order.mayDraw">
          <h2 class="head mb-1 mt-5">On what it draws</h2>
          <p>
            <NuxtLink v-if="order.agreement" class="quiet-link" :to="`/agreements/${order.agreement.id}`"
              >agreement {{ order.agreement.number }}</NuxtLink
            ><template v-else>no agreement</template>
            <button
              v-if="order.mayDraw && order.state !== 'cancelled'"
              type="button"
              class="quiet-link small ml-3 min-h-6"
              @click="drawing = true"
            >
              {{ order.agreement ? 'draw on another, or none' : 'draw on one' }}
            </button>
          </p>
        </template>
        <template v-if="order.run">
          <h2 class="head mb-1 mt-5">Made by itself</h2>
          <p class="text-ink2">
            in the name of {{ order.buyer }}, by
            <NuxtLink class="quiet-link" :to="`/orders/runs/${order.run.id}`">“{{ order.run.rule }}”</NuxtLink>
          </p>
        </template>
        <h2 class="head mb-1.5 mt-5">What it serves</h2>
        <p v-if="order.calledFrom" class="text-ink2">
          what
          <NuxtLink class="quiet-link" :to="`/orders/${order.calledFrom.id}`">{{ order.calledFrom.number }}</NuxtLink>
          serves
        </p>
        <p v-else-if="order.direct" class="text-ink2">
          no request: {{ order.direct.for }}, {{ order.direct.department }}
        </p>
        <p v-else class="text-ink2">
          {{ served.length === 1 ? 'one request' : `${served.length} requests` }}:
          <template v-for="([rid, number], i) in served" :key="rid"
            ><template v-if="i > 0">, </template
            ><NuxtLink class="quiet-link" :to="`/trail/${rid}`">{{ number }}</NuxtLink></template
          >
        </p>
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2" role="alert">{{ trouble }}</p>
        <p v-if="said" class="small mb-2" role="status">{{ said }}</p>
        <button v-if="order.blanket?.mayCall" type="button" class="main-action" @click="beginCall">
          <span>Call a part of it off</span>
        </button>
        <a
          v-if="order.revisions[0]?.hasPdf && !order.blanket?.mayCall"
          class="main-action"
          :href="`/api/orders/${order.id}/pdf`"
          ><span>{{ order.isSent ? 'Keep the PDF as it was sent' : 'Keep its PDF' }}</span></a
        >
        <p v-else-if="!order.revisions[0]?.hasPdf" class="text-ink2">Its PDF is being made.</p>
        <button v-if="mayBegin" type="button" class="action mt-2" @click="begin">Change or cancel it</button>
        <p v-else-if="!order.mayChange && order.state !== 'cancelled'" class="small mt-2">
          {{ order.buyer }} may change or cancel it.
        </p>
      </template>
    </SheetPage>
    <DrawChoice
      v-if="drawing"
      :order-id="order.id"
      :version="order.version"
      :supplier="order.supplier"
      @said="changed('It is counted on that from now on; its papers stay as they were sent.')"
      @close="drawing = false"
    />
  </div>
</template>
