<script setup lang="ts">
import { HUNDRED, ONE, dec } from '#core/base/decimal'
import { isZero, subtract } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import { unitName } from '#core/base/unit'
import { rowsOfParts } from '#shared/words/adjustment'
import { sayPlaced } from '#shared/words/conditions'
import { capital, inWords, listWords } from '#shared/words/format'
import type { TrayView } from '#shared/contract/order'
import { sayHint } from '#shared/words/step-hint'
import MainAction from '~/components/base/MainAction.vue'
import { useWording } from '~/composables/base/use-wording'
import TypedBox from '~/components/base/TypedBox.vue'

/** An order being put together: what lies on it, what it costs and saves, and the one action that issues it. */
const props = defineProps<{
  tray: TrayView
  active: boolean
  over: boolean
  busy: boolean
  trouble: string
  /** It is to be issued as soon as it is approved. */
  issuesItself: boolean
}>()
const emit = defineEmits<{
  issue: []
  send: []
  wish: [issuesItself: boolean]
  back: []
  answer: [text: string]
  off: [lineIds: string[] | null]
  price: [lineId: string, price: string]
  quantity: [lineIds: string[], quantity: string]
  note: [note: string]
  choose: []
  draw: []
  conditions: []
  pass: []
  write: []
}>()
const wording = useWording()
const money = (amount: string) => wording.kept(amount, props.tray.currency)
/** How far the goods are from the value at which nothing is asked for bringing them. */
const reach = computed(() => {
  const { freightFreeFrom: free, goods } = props.tray
  if (free === null) return null
  const share = dec(free.amount).isZero() ? ONE : dec(goods.amount).dividedBy(dec(free.amount))
  return {
    percent: Math.min(100, share.times(HUNDRED).toNumber()),
    says: share.gte(ONE)
      ? `from ${money(free.amount)} on nothing is asked for freight`
      : `${money(subtract(free, goods).amount)} more and freight is free`,
  }
})
/** Only a tray that nobody was sent can be changed. */
const isOpen = computed(() => props.tray.state === 'draft')
/** Of a direct order what lies on it is changed by writing on it. */
const isLaid = computed(() => isOpen.value && props.tray.directFor === null)
/** What the supplier is told on it is being written. */
const isNoting = ref(false)
const noteField = useTemplateRef<InstanceType<typeof TypedBox>>('noteField')
async function beginNote(): Promise<void> {
  isNoting.value = true
  await nextTick()
  ;(noteField.value?.$el as HTMLElement | undefined)?.focus()
}
const answer = ref('')
const asked = computed(() => props.tray.said.filter((s) => s.asks))
const standing = computed(() => {
  const { state, waits } = props.tray
  if (state === 'approved') return 'approved'
  if (state === 'draft') return ''
  return waits.length === 0 ? 'held: nobody is found who may decide' : `waits for ${listWords(waits)}`
})
function sendAnswer(): void {
  if (answer.value.trim() === '') return
  emit('answer', answer.value)
}
// What was typed stays until nobody waits for it any more.
watch(asked, (now) => {
  if (now.length === 0) answer.value = ''
})
/** How many are ordered here; the rest waits on the Desk. What is refused, or cannot be read, stays as it was. */
function count(l: TrayView['lines'][number], event: Event): void {
  const field = event.target as HTMLInputElement
  const read = readTypedNumber(field.value, wording.decimalMark)
  field.value = wording.decimal(l.quantity)
  if (read !== null && !read.startsWith('-')) emit('quantity', l.lineIds, read)
}
function agree(lineId: string, event: Event): void {
  const read = readTypedNumber((event.target as HTMLInputElement).value, wording.decimalMark)
  if (read !== null && !read.startsWith('-')) emit('price', lineId, read)
}
</script>

