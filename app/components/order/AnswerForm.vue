<script setup lang="ts">
import { dec } from '#core/base/decimal'
import { wishesOf } from '#core/order/answer'
import type { LineWish } from '#core/order/change'
import { listWords } from '#shared/words/format'
import BlankDay from '~/components/base/BlankDay.vue'
import { useWording } from '~/composables/base/use-wording'
import { useTypedLines, type WrittenLine } from '~/composables/order/use-typed-lines'

/** What a supplier says to an order, line by line: it begins as everything was ordered, or as was answered before. */
type Line = WrittenLine & {
  readonly description: string
  readonly supplierPart: string | null
  readonly unit: string
  readonly priceBase: string
}
const props = defineProps<{
  order: { readonly lines: readonly Line[]; readonly currency: string }
  begun: readonly LineWish[] | null
  by: string
  note: string
  today: string
  /** Whose words stand there: the supplier's own, or what the buyer heard. */
  heard: boolean
  busy: boolean
}>()
const emit = defineEmits<{ answer: [given: { by: string; note: string; lines: LineWish[] }] }>()
const wording = useWording()
const ordered = props.order.lines.filter((l) => !dec(l.quantity).isZero())
const form = useTypedLines({ lines: ordered, currency: props.order.currency }, props.begun, null)
const { typedOf, write, sayWrong, isOff, lines, wrong } = form
const by = ref(props.by)
const note = ref(props.note)
const root = useTemplateRef<HTMLElement>('root')
/** What is not as it was ordered. */
const differs = computed(() => wishesOf(ordered, lines.value))
const words = computed(() => {
  if (wrong.value.length > 0) return 'Mend what cannot be read'
  if (by.value.trim() === '') return props.heard ? 'Say who told you' : 'Say your name'
  if (differs.value.length === 0) return props.heard ? 'All comes as ordered' : 'Yes, we deliver as ordered'
  if (ordered.every(isOff)) return props.heard ? 'They refuse the order' : 'Refuse the order'
  const what = [
    ...(differs.value.some((w) => dec(w.quantity).isZero()) ? ['lines that do not come'] : []),
    ...(differs.value.some((w) => w.needBy > (ordered.find((l) => l.id === w.lineId)?.needBy ?? ''))
      ? ['later days']
      : []),
  ]
  return `${props.heard ? 'Keep' : 'Send'} this answer${what.length === 0 ? '' : `, with ${listWords(what)}`}`
})
function send(): void {
  if (props.busy) return
  if (wrong.value.length > 0) {
    root.value?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()
    return
  }
  if (by.value.trim() === '') {
    document.getElementById('answer-by')?.focus()
    return
  }
  emit('answer', { by: by.value, note: note.value, lines: lines.value })
}
function refuseAll(): void {
  for (const l of ordered) write(l, { quantity: '0' })
}
</script>

<template>
  <form ref="root" aria-label="Answer the order" @submit.prevent>
    <table class="table">
      <caption class="sr-only">
        Lines as they will be delivered
      </caption>
      <thead class="max-[700px]:sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col" class="num">How many</th>
          <th scope="col" class="num">Price in {{ order.currency }}</th>
          <th scope="col" class="pl-3!">Delivered by</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in ordered" :key="l.id" class="folded">
          <td class="max-[700px]:col-span-2">
            <span class="block font-semibold" :class="isOff(l) ? 'text-ink3 line-through' : ''">{{
              l.description
            }}</span>
            <span class="small block"
              ><template v-if="l.supplierPart">{{ l.supplierPart }} · </template
              >{{ wording.quantity(l.quantity, l.unit) }} at {{ wording.price(l.unitPrice, order.currency)
              }}{{ l.priceBase === '1' ? '' : ` per ${l.priceBase}` }} ordered for
              {{ wording.ways.shortDate(l.needBy, today) }}{{ ' · '
              }}<button
                v-if="!isOff(l)"
                type="button"
                class="quiet-link"
                :aria-label="`${l.description} does not come`"
                @click="write(l, { quantity: '0' })"
              >
                it does not come</button
              ><button
                v-else
                type="button"
                class="quiet-link"
                :aria-label="`${l.description} comes after all`"
                @click="write(l, { quantity: wording.decimal(l.quantity) })"
              >
                it comes after all
              </button></span
            >
            <span v-if="sayWrong(l)" class="block text-red" role="status">{{ sayWrong(l) }}</span>
          </td>
          <td class="num whitespace-nowrap align-middle! max-[700px]:text-left!">
            <span class="small block min-[700px]:hidden" aria-hidden="true">How many</span>
            <input
              :value="typedOf(l).quantity"
              class="field num inline-block! h-8! w-20! px-2! py-0!"
              inputmode="decimal"
              :aria-label="`How many of ${l.description} come`"
              :aria-invalid="sayWrong(l) !== ''"
              @input="write(l, { quantity: ($event.target as HTMLInputElement).value })"
            />
          </td>
          <td class="num align-middle!">
            <span class="small block min-[700px]:hidden" aria-hidden="true">Price in {{ order.currency }}</span>
            <input
              :value="typedOf(l).unitPrice"
              class="field num inline-block! h-8! w-24! px-2! py-0!"
              inputmode="decimal"
              :aria-label="`Price of ${l.description}`"
              :aria-invalid="sayWrong(l) !== ''"
              @input="write(l, { unitPrice: ($event.target as HTMLInputElement).value })"
            />
          </td>
          <td class="pl-3! align-middle! max-[700px]:pl-0.5!">
            <BlankDay
              v-if="!isOff(l)"
              :model-value="typedOf(l).needBy"
              :label="`By when ${l.description} is delivered`"
              placeholder="when"
              :today="today"
              @update:model-value="write(l, { needBy: $event })"
            /><span v-else class="text-ink3">not at all</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="small mt-1">
      <button type="button" class="quiet-link" @click="refuseAll">Nothing of it comes: refuse the order</button>
    </p>
    <div class="mt-3 grid gap-x-6 gap-y-3 min-[700px]:grid-cols-[240px_1fr]">
      <div>
        <label class="label" for="answer-by">{{ heard ? 'Who said so' : 'Your name' }}</label>
        <input id="answer-by" v-model="by" class="field" maxlength="120" :autocomplete="heard ? 'off' : 'name'" />
      </div>
      <div>
        <label class="label" for="answer-note">{{
          heard ? 'What they said besides' : 'What else there is to say'
        }}</label>
        <textarea id="answer-note" v-model="note" class="field" rows="1" maxlength="1000" />
      </div>
    </div>
    <slot :words="words" :send="send" :missing="wrong.length > 0 || by.trim() === ''" />
  </form>
</template>
