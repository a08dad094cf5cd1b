<script setup lang="ts">
import type { FieldRef } from '#core/requisition/missing'
import type { AttachedAs } from '#core/requisition/rules'
import type { ItemFound, SupplierFound } from '#shared/contract/catalogue'
import { LINE_SOURCES, type LineSource } from '#core/requisition/line-source'
import { SOURCE_NAMES } from '#shared/words/line-source'
import type { SourceLine } from '#shared/contract/regulars'
import type { AttachmentView } from '#shared/contract/document'
import AddField from '~/components/raise/AddField.vue'
import AttachField from '~/components/raise/AttachField.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { provideDraftEditor } from '~/composables/raise/draft-editor'
import MissingList from '~/components/raise/MissingList.vue'
import RaiseHead from '~/components/raise/RaiseHead.vue'
import RaiseMargin from '~/components/raise/RaiseMargin.vue'
import { appearing } from '~/composables/base/appearing'
import { fieldOf, isAmongMore } from '~/composables/raise/field-of'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { factsOf, loadJudge, useDraft } from '~/composables/raise/use-draft'
import { emptyDraft, type EditableDraft, type EditableLine } from '~/composables/raise/editable-draft'
import { sayMissingCount } from '~/composables/raise/say-consequence'
import { useDirectOrder } from '~/composables/raise/use-direct-order'
import { useLines } from '~/composables/raise/use-lines'
import { isLineFile, useOfferedTable } from '~/composables/raise/use-offered-table'
import { useSessionStore } from '~/stores/session'

// The grid comes with the first line, or a moment before: with the first letter typed.
const loadGrid = () => import('~/components/raise/LineGrid.vue')
const LineGrid = defineAsyncComponent(loadGrid)
const AttachmentList = defineAsyncComponent(() => import('~/components/raise/AttachmentList.vue'))
// Dialogs come when they are opened.
const TakeTable = defineAsyncComponent(() => import('~/components/raise/TakeTable.vue'))
const TakeLines = defineAsyncComponent(() => import('~/components/raise/TakeLines.vue'))
const KeepDialog = defineAsyncComponent(() => import('~/components/raise/KeepDialog.vue'))
const NewSupplier = defineAsyncComponent(() => import('~/components/raise/NewSupplier.vue'))
// Saving gives a new draft its address without making the page anew.
definePageMeta({
  key: (route) =>
    `raise ${['add', 'from', 'template', 'order', 'as'].map((k) => String(route.query[k] ?? '')).join(' ')} ` +
    `${String(route.params.id ?? '')}`,
})

const route = useRoute()
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const undo = useUndo()
const me = session.me?.id ?? ''
const given = typeof route.params.id === 'string' ? route.params.id : ''
/** Where a new one begins from: an earlier request, a template, an order. */
const BEGINNINGS = {
  from: '/api/requisitions/{id}/copy',
  template: '/api/templates/{id}/copy',
  order: '/api/orders/{id}/copy',
} as const
const beginning = (Object.keys(BEGINNINGS) as (keyof typeof BEGINNINGS)[]).flatMap((k) => {
  const id = route.query[k]
  return typeof id === 'string' && id !== '' ? [{ path: BEGINNINGS[k], id }] : []
})[0]

