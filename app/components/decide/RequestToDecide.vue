<script setup lang="ts">
import type { RequestDecision } from '#shared/contract/decide'
import { formatCount, formatSize } from '#shared/words/format'
import { sayMarks } from '#shared/words/marks'
import { sayLineSource } from '#shared/words/request-line'
import PriceMemory from '~/components/decide/PriceMemory.vue'
import SaidSoFar from '~/components/decide/SaidSoFar.vue'
import { useWording } from '~/composables/base/use-wording'

/** A request that is decided on: who asks for what and why, line by line beside what was paid, and what was said. */
const props = defineProps<{ doc: RequestDecision }>()
// It comes when something is looked at.
const AttachmentPreview = defineAsyncComponent(() => import('~/components/base/AttachmentPreview.vue'))
const QuotesBeside = defineAsyncComponent(() => import('~/components/decide/QuotesBeside.vue'))
const quotes = computed(() => props.doc.attachments.filter((a) => a.kind === 'quote'))
const isComparing = ref(false)
const looking = shallowRef<{ id: string; name: string; mime: string } | null>(null)
/** What has no notice of its own below. */
const marks = computed(() => sayMarks(props.doc.marks.filter((m) => m !== 'over budget' && m !== 'may be a part')))
const wording = useWording()
</script>

<template>
  <div>
    <h1 class="sentence">
      <b>{{ doc.owner }}</b> asks for <b>{{ wording.money(doc.amount) }}</b> for <b>{{ doc.department }}</b>, by
      {{ doc.needBy === null ? 'no day' : wording.day(doc.needBy) }}, because {{ doc.why.replace(/\.$/, '') }}.
    </h1>
    <p class="mt-1.5 text-ink2">
      <NuxtLink class="quiet-link" :to="`/trail/${doc.id}`">{{ doc.number }}</NuxtLink> · sent
      <time :datetime="doc.sentAt" :title="wording.exact(doc.sentAt)">{{ wording.moment(doc.sentAt) }}</time> · to
      {{ doc.delivery.join(', ') }}<template v-if="doc.forName"> · you decide for {{ doc.forName }}</template>
      <template v-for="t in doc.tax" :key="t.currency"> · {{ wording.money(t.total) }} with tax</template>
    </p>
    <p v-if="doc.besides.length > 0" class="small mt-1">
      {{ [...(doc.kind === 'goods' ? [] : [doc.kind]), ...doc.besides].join(' · ') }}
    </p>
    <p v-if="doc.noteInternal" class="mt-2"><span class="text-ink3">For colleagues:</span> {{ doc.noteInternal }}</p>
    <p v-if="doc.justification" class="mt-2"><span class="text-ink3">Justification:</span> {{ doc.justification }}</p>
    <p v-if="marks !== ''" class="mt-2"><span class="text-ink3">Look twice:</span> {{ marks }}</p>
    <p v-if="doc.overBudgetReason" class="notice-amber mt-3">
      It passes the budget, because {{ doc.overBudgetReason }}
    </p>
    <div v-if="doc.split" class="notice-amber mt-3">
      <p class="font-semibold">It may be a part of something larger</p>
      <p>{{ doc.split.sentence }}</p>
      <ul>
        <li v-for="o in doc.split.others" :key="`${o.title} ${o.day} ${o.amount.amount}`">
          <NuxtLink v-if="o.id" class="quiet-link" :to="`/trail/${o.id}`">{{ o.number }}</NuxtLink>{{ o.id ? ', ' : ''
          }}{{ o.title }}, sent {{ wording.shortDay(o.day) }}, {{ wording.money(o.amount) }}
        </li>
        <li v-if="doc.split.more > 0">and {{ formatCount(doc.split.more, 'earlier one', 'earlier ones') }}</li>
      </ul>
    </div>
    <div v-if="doc.changes.length > 0" class="mt-3" :class="doc.mine ? 'notice-amber' : 'text-ink2'">
      <p class="font-semibold">Changed since it was last sent</p>
      <ul>
        <li v-for="c in doc.changes" :key="c">{{ c }}</li>
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
          <th scope="col" class="pl-3!">Beside what was paid</th>
          <th scope="col" class="num">Amount</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in doc.lines" :key="l.id" class="folded">
          <td>
            <span class="block font-semibold">{{ l.description }}</span><span
              v-if="l.more.length > 0"
              class="small block"
              >{{ l.more.join(' · ') }}</span
            ><span class="small block">{{ sayLineSource(l) }}</span>
          </td>
          <td class="num max-[700px]:order-3 max-[700px]:text-left!">{{ wording.quantity(l.quantity, l.unit) }}</td>
          <td class="num max-[700px]:order-4">
            {{ wording.price(l.unitPrice ?? '0', l.currency)
            }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span
            ><span v-if="l.listPrice" class="small block">catalogue {{ wording.price(l.listPrice, l.currency) }}</span>
          </td>
          <td class="pl-3! max-[700px]:order-5 max-[700px]:col-span-2 max-[700px]:pl-0.5!">
            <PriceMemory :unit-price="l.unitPrice ?? '0'" :paid="l.paid" />
          </td>
          <td class="num font-medium">
            <span v-if="l.currency !== doc.amount.currency" class="text-ink3">{{ l.currency }} </span>{{
              l.net === null ? '–' : wording.amount(l.net)
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <!-- What is changed of them while approving. -->
    <slot />
    <div v-if="doc.attachments.length > 0" class="mt-4 flex flex-wrap gap-2">
      <button
        v-for="a in doc.attachments"
        :key="a.id"
        type="button"
        class="inline-flex items-center gap-2 rounded border border-edge px-2.5 py-1 hover:border-ink"
        @click="looking = a"
      >
        {{ a.name }} <span class="small">{{ a.kind }}, {{ formatSize(a.size) }}</span>
      </button>
      <button v-if="quotes.length > 0" type="button" class="quiet-link" @click="isComparing = true">
        {{ quotes.length === 1 ? 'The quote' : 'The quotes' }} beside the lines
      </button>
      <QuotesBeside v-if="isComparing" :doc="doc" :quotes="quotes" @close="isComparing = false" />
      <AttachmentPreview
        v-if="looking"
        :attachment="looking"
        :address="`/api/requisitions/${doc.id}/attachments/${looking.id}`"
        @close="looking = null"
      />
    </div>
    <template v-if="doc.similar.length > 0">
      <h2 class="head mb-1 mt-6">Asked for lately by {{ doc.department }}</h2>
      <ul>
        <li
          v-for="s in doc.similar"
          :key="s.id"
          class="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1.5"
        >
          <span class="min-w-0"
            ><NuxtLink class="quiet-link" :to="`/trail/${s.id}`">{{ s.number }}</NuxtLink> {{ s.title }}
            <span class="small">{{ s.owner }}, {{ wording.shortDay(s.day) }}</span></span
          >
          <span class="num">{{ wording.kept(s.amount.amount, s.amount.currency) }}</span>
        </li>
      </ul>
    </template>
    <SaidSoFar :remarks="doc.remarks" />
  </div>
</template>