<template>
  <!-- Which one is at hand changes with the focus, in the midst of a press: it must not move anything. -->
  <section
    class="rounded border bg-sheet p-3.5"
    :class="[active ? 'border-ink outline outline-1 outline-ink' : 'border-strong', over ? 'bg-green-ground!' : '']"
    :aria-label="`Tray for ${tray.supplier}`"
    @focusin="emit('choose')"
    @click="emit('choose')"
  >
    <div class="flex items-baseline justify-between gap-3">
      <h3 class="font-semibold">{{ tray.supplier }}</h3>
      <span class="sum-small">{{ wording.amount(tray.net) }}</span>
    </div>
    <p class="small mb-1.5">
      to {{ tray.shipTo }} · by {{ wording.shortDay(tray.needBy) }} · {{ tray.terms }} · {{ tray.currency }}
    </p>
    <p v-if="tray.directFor" class="mb-1.5 font-medium">Without a request, for {{ tray.directFor }}</p>
    <p v-if="tray.conditions.placedAs" class="mb-1.5 font-medium">
      {{ capital(sayPlaced(tray.conditions, tray.supplier)) }}
    </p>
    <p v-if="tray.agreement" class="small mb-1.5">
      draws on
      <NuxtLink class="quiet-link" :to="`/agreements/${tray.agreement.id}`"
        >{{ tray.agreement.number }} {{ tray.agreement.name }}</NuxtLink
      ><template v-if="tray.agreement.left">, {{ wording.money(tray.agreement.left) }} of it left to draw</template>
    </p>
    <ul>
      <li
        v-for="l in tray.lines"
        :key="l.lineIds[0]"
        class="group grid grid-cols-[minmax(0,1fr)_auto_68px] items-baseline gap-x-3 py-1"
      >
        <span class="min-w-0"
          >{{ l.description
          }}<span class="small flex justify-between gap-2"
            ><span>{{ l.requests > 1 ? `from ${inWords(l.requests)} requests` : '' }}</span
            ><button
              v-if="isLaid"
              type="button"
              class="quiet-link opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
              :aria-label="`Take ${l.description} off the tray`"
              @click.stop="emit('off', l.lineIds)"
            >
              take off
            </button></span
          ></span
        >
        <label v-if="isLaid" class="num whitespace-nowrap"
          ><TypedBox
            class="cell num inline-block! w-[44px]! border-b border-dotted! border-edge!"
            :value="wording.decimal(l.quantity)"
            :aria-label="`How many of ${l.description} on the tray`"
            inputmode="decimal"
            @change="count(l, $event)"
          />
          {{ unitName(l.unit) }}</label
        ><span v-else class="num">{{ wording.quantity(l.quantity, l.unit) }}</span
        ><span class="num">{{ wording.amount(l.net) }}</span>
        <p v-if="l.insteadOf.length > 0" class="small col-span-3">
          instead of {{ listWords(l.insteadOf) }} at {{ wording.amount(l.asked) }}
        </p>
        <p v-if="l.hint && isOpen && sayHint(l.hint, l.hint.quantity, wording.ways)" class="small col-span-3">
          {{ sayHint(l.hint, l.hint.quantity, wording.ways) }}
        </p>
        <label v-if="l.itemId === null && isLaid" class="small col-span-3 flex items-baseline gap-2"
          >agreed at
          <TypedBox
            class="cell w-[90px]! border-b border-dotted! border-edge!"
            :value="wording.price(l.unitPrice, tray.currency)"
            :aria-label="`Price agreed for ${l.description}`"
            inputmode="decimal"
            @change="agree(l.lineIds[0] ?? '', $event)"
          />
          asked {{ wording.amount(l.asked) }}</label
        >
      </li>
    </ul>
    <p
      v-for="(row, i) in rowsOfParts(tray, wording.ways)"
      :key="i"
      class="flex justify-between gap-3 py-1"
      :class="i === 0 ? 'border-t border-rule' : ''"
    >
      <span>{{ row.says }}</span><span class="num">{{ wording.amount(row.amount) }}</span>
    </p>
    <p v-if="!isZero(tray.saved)" class="mt-1 font-semibold text-green">
      {{ wording.amount(tray.saved) }} less than
      {{ tray.requests > 1 ? 'one order for each request' : tray.directFor ? 'was written' : 'was asked for' }}
    </p>
    <template v-if="reach">
      <div class="mt-2 h-[5px] overflow-hidden rounded-[2px] bg-rule" aria-hidden="true">
        <div class="h-full bg-ink" :style="{ width: `${reach.percent}%` }" />
      </div>
      <p class="small mt-1">{{ reach.says }}</p>
    </template>
    <p v-if="tray.minimum" class="notice-amber mt-2">
      {{ tray.supplier }} takes orders from {{ money(tray.minimum.amount) }} of goods;
      {{ money(subtract(tray.minimum, tray.goods).amount) }} are missing.
    </p>
    <label v-if="isOpen && (isNoting || tray.note !== '')" class="label mt-2 block"
      >What {{ tray.supplier }} is told on it
      <TypedBox
        long
        ref="noteField"
        class="field mt-1 font-[440]"
        rows="2"
        maxlength="2000"
        :value="tray.note"
        @change="emit('note', ($event.target as HTMLTextAreaElement).value)"
      />
    </label>
    <div v-for="s in tray.said" :key="s.id" class="notice-amber mt-2">
      <p>{{ s.by }} {{ s.asks ? 'asks' : 'sent it back' }}: “{{ s.text }}”</p>
    </div>
    <form v-if="asked.length > 0" class="mt-1.5 flex gap-2" @submit.prevent="sendAnswer">
      <input
        v-model="answer"
        class="field"
        :aria-label="`Answer about the order to ${tray.supplier}`"
        placeholder="Answer"
        maxlength="4000"
      />
      <button type="submit" class="action shrink-0" :aria-busy="busy">Answer</button>
    </form>
    <ul v-if="tray.refusals.length > 0" class="mt-2 space-y-1.5">
      <li v-for="r in tray.refusals" :key="r" class="notice-amber">{{ r }}</li>
    </ul>
    <p v-for="w in tray.agreement?.warnings ?? []" :key="w" class="notice-amber mt-2">{{ w }}</p>
    <p v-if="tray.unseen" class="notice-amber mt-2">
      The PDF has no face for {{ tray.unseen }}: a white square stands there instead.
    </p>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <div class="mt-2.5">
      <p v-if="standing" class="mb-2 font-semibold" :class="tray.state === 'approved' ? 'text-green' : ''">
        {{ capital(standing) }}
      </p>
      <MainAction v-if="tray.mayIssue" :busy="busy" keys="Ctrl ⏎" @press="emit('issue')">{{
        busy
          ? 'Issuing …'
          : tray.conditions.isSent
            ? `Issue and e-mail to ${tray.supplier}`
            : 'Issue it; nothing is sent'
      }}</MainAction>
      <template v-else-if="tray.maySend">
        <MainAction :busy="busy" keys="Ctrl ⏎" @press="emit('send')">{{
          busy ? 'Sending …' : 'Send it to whoever decides'
        }}</MainAction>
        <label class="small mt-2 flex items-center gap-2"
          ><input
            type="checkbox"
            class="size-4 accent-[var(--green)]"
            :checked="issuesItself"
            @change="emit('wish', ($event.target as HTMLInputElement).checked)"
          />issue it as soon as it is approved</label
        >
      </template>
      <p class="small mt-2 flex flex-wrap gap-x-4 gap-y-1">
        <template v-if="isOpen">
          <button v-if="tray.note === '' && !isNoting" type="button" class="quiet-link min-h-6" @click.stop="beginNote">
            Say something to the supplier
          </button>
          <button type="button" class="quiet-link min-h-6" @click.stop="emit('conditions')">
            Terms, discounts, or that it was placed already
          </button>
          <button v-if="tray.hasAgreements" type="button" class="quiet-link min-h-6" @click.stop="emit('draw')">
            {{ tray.agreement ? 'Draw on another agreement, or none' : 'Draw on an agreement' }}
          </button>
          <button type="button" class="quiet-link min-h-6" @click.stop="emit('pass')">Pass it to a colleague</button>
          <button v-if="tray.directFor" type="button" class="quiet-link min-h-6" @click.stop="emit('write')">
            Write on it, or throw it away
          </button>
          <button v-else type="button" class="quiet-link min-h-6" @click.stop="emit('off', null)">
            Put this tray away; its lines go back
          </button>
        </template>
        <button v-else type="button" class="quiet-link min-h-6" @click.stop="emit('back')">
          Take it back to change it
        </button>
        <NuxtLink v-if="!isOpen" class="quiet-link inline-flex min-h-6 items-center" :to="`/decide/${tray.id}`"
          >See it as whoever decides does</NuxtLink
        >
      </p>
    </div>
  </section>
</template>
