import { defineStore } from 'pinia'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import {
  drop,
  isAway,
  keep,
  keyOf,
  markTried,
  placeOf,
  readKept,
  unwant,
  type KeptDecision,
} from '~/composables/decide/kept-decisions'

/** A decision that could not be carried out, with the reason. */
export interface Returned {
  readonly documentId: string
  readonly called: string
  readonly why: string
}
type Made = Pick<KeptDecision, 'documentId' | 'version' | 'outcome' | 'comment' | 'changes' | 'called'>

const AGAIN_MS = 3000

/**
 * Decisions go their way behind the page: one after the other, and again until they arrive. What could not be sent is
 * kept in the browser, also when its page is closed; what is refused comes back with its reason.
 */
export const useDecisionsStore = defineStore('decisions', () => {
  const api = useApi()
  const kept = shallowRef<readonly KeptDecision[]>([])
  /** Documents whose decision arrived: hidden until the list of what waits was read anew. */
  const arrived = shallowReactive(new Set<string>())
  /** What became of each, by its key, to take it back. */
  const decisionIds = new Map<string, string>()
  const returned = ref<Returned[]>([])
  /** The server was not reached with the last one. */
  const isHeldUp = ref(false)
  /** How often one arrived, came back or was taken back: the list of what waits is not what it was. */
  const settled = ref(0)
  let personId = ''
  let running = false
  let timer: ReturnType<typeof setTimeout> | undefined

  function set(next: readonly KeptDecision[]): void {
    kept.value = next
    if (next.length > 0) localStorage.setItem(placeOf(personId), JSON.stringify(next))
    else localStorage.removeItem(placeOf(personId))
  }

  /** Goes on with what somebody had decided before, perhaps on a page that was closed. */
  function resume(of: string): void {
    if (personId !== of) {
      personId = of
      arrived.clear()
      returned.value = []
      kept.value = readKept(localStorage.getItem(placeOf(of)))
    }
    void run()
  }

  async function run(): Promise<void> {
    if (running) return
    running = true
    clearTimeout(timer)
    try {
      for (let next = kept.value[0]; next !== undefined; next = kept.value[0]) if (!(await carryOut(next))) break
    } finally {
      running = false
    }
    if (kept.value.length > 0) timer = setTimeout(() => void run(), AGAIN_MS)
  }

  /** Brings one to the server; false while that cannot be reached. */
  async function carryOut(d: KeptDecision): Promise<boolean> {
    const key = keyOf(d)
    set(markTried(kept.value, key))
    try {
      const { decisionId } = await api.post('/api/documents/{id}/decisions', {
        params: { id: d.documentId },
        body: { outcome: d.outcome, comment: d.comment, changes: [...(d.changes ?? [])], by: personId },
        version: d.version,
        key,
      })
      const isUnwanted = kept.value.find((k) => keyOf(k) === key)?.unwanted === true
      if (isUnwanted) await removeDecision(d.documentId, decisionId)
      else {
        arrived.add(d.documentId)
        decisionIds.set(key, decisionId)
      }
    } catch (e) {
      if (e instanceof ApiProblem && isAway(e.status)) {
        isHeldUp.value = true
        return false
      }
      returned.value = [...returned.value, { documentId: d.documentId, called: d.called, why: sayError(e) }]
    }
    isHeldUp.value = false
    set(drop(kept.value, key))
    settled.value += 1
    return true
  }

  const removeDecision = (id: string, decisionId: string) =>
    api.remove('/api/documents/{id}/decisions/{decisionId}', { params: { id, decisionId } })

  function decide(made: readonly Made[]): void {
    set(made.reduce((all, d) => keep(all, { ...d, tried: false, unwanted: false }), [...kept.value]))
    void run()
  }

  /** Takes decisions back, arrived or not; says why where that is too late. */
  async function takeBack(made: readonly Made[]): Promise<string> {
    const troubles: string[] = []
    for (const d of made) {
      const key = keyOf(d)
      if (kept.value.some((k) => keyOf(k) === key)) {
        set(unwant(kept.value, key))
        settled.value += 1
        continue
      }
      const decisionId = decisionIds.get(key)
      if (decisionId === undefined) continue
      try {
        await removeDecision(d.documentId, decisionId)
        arrived.delete(d.documentId)
        settled.value += 1
      } catch (e) {
        troubles.push(`${d.called}: ${sayError(e)}`)
      }
    }
    return troubles.join(' ')
  }

  /** Reads what waits, and hides no longer what had arrived before. */
  async function afterReading(read: () => Promise<unknown>): Promise<void> {
    const before = [...arrived]
    await read()
    for (const documentId of before) arrived.delete(documentId)
  }

  const hides = (documentId: string) =>
    arrived.has(documentId) || kept.value.some((k) => k.documentId === documentId && !k.unwanted)
  const forget = (documentId: string) => {
    returned.value = returned.value.filter((r) => r.documentId !== documentId)
  }
  return { kept, returned, isHeldUp, settled, resume, decide, takeBack, afterReading, hides, forget }
})
