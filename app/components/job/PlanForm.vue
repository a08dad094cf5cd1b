<script setup lang="ts">
import { isDecimalText, dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import { UNITS, unitName } from '#core/base/unit'
import { readEntry } from '#core/requisition/entry'
import type { ItemFound } from '#shared/contract/catalogue'
import type { JobView } from '#shared/contract/job'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount } from '#shared/words/format'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** What is planned for a job: its parts, who is at work on it, when, where, and which budget line pays. */
const props = defineProps<{ job: JobView }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const api = useApi()
const wording = useWording()
const { job } = props
const plan = reactive({
  startsOn: job.startsOn,
  endsOn: job.endsOn,
  shipToId: job.shipToId ?? '',
  budgetLineId: job.budgetLineId ?? '',
})
const people = ref(job.people.map((p) => ({ id: p.id, name: p.name })))
const parts = ref(
  job.parts.map((p) => ({
    id: p.id,
    itemId: p.itemId,
    description: p.description,
    quantity: wording.typed(p.quantity),
    unit: p.unit,
    estimate: p.estimate === null ? '' : wording.typed(p.estimate),
  })),
)
type Part = (typeof parts.value)[number]
const { busy, trouble, act } = useAct()
const nobody = shallowRef<PersonFound | null>(null)
watch(nobody, (p) => {
  if (p === null) return
  if (!people.value.some((x) => x.id === p.id)) people.value.push({ id: p.id, name: p.name })
  void nextTick(() => (nobody.value = null))
})

const typed = ref('')
const found = shallowRef<readonly ItemFound[]>([])
let asked = 0
async function look(): Promise<void> {
  const mine = ++asked
  const { words } = readEntry(typed.value, wording.decimalMark)
  if (words.length < 3) {
    found.value = []
    return
  }
  try {
    const { items } = await api.get('/api/items', { query: { words, limit: 5 } })
    if (mine === asked) found.value = items
  } catch {
    if (mine === asked) found.value = []
  }
}
function add(item: ItemFound | null): void {
  const entry = readEntry(typed.value, wording.decimalMark)
  if (item === null && entry.words === '') return
  parts.value.push({
    id: crypto.randomUUID(),
    itemId: item?.id ?? null,
    description: item?.name ?? entry.words,
    quantity: wording.typed(entry.quantity ?? '1'),
    unit: item?.unit ?? 'H87',
    estimate: item !== null || entry.price === null ? '' : wording.typed(entry.price),
  })
  typed.value = ''
  found.value = []
  asked += 1
  document.getElementById('part-add')?.focus()
}
/** Rows of a spreadsheet: what, and behind it quantity and estimate where they are there. */
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text') ?? ''
  if (!/[\t\n]/.test(text.trim())) return
  event.preventDefault()
  for (const row of text.split(/\r?\n/)) {
    const [what = '', quantity = '', estimate = ''] = row.split('\t').map((c) => c.trim())
    if (what === '') continue
    parts.value.push({
      id: crypto.randomUUID(),
      itemId: null,
      description: what.slice(0, 200),
      quantity: quantity === '' ? '1' : quantity,
      unit: 'H87',
      estimate,
    })
  }
}
const number = (text: string) => readTypedNumber(text, wording.decimalMark)
const isQuantity = (p: Part) => {
  const n = number(p.quantity)
  return n !== null && isDecimalText(n) && dec(n).isPositive()
}
const isEstimate = (p: Part) => p.estimate.trim() === '' || number(p.estimate) !== null
const wrong = computed(() => parts.value.filter((p) => p.description.trim() === '' || !isQuantity(p) || !isEstimate(p)))
const added = computed(() => parts.value.filter((p) => !job.parts.some((before) => before.id === p.id)).length)
/** What is new is asked for by itself as soon as it is kept. */
const raises = computed(() => added.value > 0 && job.raisesAs !== null)
const action = computed(() =>
  wrong.value.length > 0
    ? capital(formatCount(wrong.value.length, 'part is not readable', 'parts are not readable'))
    : raises.value
      ? `Keep it, and ask for ${formatCount(added.value, 'new part', 'new parts')} as ${job.raisesAs ?? ''}`
      : 'Keep it as it stands here',
)
async function keep(): Promise<void> {
  const [first] = wrong.value
  if (first !== undefined) document.getElementById(`part-${first.id}`)?.focus()
  if (first !== undefined) return
  const body = {
    startsOn: plan.startsOn,
    endsOn: plan.endsOn,
    shipToId: plan.shipToId === '' ? null : plan.shipToId,
    budgetLineId: plan.budgetLineId === '' ? null : plan.budgetLineId,
    people: people.value.map((p) => p.id),
    parts: parts.value.map((p) => ({
      ...p,
      quantity: number(p.quantity) ?? '1',
      estimate: p.estimate.trim() === '' ? null : number(p.estimate),
    })),
  }
  const at = { params: { id: job.id }, version: job.version }
  if (await act(() => api.put('/api/jobs/{id}', { ...at, body }))) emit('kept')
}
/** A line that pays now, or the one that is kept although it is offered no more. */
const payers = computed(() => {
  const { budgetLines } = job.choices
  const isThere = job.budgetLineId === null || budgetLines.some((b) => b.id === job.budgetLineId)
  return isThere
    ? budgetLines
    : [...budgetLines, { id: job.budgetLineId ?? '', name: `${job.budgetLine ?? ''} (before)` }]
})
</script>

