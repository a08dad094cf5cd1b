import type { LineMemo } from '#core/requisition/compute'
import { attachedKinds } from '#core/requisition/rules'
import { completeDraft, type Draft } from '#core/requisition/draft'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import { readFacts, type DraftFactsWire } from '#shared/contract/draft-facts'
import type { AttachmentView, RemarkView } from '#shared/contract/document'
import type { RequisitionView } from '#shared/contract/requisition'
import { proposeTitle } from '#core/requisition/title'
import { useRevision } from './use-revision'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'
import type { EditableDraft } from './editable-draft'
import type { Judgement } from './judge'

const SAVE_AFTER_MS = 700
/** A browser that ends at once loses at most what was typed in this time. */
const KEEP_AFTER_MS = 150

/** What judges a draft: one without a line begins with what it was drawn with, and fetches this when it changes. */
export const loadJudge = async () => (await import('./judge')).judge

type Judge = Awaited<ReturnType<typeof loadJudge>>

/** The facts of a draft as the server sent them, with what is attached to it. */
export const factsOf = (wire: DraftFactsWire, attachments: readonly AttachmentView[]) => ({
  ...readFacts(wire),
  attached: attachedKinds(attachments),
})

/**
 * One requisition while it is written: computes its verdict with the core at every change, saves itself
 * (first in this browser, then on the server), and never writes over what another tab saved.
 */