const { data: start, error } = await useAsyncData(`raise-${given}-${beginning?.id ?? ''}`, async () => {
  const choices = await api.get('/api/raise-choices')
  const view = given === '' ? null : await api.get('/api/requisitions/{id}', { params: { id: given } })
  const source = beginning === undefined ? null : await api.get(beginning.path, { params: { id: beginning.id } })
  const home = choices.departments[0]
  const draft = view?.draft ?? source?.draft ?? emptyDraft(home?.id ?? null, home?.usualShipToId ?? null)
  const facts = await api.get('/api/draft-facts', {
    query: {
      departmentId: draft.departmentId ?? undefined,
      accountingDate: draft.accountingDate ?? undefined,
      requisitionId: view?.id,
    },
  })
  // A new request begins as the first kind; so does a copy of one whose kind is no longer offered.
  const keepsKind = view !== null || (source !== null && facts.kinds.some((k) => k.code === draft.kind))
  const begin = keepsKind ? draft : { ...draft, kind: facts.kinds[0]?.code ?? draft.kind }
  const first =
    begin.lines.length > 0
      ? null
      : (await loadJudge())(begin, factsOf(facts, view?.attachments ?? []), view?.ownerId ?? me, {
          ways: wording.ways,
          id: me,
        })
  return { choices, view, source, draft: begin, facts, first }
})
if (error.value || !start.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const { choices, view, source } = start.value
if (view !== null && !view.mayEdit) await navigateTo(`/trail/${view.id}`, { replace: true })

const begin: EditableDraft = structuredClone(toRaw(start.value.draft)) as EditableDraft
const { first, facts: firstFacts } = start.value
const judge = first === null ? await loadJudge() : { first }
const d = useDraft({ view, draft: begin, facts: firstFacts, judge })
const { draft, judgement, facts, proposedTitle } = d
const verdict = computed(() => judgement.value.verdict)
const consequence = computed(() => judgement.value.consequence)
const asks = computed(() => judgement.value.asks)
if (source !== null) Object.assign(d.suppliers, source.suppliers)
const names = reactive<Record<string, string>>({ ...view?.names })
provideDraftEditor(draft, names)
useHead({ title: () => `${draft.title || (draft.lines.length > 0 ? proposedTitle.value : 'Raise')} · Rekko` })

const currency = session.me?.organisation.baseCurrency ?? 'EUR'
const trouble = ref('')
const sending = ref(false)
const uploading = shallowRef<{ name: string; share: number } | null>(null)
const attachedTimes = ref(0)
const more = ref(false)
const taking = ref<LineSource | null>(null)
const keeping = ref(false)
const naming = shallowRef<{ words: string; line: EditableLine } | null>(null)
const dragging = ref(false)
const lost = shallowRef<EditableDraft | null>(null)
function takeUpLost(draft: EditableDraft): void {
  d.takeUp(draft)
  lost.value = null
}
const sheetChooser = useTemplateRef<HTMLInputElement>('sheetChooser')
const addField = useTemplateRef<{ focus: () => void; begin: (words: string) => void }>('addField')

// After the first sending its owner hands it over instead.
const mayRaiseFor = view === null || (view.number === null && view.raisedById === session.me?.id)
const lastReason = computed(() => d.remarks.value.filter((r) => r.kind === 'reason').at(-1))
const kept = computed(
  () =>
    ({
      kept:
        d.keptAt.value === null
          ? 'a new draft keeps itself'
          : `draft kept ${wording.moment(new Date(d.keptAt.value).toISOString()).split(', ')[1] ?? ''}`,
      changed: 'keeping …',
      saving: 'keeping …',
      offline: 'kept in this browser, goes on by itself',
      conflict: 'changed in another tab',
      refused: 'not kept yet',
    })[d.state.value],
)

const lines = useLines(d, () => addField.value?.focus())
const { mayOrder, isDirect, ...direct } = useDirectOrder(d, {
  number: view?.number ?? null,
  begins: route.query.as === 'order',
})
/** All that stands in the way of what the main action does. */
const lacks = computed(() => [...direct.lacks.value, ...judgement.value.lacks])
const stopped = computed(() => direct.lacks.value.length + consequence.value.missing)
const mainWords = computed(() => {
  if (sending.value) return isDirect.value ? 'Laying it on a tray …' : 'Sending …'
  if (!isDirect.value) return consequence.value.words
  return stopped.value > 0 ? sayMissingCount(stopped.value) : 'Lay it on a tray as an order'
})

const { offered, ...table } = useOfferedTable({
  take: lines.addRows,
  complain: (sentence) => {
    trouble.value = sentence
  },
  focusAddField: () => addField.value?.focus(),
})
function begins(): void {
  void loadGrid()
  void d.fetchJudge()
}
const copied = ref('')
async function copyOut(): Promise<void> {
  copied.value = (await lines.copyOut()) ? 'copied, with their headings' : 'this browser does not let a page copy here'
}

function takeLines(taken: SourceLine[], items: ItemFound[], from: Record<string, string>): void {
  taking.value = null
  void lines.addFromSource(taken, items, from).then(() => {
    addField.value?.focus()
  })
}
const keptSentence = ref('')
function named(supplier: SupplierFound): void {
  const at = naming.value
  naming.value = null
  if (at !== null) lines.supply(at.line, supplier)
}
const grid = useTemplateRef<{ show: (lineId: string, field: string) => Promise<void> }>('grid')
async function goTo(at: FieldRef): Promise<void> {
  if (at === 'lines') {
    addField.value?.focus()
    return
  }
  if (isAmongMore(at)) more.value = true
  if (typeof at === 'object' && at.line !== null) await grid.value?.show(at.line, at.field)
  // What opens on the way comes a moment later.
  const field = await appearing(fieldOf(at, draft.address !== null))
  field?.scrollIntoView({ block: 'center' })
  field?.focus()
}
// What is done with files comes with the first one.
const withFiles = async (
  work: (files: ReturnType<typeof import('~/composables/raise/use-attachments').useAttachments>) => Promise<void>,
): Promise<void> => {
  trouble.value = ''
  const { useAttachments } = await import('~/composables/raise/use-attachments')
  await work(
    useAttachments(
      d,
      api,
      (sentence) => {
        trouble.value = sentence
      },
      (now) => {
        uploading.value = now
      },
    ),
  )
}
async function attach(files: readonly File[]): Promise<void> {
  await withFiles((f) => f.attach(files))
  attachedTimes.value += 1
}
const describe = (a: AttachmentView, as: { kind: AttachedAs; forSupplier: boolean }) =>
  withFiles((f) => f.describe(a, as))
const detach = (id: string) => withFiles((f) => f.detach(id))
function drop(event: DragEvent): void {
  dragging.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  const sheet = files.find(isLineFile)
  const others = files.filter((f) => !isLineFile(f))
  if (others.length > 0) void attach(others)
  if (sheet !== undefined) void table.readFile(sheet)
}

async function send(): Promise<void> {
  if (sending.value) return
  ;(document.activeElement as HTMLElement | null)?.blur()
  await nextTick()
  // What computes it may not have come, where the connection was lost.
  await d.fetchJudge().catch((e: unknown) => (trouble.value = sayError(e)))
  if (sending.value) return
  const first = lacks.value.find((l) => l.stops)
  if (first !== undefined) {
    await goTo(first.at)
    return
  }
  sending.value = true
  trouble.value = ''
  try {
    if (d.id.value === '') d.state.value = 'changed'
    if (!(await d.save())) {
      trouble.value = d.trouble.value
      return
    }
    const to = { params: { id: d.id.value }, version: d.version.value }
    if (isDirect.value)
      await api.post('/api/requisitions/{id}/order', { ...to, key: `order-${d.id.value}-${d.version.value}` })
    else await api.post('/api/requisitions/{id}/send', { ...to, key: `send-${d.id.value}-${d.version.value}` })
    d.settle()
    await session.load()
    await navigateTo(isDirect.value ? '/desk' : `/trail/${d.id.value}`)
  } catch (e) {
    trouble.value = sayError(e)
    await d.readFactsAgain()
  } finally {
    sending.value = false
  }
}
async function throwAway(): Promise<void> {
  const id = d.id.value
  if (id === '' || view?.number) return
  await d.save()
  const copy = JSON.parse(JSON.stringify(draft)) as EditableDraft
  let attachAgain = () => Promise.resolve()
  try {
    if (d.attachments.value.length > 0)
      await withFiles(async (files) => {
        attachAgain = await files.takeAside()
      })
    await api.remove('/api/requisitions/{id}', { params: { id }, version: d.version.value })
    d.settle()
    undo.show('The draft is thrown away.', 'Keep it after all', 10, async () => {
      await api.post('/api/requisitions', { body: { id, draft: copy, ownerId: d.ownerId.value } })
      await attachAgain()
      await navigateTo(`/raise/${id}`)
    })
    await navigateTo('/mine')
  } catch (e) {
    trouble.value = sayError(e)
  }
}

onMounted(() => {
  lost.value = d.findLost()
  if (typeof route.query.add === 'string') addField.value?.begin(route.query.add)
  else if (given === '' && beginning === undefined) addField.value?.focus()
})
usePlaceKeys(
  [
    { keys: 'Ctrl Enter', does: 'send, or go to what is missing' },
    { keys: 'Enter', does: 'take the first suggestion; in a cell, the line below' },
    { keys: '↑ ↓', does: 'between lines, suggestions and days' },
    { keys: 'Alt ↑ ↓', does: 'move the line' },
    { keys: 'Esc', does: 'close a picker' },
  ],
  (event) => {
    if (isMainKey(event)) {
      event.preventDefault()
      void send()
    }
  },
)
</script>

<template>
  <div @dragover.prevent="dragging = true" @dragleave.self="dragging = false" @drop.prevent="drop">
    <PageNote
      ><span :title="d.trouble.value">{{ kept }}</span
      ><template v-if="d.id.value !== '' && !view?.number">
        · <button type="button" class="quiet-link" @click="throwAway">throw away</button></template
      ></PageNote
    >
    <SheetPage>
      <p v-if="lost" class="notice-amber mb-4">
        This browser kept changes that did not reach Rekko.
        <button type="button" class="quiet-link font-semibold" @click="takeUpLost(lost)">Take them up</button>
        or <button type="button" class="quiet-link" @click="lost = null">leave them</button>.
      </p>
      <p v-if="d.state.value === 'conflict'" class="notice-red mb-4" role="alert">
        {{ d.trouble.value }}
        <a class="quiet-link font-semibold" :href="`/raise/${d.id.value}`">See it as it is now</a>; what you typed here
        stays in sight until then.
      </p>
      <p v-else-if="d.state.value === 'refused'" class="notice-red mb-4" role="alert">{{ d.trouble.value }}</p>
      <p v-if="view?.state === 'sent back'" class="notice-amber mb-4">
        Sent back{{ lastReason ? ` by ${lastReason.name}: “${lastReason.text}”` : '' }}. Change it and send it again.
      </p>
      <h1 class="sr-only">{{ isDirect ? 'Order without a request' : 'Raise a requisition' }}</h1>
      <RaiseHead
        v-model:more="more"
        :choices="choices"
        :facts="facts"
        :verdict="verdict"
        :proposed-title="proposedTitle"
        :owner="view?.owner ?? 'you'"
        :owner-id="d.ownerId.value"
        :may-raise-for="mayRaiseFor"
        :is-direct="isDirect"
        @owner="d.ownerId.value = $event"
      />
      <p v-if="draft.departmentId !== null && facts.budgetLines.size === 0" class="notice-amber mt-4">
        No budget line pays for this department in this year yet; finance keeps them under Set-up.
      </p>
      <div class="mt-5" @paste="table.paste">
        <LineGrid
          v-if="draft.lines.length > 0"
          ref="grid"
          :draft="draft"
          :verdict="verdict"
          :facts="facts"
          :suppliers="d.suppliers"
          :currency="currency"
          :may-name="choices.newSuppliers !== 'nobody'"
          @remove="lines.remove"
          @duplicate="lines.duplicate"
          @move="lines.move"
          @quantity="lines.follow"
          @supplier="lines.supply"
          @spread="lines.spread"
          @name-supplier="(line: EditableLine, words: string) => (naming = { line, words })"
        />
        <p v-else class="mb-3 max-w-[60ch] text-ink2">
          What is needed stands here, line by line. Begin below: “6 quartz sleeve” looks in the catalogue, “take away
          old lamps 140” is a line of your own.
        </p>
      </div>
      <div data-add-field class="mt-3.5" @paste="table.paste" @input.once="begins">
        <AddField
          ref="addField"
          :department-id="draft.departmentId"
          :today="wording.today.value"
          :currency="currency"
          @item="lines.addItem"
          @free="lines.addFree"
        />
      </div>
      <p class="small mt-1.5 flex flex-wrap items-baseline gap-x-3">
        <span>Take lines from</span
        ><button v-for="s in LINE_SOURCES" :key="s" type="button" class="quiet-link min-h-[24px]" @click="taking = s">
          {{ SOURCE_NAMES[s] }}</button
        ><button type="button" class="quiet-link min-h-[24px]" @click="sheetChooser?.click()">a file</button
        ><span v-if="draft.lines.length === 0" class="max-[900px]:hidden">or paste a range of a spreadsheet.</span>
        <input
          ref="sheetChooser"
          type="file"
          class="sr-only"
          tabindex="-1"
          aria-label="A file of lines"
          accept=".csv,.tsv,.txt,.xlsx"
          @change="table.choose"
        />
        <template v-if="draft.lines.length > 0"
          ><button type="button" class="quiet-link ml-auto min-h-[24px]" @click="copyOut">copy the lines</button
          ><button type="button" class="quiet-link min-h-[24px]" @click="keeping = true">
            keep it for another time
          </button></template
        ><span role="status">{{ keptSentence || copied }}</span>
      </p>
      <div v-if="asks.whyOver || draft.overBudgetReason !== ''" class="mt-5">
        <label class="label" for="over-budget-reason">Why the budget may be passed</label>
        <textarea
          id="over-budget-reason"
          v-model="draft.overBudgetReason"
          class="field"
          rows="2"
          maxlength="2000"
          placeholder="Whoever decides reads this"
        />
      </div>
      <div v-if="asks.justification !== null || draft.justification !== ''" class="mt-5">
        <label class="label" for="justification">Justification</label>
        <textarea
          id="justification"
          v-model="draft.justification"
          class="field"
          rows="2"
          maxlength="4000"
          :placeholder="asks.justification ?? 'Why it has to be this'"
        />
      </div>
      <div class="mt-4">
        <p v-if="asks.quotes" class="small mb-1.5">{{ asks.quotes }}</p>
        <AttachmentList
          v-if="d.attachments.value.length > 0 || uploading"
          :attachments="d.attachments.value"
          :requisition-id="d.id.value"
          :may-change="true"
          :uploading="uploading"
          :attached-times="attachedTimes"
          @remove="detach"
          @describe="describe"
        /><AttachField @add="attach" />
      </div>
      <p v-if="dragging" class="notice-green mt-3">
        Let go: a PDF or picture is attached, a CSV or XLSX file is read as lines.
      </p>
      <TakeTable
        v-if="offered"
        :rows="offered.rows"
        :source="offered.source"
        :notes="offered.notes"
        :room="lines.room.value"
        :currency="currency"
        :payers="[...facts.budgetLines.values()]"
        :supplier-names="d.suppliers"
        @take="table.take"
        @know="lines.meet"
        @trouble="trouble = $event"
        @close="table.leave"
      />
      <TakeLines
        v-if="taking"
        :source="taking"
        :department-id="draft.departmentId"
        :room="lines.room.value"
        @take="takeLines"
        @close="taking = null"
      />
      <KeepDialog
        v-if="keeping"
        :draft="draft"
        :title="draft.title || proposedTitle"
        :departments="choices.departments"
        :today="wording.today.value"
        @kept="
          (s: string) => {
            keptSentence = s
            keeping = false
          }
        "
        @close="keeping = false"
      />
      <NewSupplier
        v-if="naming && choices.newSuppliers !== 'nobody'"
        :words="naming.words"
        :currency="currency"
        :policy="choices.newSuppliers"
        @made="named"
        @close="naming = null"
      />
      <template #margin>
        <RaiseMargin :margin="judgement.margin" />
      </template>
      <template #action>
        <MissingList :lacks="lacks" @go="goTo" />
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="stopped > 0" :busy="sending" keys="Ctrl ⏎" @press="send">{{ mainWords }}</MainAction>
        <p v-if="mayOrder" class="small mt-2">
          <template v-if="isDirect">It is ordered without a request; whoever would decide on one is asked. </template
          ><button type="button" class="quiet-link min-h-6" @click="isDirect = !isDirect">
            {{ isDirect ? 'Send it as a request instead' : 'Order it yourself, without a request' }}
          </button>
        </p>
      </template>
    </SheetPage>
  </div>
</template>
