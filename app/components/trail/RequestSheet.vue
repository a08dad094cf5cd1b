<script setup lang="ts">
import type { RequestView } from '#shared/contract/request-view'
import { sayLineSource } from '#shared/words/request-line'
import { useWording } from '~/composables/base/use-wording'

/** The request itself, in place on its trail: why, where to, and its lines with prices and who pays. */
const props = defineProps<{ request: RequestView; currency: string }>()
const wording = useWording()
const besides = computed(() => [
  ...(props.request.kind === '' || props.request.kind === 'goods' ? [] : [props.request.kind]),
  ...props.request.besides,
])
const foreign = (currency: string) => (currency === props.currency ? '' : `${currency} `)
</script>

<template>
  <section class="mt-6">
    <h2 class="head">What was asked for</h2>
    <p class="mt-1 text-ink2">
      <template v-if="request.why">Because {{ request.why.replace(/\.$/, '') }} · </template
      ><template v-if="request.needBy">by {{ wording.day(request.needBy) }} · </template>{{ request.department
      }}<template v-if="request.delivery.length > 0"> · to {{ request.delivery.join(', ') }}</template>
    </p>
    <p v-if="besides.length > 0" class="small mt-1">{{ besides.join(' · ') }}</p>
    <p v-if="request.justification" class="mt-1">
      <span class="text-ink3">Justification:</span> {{ request.justification }}
    </p>
    <p v-if="request.overBudgetReason" class="mt-1">
      <span class="text-ink3">Past the budget, because</span> {{ request.overBudgetReason }}
    </p>
    <p v-if="request.noteInternal" class="mt-1">
      <span class="text-ink3">For colleagues:</span> {{ request.noteInternal }}
    </p>
    <table v-if="request.lines.length > 0" class="table mt-2">
      <caption class="sr-only">
        Lines that were asked for
      </caption>
      <thead class="max-[700px]:sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col" class="num">How many</th>
          <th scope="col" class="num">Price</th>
          <th scope="col" class="num">Amount</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in request.lines" :key="l.id" class="folded">
          <td class="max-[700px]:col-span-2">
            <span class="block">{{ l.description }}</span><span v-if="l.more.length > 0" class="small block">{{
              l.more.join(' · ')
            }}</span
            ><span class="small block">{{ sayLineSource(l) }}</span>
          </td>
          <td class="num max-[700px]:text-left!">
            {{ wording.quantity(l.quantity, l.unit)
            }}<span v-if="l.ordered !== '0'" class="small block">{{ wording.decimal(l.ordered) }} ordered</span
            ><span v-if="l.cancelled !== '0'" class="small block">{{ wording.decimal(l.cancelled) }} cancelled</span>
          </td>
          <td class="num max-[700px]:hidden">
            {{ l.unitPrice === null ? '–' : wording.price(l.unitPrice, l.currency)
            }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span>
          </td>
          <td class="num">{{ l.net === null ? '–' : `${foreign(l.currency)}${wording.amount(l.net)}` }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="t in request.tax" :key="t.currency" class="small mt-1.5 text-right">
      {{ wording.money(t.net) }} without tax, {{ wording.money(t.total) }} with it
    </p>
  </section>
</template>
