<script setup lang="ts">
import { isNegative, isZero } from '#core/base/money'
import type { ProposedOrderView } from '#shared/contract/proposal'
import { formatCount } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

/** An order that Rekko would make, as a row of a table: whether it is taken, what it is worth, what it saves. */
const props = defineProps<{ order: ProposedOrderView; base: string; taken: boolean }>()
const emit = defineEmits<{ take: [taken: boolean] }>()
const wording = useWording()
const isOpen = ref(false)
const amount = (m: ProposedOrderView['net']) => (m.currency === props.base ? wording.amount(m) : wording.money(m))
const marks = computed(() => [
  ...(props.order.belowMinimum === null
    ? []
    : [`below the supplier’s minimum of ${wording.kept(props.order.belowMinimum.amount, props.order.currency)}`]),
  ...(props.order.isAboveLimit ? ['more than you may order alone: it has to be decided on'] : []),
  ...(props.order.isOwnNeed ? ['your own need alone: another buyer has to issue it'] : []),
])
</script>

<template>
  <tbody>
    <tr class="folded max-[700px]:grid-cols-[28px_minmax(0,1fr)_auto]!">
      <td>
        <input
          type="checkbox"
          class="size-4 align-[-2px] accent-[var(--green)]"
          :aria-label="`Take the order to ${order.supplier} for ${order.shipTo}`"
          :checked="taken"
          @change="emit('take', ($event.target as HTMLInputElement).checked)"
        />
      </td>
      <td class="max-[700px]:col-span-2">
        <span class="font-medium">{{ order.supplier }}</span><span class="small block"
          >to {{ order.shipTo }}<template v-if="order.department">, for {{ order.department }}</template
          ><template v-if="order.agreement">, drawing on {{ order.agreement }}</template></span
        ><span v-for="m in marks" :key="m" class="small block text-amber-ink">{{ m }}</span>
      </td>
      <td class="max-[700px]:col-start-2">
        <button
          type="button"
          class="quiet-link -my-0.5 min-h-6 text-left"
          :aria-expanded="isOpen"
          @click="isOpen = !isOpen"
        >
          {{ formatCount(order.lines.length, 'line', 'lines') }}
        </button>
        <span class="small block">{{ formatCount(order.requests.length, 'request', 'requests') }}</span>
      </td>
      <td class="whitespace-nowrap max-[700px]:text-right!">{{ wording.shortDay(order.needBy) }}</td>
      <td class="num max-[700px]:col-start-2 max-[700px]:text-left!">
        {{ amount(order.net)
        }}<span v-if="!isZero(order.freight)" class="small block"
          >with {{ wording.amount(order.freight) }} freight</span
        >
      </td>
      <td class="num" :class="isZero(order.saved) ? '' : isNegative(order.saved) ? 'text-red' : 'text-green'">
        <template v-if="isZero(order.saved)">–</template
        ><template v-else><span class="min-[700px]:hidden">saves </span>{{ amount(order.saved) }}</template>
      </td>
    </tr>
    <tr v-if="isOpen" class="max-[700px]:block">
      <td class="max-[700px]:hidden!" />
      <td colspan="5" class="max-[700px]:block">
        <ul>
          <li
            v-for="(l, i) in order.lines"
            :key="i"
            :class="[
              'grid grid-cols-[minmax(0,1fr)_auto_110px_90px] items-baseline gap-x-4 py-0.5',
              'max-[700px]:grid-cols-[minmax(0,1fr)_auto_70px]',
            ]"
          >
            <span class="min-w-0"
              >{{ l.description
              }}<span v-if="l.requests > 1" class="text-ink2"
                >, from {{ formatCount(l.requests, 'request', 'requests') }}</span
              ></span
            ><span class="num">{{ wording.quantity(l.quantity, l.unit) }}</span
            ><span class="num text-ink2 max-[700px]:hidden"
              >at {{ wording.price(l.unitPrice, order.currency)
              }}<template v-if="l.priceBase !== '1'"> per {{ l.priceBase }}</template></span
            ><span class="num">{{ wording.amount(l.net) }}</span>
          </li>
        </ul>
        <p class="small mt-1">
          For
          <template v-for="(r, i) in order.requests" :key="r.id"
            >{{ i === 0 ? '' : ', '
            }}<NuxtLink class="quiet-link" :to="`/trail/${r.id}`">{{ r.number }}</NuxtLink></template
          >
        </p>
      </td>
    </tr>
  </tbody>
</template>