export function useDraft(start: {
  view: RequisitionView | null
  draft: EditableDraft
  facts: DraftFactsWire
  judge: Judge | { readonly first: Judgement }
}) {
  const api = useApi()
  const session = useSessionStore()
  const wording = useWording()
  const id = ref(start.view?.id ?? '')
  /** Who owns it; whoever raises it may raise it for somebody else. */
  const ownerId = ref(start.view?.ownerId ?? session.me?.id ?? '')
  const version = ref(start.view?.version ?? 0)
  const draft = reactive<EditableDraft>(structuredClone(toRaw(start.draft)))
  const attachments = ref<AttachmentView[]>(start.view?.attachments ?? [])
  const remarks = ref<RemarkView[]>(start.view?.remarks ?? [])
  const suppliers = reactive<Record<string, string>>({ ...start.view?.suppliers })
  const read = shallowRef(start.facts)
  /** What is known of suppliers and items that were picked since the facts were read. */
  const picked = shallowReactive({ suppliers: new Map<string, SupplierFacts>(), items: new Map<string, ItemFacts>() })
  const facts = computed(() => {
    const known = factsOf(read.value, attachments.value)
    return {
      ...known,
      suppliers: new Map([...known.suppliers, ...picked.suppliers]),
      items: new Map([...known.items, ...picked.items]),
    }
  })
  /** Takes in what is known of something picked, so that its warnings and lead times count at once. */
  function know(found: { readonly suppliers?: readonly SupplierFacts[]; readonly items?: readonly ItemFacts[] }): void {
    if (found.suppliers !== undefined && found.suppliers.length > 0)
      picked.suppliers = new Map([...picked.suppliers, ...found.suppliers.map((x) => [x.id, x] as const)])
    if (found.items !== undefined && found.items.length > 0)
      picked.items = new Map([...picked.items, ...found.items.map((x) => [x.id, x] as const)])
  }
  const state = ref<'kept' | 'changed' | 'saving' | 'offline' | 'conflict' | 'refused'>('kept')
  const trouble = ref('')
  const keptAt = ref<number | null>(start.view === null ? null : Date.parse(start.view.changedAt))

  const memo: LineMemo = new Map()
  // Reading a draft of 500 lines through its proxies costs many times the sums: it is read as it lies, whenever it
  // changed.
  const raw = toRaw(draft)
  const revision = useRevision(draft, changed)
  const judge = shallowRef(start.judge)
  /** Done when the judgement is of what stands there now. */
  async function fetchJudge(): Promise<void> {
    if (typeof judge.value !== 'function') judge.value = await loadJudge()
  }
  const judgement = computed<Judgement>(() => {
    void revision.value
    return typeof judge.value === 'function'
      ? judge.value(raw, facts.value, ownerId.value, { ways: wording.ways, id: session.me?.id }, memo)
      : judge.value.first
  })
  watch(facts, () => void fetchJudge())
  const proposedTitle = computed(() => {
    void revision.value
    return proposeTitle(raw, (supplierId) => suppliers[supplierId])
  })

  let timer: ReturnType<typeof setTimeout> | undefined
  let keeper: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> | null = null
  let settled = false

  const localKey = () => `rekko-draft-${session.me?.id ?? ''}-${id.value === '' ? 'new' : id.value}`
  function keepHere(): void {
    try {
      localStorage.setItem(localKey(), JSON.stringify({ draft: raw, version: version.value, at: Date.now() }))
    } catch {
      /* A full or closed store only costs the second copy. */
    }
  }
  function forgetHere(): void {
    try {
      localStorage.removeItem(localKey())
    } catch {
      /* as above */
    }
  }

  function changed(): void {
    void fetchJudge()
    if (settled || state.value === 'conflict') return
    state.value = 'changed'
    clearTimeout(keeper)
    keeper = setTimeout(keepHere, KEEP_AFTER_MS)
    clearTimeout(timer)
    timer = setTimeout(() => {
      void save()
    }, SAVE_AFTER_MS)
  }

  async function save(): Promise<boolean> {
    clearTimeout(timer)
    if (saving !== null) await saving
    if (settled || state.value === 'kept') return true
    if (state.value === 'conflict') return false
    let ok = false
    saving = write().then((done) => {
      ok = done
    })
    await saving
    saving = null
    return ok
  }

  async function write(): Promise<boolean> {
    state.value = 'saving'
    const body = {
      draft: JSON.parse(JSON.stringify(raw)) as Draft,
      ownerId: ownerId.value === '' ? null : ownerId.value,
    }
    try {
      if (id.value === '') {
        const fresh = crypto.randomUUID()
        forgetHere()
        const made = await api.post('/api/requisitions', { body: { id: fresh, ...body }, key: fresh })
        id.value = fresh
        version.value = made.version
        const asOrder = new URLSearchParams(window.location.search).get('as') === 'order'
        window.history.replaceState(window.history.state, '', `/raise/${fresh}${asOrder ? '?as=order' : ''}`)
      } else
        version.value = (
          await api.put('/api/requisitions/{id}', { params: { id: id.value }, body, version: version.value })
        ).version
      trouble.value = ''
      keptAt.value = Date.now()
      if (namesAnother()) void readFactsAgain()
      if (state.value === 'saving') {
        state.value = 'kept'
        clearTimeout(keeper)
        forgetHere()
      }
      return true
    } catch (error) {
      trouble.value = sayError(error)
      const status = error instanceof ApiProblem ? error.status : 0
      state.value =
        status === 412 ? 'conflict' : status === 0 || status === 401 || status >= 500 ? 'offline' : 'refused'
      if (state.value === 'offline') {
        clearTimeout(timer)
        timer = setTimeout(() => {
          void save()
        }, 4000)
      }
      return false
    }
  }

  watch(ownerId, changed)
  watch(
    () => [draft.departmentId, draft.accountingDate, ownerId.value],
    () => {
      void readFactsAgain()
    },
  )
  // What is asked for may change while one writes.
  useLive((happened) => {
    if (happened.some((c) => c.kind === 'settings')) void readFactsAgain()
  })
  watch(
    () => session.expired,
    (expired) => {
      if (!expired && state.value === 'offline') void save()
    },
  )

  /** Suppliers whose agreements were read: of one that is named since, they are read once it is kept. */
  let drawnFrom = new Set(raw.lines.flatMap((l) => l.supplierId ?? []))
  function namesAnother(): boolean {
    const now = new Set(raw.lines.flatMap((l) => l.supplierId ?? []))
    const isAnother = [...now].some((id) => !drawnFrom.has(id))
    if (isAnother) drawnFrom = now
    return isAnother
  }

  async function readFactsAgain(): Promise<void> {
    try {
      read.value = await api.get('/api/draft-facts', {
        query: {
          departmentId: draft.departmentId ?? undefined,
          accountingDate: draft.accountingDate ?? undefined,
          ownerId: ownerId.value === '' ? undefined : ownerId.value,
          requisitionId: id.value === '' ? undefined : id.value,
        },
      })
    } catch (error) {
      trouble.value = sayError(error)
    }
  }

  /** A copy that this browser kept and the server did not get: from a closed tab or a lost connection. */
  function findLost(): EditableDraft | null {
    try {
      const text = localStorage.getItem(localKey())
      if (text === null) return null
      const lost = JSON.parse(text) as { draft: EditableDraft; version: number }
      return lost.version === version.value && JSON.stringify(lost.draft) !== JSON.stringify(raw)
        ? (completeDraft(lost.draft) as EditableDraft)
        : null
    } catch {
      return null
    }
  }
  function takeUp(lost: EditableDraft): void {
    Object.assign(draft, lost)
  }

  function settle(): void {
    settled = true
    clearTimeout(timer)
    clearTimeout(keeper)
    forgetHere()
  }
  const online = () => {
    if (state.value === 'offline') void save()
  }
  const leaving = () => {
    if (!settled && state.value === 'changed') keepHere()
  }
  onMounted(() => {
    window.addEventListener('online', online)
    window.addEventListener('pagehide', leaving)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('online', online)
    window.removeEventListener('pagehide', leaving)
    if (!settled && state.value === 'changed') void save()
  })

  return {
    id,
    ownerId,
    version,
    draft,
    attachments,
    remarks,
    suppliers,
    facts,
    know,
    judgement,
    fetchJudge,
    proposedTitle,
    state,
    trouble,
    keptAt,
    save,
    findLost,
    takeUp,
    settle,
    readFactsAgain,
  }
}
