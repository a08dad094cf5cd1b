<script setup lang="ts">
import { compare, subtract } from '#core/base/money'
import type { OrderDecision } from '#shared/contract/decide'
import { sayPlaced } from '#shared/words/conditions'
import { capital } from '#shared/words/format'
import AnswerBox from '~/components/decide/AnswerBox.vue'
import SaidSoFar from '~/components/decide/SaidSoFar.vue'
import DirectFacts from '~/components/order/DirectFacts.vue'
import PartsOfNet from '~/components/order/PartsOfNet.vue'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** An order that is decided on: to whom, for how much, why its buyer asks, and each line beside its approval. */
const props = defineProps<{ doc: OrderDecision }>()
const emit = defineEmits<{ answered: [] }>()
const session = useSessionStore()
const wording = useWording()
/** What one is asked oneself, as its buyer or besides. */
const toMe = computed(() =>
  props.doc.remarks.filter(
    (r) => r.kind === 'question' && !r.answered && (r.toId ?? props.doc.ownerId) === session.me?.id,
  ),
)
/** Each line stands beside what was approved of it: of a change, and of a direct order, nothing was. */
const hasApprovals = computed(() => props.doc.change === null && props.doc.direct === null)
const first = computed(() => props.doc.lines.map((l) => l.needBy).sort()[0] ?? '')
/** How much a line comes to above what was approved of it; null where it does not, or nobody knows any more. */
const above = ({ approved, ordered }: OrderDecision['lines'][number]) =>
  approved === null || ordered === null || compare(ordered, approved) <= 0 ? null : subtract(ordered, approved)
</script>

<template>
  <div>
    <h1 v-if="doc.change" class="sentence">
      <b>{{ doc.owner }}</b> wants to {{ doc.change.isCancellation ? 'cancel' : 'change' }} <b>{{ doc.number }}</b> to
      <b>{{ doc.supplier }}</b><template v-if="!doc.change.isCancellation"
        >, which then comes to <b>{{ wording.money(doc.net) }}</b></template
      >.
    </h1>
    <h1 v-else class="sentence">
      <b>{{ doc.owner }}</b> wants to order for <b>{{ wording.money(doc.net) }}</b> from
      <b>{{ doc.supplier }}</b><template v-if="doc.calledOffUntil"
        >, called off in parts until {{ wording.day(doc.calledOffUntil) }}</template
      ><template v-else-if="first">, delivered to {{ doc.shipTo }} by {{ wording.day(first) }}</template
      >.
    </h1>
    <p class="mt-1.5 text-ink2">
      <NuxtLink v-if="doc.number" class="quiet-link" :to="`/orders/${doc.orderId}`">{{ doc.number }}</NuxtLink><template
        v-else
        >not issued yet</template
      >
      · {{ doc.terms }} · {{ wording.money(doc.total) }} with tax<template v-if="doc.forName">
        · you decide for {{ doc.forName }}</template
      ><template v-if="doc.issuesItself && doc.number === null">
        · it is issued as soon as nobody is left to decide</template
      >
    </p>
    <DirectFacts v-if="doc.direct" class="mt-3" :direct="doc.direct" :order-id="doc.orderId" />
    <p v-if="doc.placedAs" class="mt-1.5 font-medium">{{ capital(sayPlaced(doc, doc.supplier)) }}.</p>
    <div v-if="doc.change" class="mt-3 border-l-2 border-strong pl-3">
      <p class="font-semibold">“{{ doc.change.reason }}”</p>
      <ul>
        <li v-for="d in doc.change.differences" :key="d">{{ d }}</li>
      </ul>
    </div>
    <div v-if="doc.why.length > 0" class="notice-amber mt-3">
      <p class="font-semibold">Why it is asked</p>
      <ul>
        <li v-for="w in doc.why" :key="w">{{ w }}</li>
      </ul>
    </div>
    <table class="table mt-3">
      <caption class="sr-only">
        Lines
      </caption>
      <thead class="max-[700px]:sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col" class="num">How many</th>
          <th scope="col" class="num">Price</th>
          <th v-if="hasApprovals" scope="col" class="pl-3!">Approved for it</th>
          <th scope="col" class="num">Amount</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(l, i) in doc.lines" :key="i" class="folded">
          <td>
            <span class="block font-semibold">{{ l.description }}</span><span class="small block"
              >for
              <template v-for="(a, at) in l.asked" :key="a.number"
                ><template v-if="at > 0">, </template
                ><NuxtLink v-if="a.id" class="quiet-link" :to="`/trail/${a.id}`">{{ a.number }}</NuxtLink
                ><template v-else>{{ a.number }}</template
                >{{ a.asker === '' ? '' : a.number === '' ? a.asker : ` of ${a.asker}` }}</template
              ></span
            >
          </td>
          <td class="num max-[700px]:order-3 max-[700px]:text-left!">{{ wording.quantity(l.quantity, l.unit) }}</td>
          <td class="num max-[700px]:order-4">
            {{ wording.price(l.unitPrice, doc.currency)
            }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span>
          </td>
          <td v-if="hasApprovals" class="pl-3! max-[700px]:order-5 max-[700px]:col-span-2 max-[700px]:pl-0.5!">
            <template v-if="l.approved"
              >{{ wording.money(l.approved)
              }}<b v-if="above(l)" class="block font-medium text-amber-ink"
                >{{ wording.amount(above(l) ?? l.approved) }} more</b
              ></template
            >
          </td>
          <td class="num font-medium">{{ wording.amount(l.net) }}</td>
        </tr>
      </tbody>
    </table>
    <PartsOfNet :parts="doc" />
    <p class="mt-2 flex justify-end gap-6 font-semibold">
      <span>{{ doc.currency }}, without tax</span><span class="num w-24">{{ wording.amount(doc.net) }}</span>
    </p>
    <SaidSoFar :remarks="doc.remarks" />
    <AnswerBox v-if="toMe.length > 0" :document-id="doc.id" :questions="toMe" @answered="emit('answered')" />
  </div>
</template>