<template>
  <DialogSheet :title="`What ${job.number} needs`" :width="860" @close="emit('close')" @main="keep">
    <div class="-mx-1 mt-3 min-h-0 overflow-auto px-1 pb-1">
      <div class="flex flex-wrap items-baseline gap-x-2 gap-y-2">
        It is done from
        <BlankDay
          v-model="plan.startsOn"
          label="First day of the job"
          placeholder="no day yet"
          :today="wording.today.value"
          earliest="2000-01-01"
          optional
        />
        to
        <BlankDay
          v-model="plan.endsOn"
          label="Last day of the job"
          placeholder="no day yet"
          :today="wording.today.value"
          earliest="2000-01-01"
          optional
        />
      </div>
      <div class="mt-3 grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
        <div>
          <label class="label" for="job-place">Things go to</label>
          <select id="job-place" v-model="plan.shipToId" class="field">
            <option value="">the department’s usual place</option>
            <option v-for="s in job.choices.shipTos" :key="s.id" :value="s.id">{{ s.name }}</option>
          </select>
        </div>
        <div>
          <label class="label" for="job-pays">It is paid from</label>
          <select id="job-pays" v-model="plan.budgetLineId" class="field">
            <option value="">whatever whoever raises it says</option>
            <option v-for="b in payers" :key="b.id" :value="b.id">{{ b.name }}</option>
          </select>
        </div>
      </div>
      <h3 class="head mt-4">At work on it</h3>
      <p class="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span v-for="p in people" :key="p.id"
          >{{ p.name }}
          <button
            type="button"
            class="quiet-link small min-h-6"
            :aria-label="`Take ${p.name} off the job`"
            @click="people = people.filter((x) => x.id !== p.id)"
          >
            take off
          </button></span
        >
        <PersonPicker v-model="nobody" label="Somebody else at work on it" placeholder="somebody" compact />
      </p>
      <h3 class="head mb-1 mt-4">Parts</h3>
      <div
        v-if="parts.length > 0"
        class="grid grid-cols-[minmax(0,1fr)_90px_110px_110px_auto] items-center gap-x-2 gap-y-1.5"
      >
        <span class="small">What</span><span class="small text-right">Quantity</span><span class="small">Unit</span
        ><span class="small text-right">One, in {{ job.currency }}</span
        ><span></span>
        <template v-for="(p, i) in parts" :key="p.id">
          <input
            :id="`part-${p.id}`"
            v-model="p.description"
            class="field py-1.5!"
            maxlength="200"
            :readonly="p.itemId !== null"
            :aria-label="`Part ${i + 1}`"
          />
          <input
            v-model="p.quantity"
            class="field py-1.5! text-right tabular-nums"
            :aria-invalid="!isQuantity(p)"
            :aria-label="`Quantity of ${p.description}`"
          />
          <span v-if="p.itemId !== null" class="px-1">{{ unitName(p.unit) }}</span>
          <select v-else v-model="p.unit" class="field py-1.5!" :aria-label="`Unit of ${p.description}`">
            <option v-for="(_, u) in UNITS" :key="u" :value="u">{{ unitName(u) }}</option>
          </select>
          <input
            v-model="p.estimate"
            class="field py-1.5! text-right tabular-nums"
            :aria-invalid="!isEstimate(p)"
            :aria-label="`Estimate for one ${p.description}`"
          />
          <button
            type="button"
            class="quiet-link small min-h-6"
            :aria-label="`Take ${p.description} off`"
            @click="parts.splice(i, 1)"
          >
            take off
          </button>
        </template>
      </div>
    </div>
    <label class="sr-only" for="part-add">Add a part</label>
    <input
      id="part-add"
      v-model="typed"
      class="field mt-2"
      autocomplete="off"
      placeholder="Add a part: “6 lamps”, a part number, or rows of a spreadsheet"
      @input="look"
      @paste="paste"
      @keydown.enter.exact.prevent="add(null)"
    />
    <ul v-if="found.length > 0" class="border-x border-b border-rule" aria-label="From the catalogue">
      <li v-for="f in found" :key="f.id">
        <button type="button" class="option w-full text-left" @click="add(f)">
          {{ f.name }}<span class="small block">{{ f.supplier }} · {{ f.supplierPart }}</span>
        </button>
      </li>
    </ul>
    <p class="small mt-1">Enter takes the words as they are; Tab goes to what the catalogue has.</p>
    <p v-if="raises" class="notice-green mt-2">
      The request is yours, and is sent by itself; where something is missing it waits as a draft, and you are told.
    </p>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="wrong.length > 0" :busy="busy" keys="Ctrl ⏎" @press="keep">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
