import type { Entry } from '#core/requisition/entry'
import { MOST_LINES } from '#core/requisition/draft'
import type { ReadRow } from '#core/requisition/line-table'
import type { ItemFound, SupplierFound } from '#shared/contract/catalogue'
import type { SourceLine } from '#shared/contract/regulars'
import { capital, formatCount } from '#shared/words/format'
import { useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { freeLine, lineForItem, reprice } from './new-line'
import type { useDraft } from './use-draft'
import type { EditableLine } from './editable-draft'

/** What makes many lines at once comes when it is first wanted. */
const manyLines = () => import('./many-lines')

/**
 * What may be done with the lines of a draft: adding one or many, moving, repeating, taking off with an undo, copying
 * out.
 */
export function useLines(d: ReturnType<typeof useDraft>, focusAddField: () => void) {
  const { draft, facts, suppliers } = d
  const api = useApi()
  const undo = useUndo()
  const wording = useWording()
  /** The price steps of items picked here, for when a quantity changes. */
  const steps = new Map<string, ItemFound['prices']>()
  const room = computed(() => MOST_LINES - draft.lines.length)

  function forItem(item: ItemFound, quantity: string, above: EditableLine | undefined): EditableLine {
    steps.set(item.id, item.prices)
    suppliers[item.supplierId] = item.supplier
    d.know({ items: [item.facts], suppliers: [item.supplierFacts] })
    return lineForItem(item, quantity, above, facts.value, wording.today.value)
  }
  function addItem(item: ItemFound, quantity: string): void {
    draft.lines.push(forItem(item, quantity, draft.lines.at(-1)))
  }
  function addFree(entry: Entry): void {
    const line = freeLine(entry, draft.lines.at(-1), facts.value)
    draft.lines.push(line)
    void proposePayer(line.id, entry.words)
  }
  /** A free line is paid from where the department last paid something alike, unless somebody chose meanwhile. */
  async function proposePayer(lineId: string, words: string): Promise<void> {
    const before = JSON.stringify(draft.lines.find((l) => l.id === lineId)?.codings)
    if (draft.departmentId === null) return
    try {
      const { account } = await api.get('/api/account-proposal', {
        query: {
          departmentId: draft.departmentId,
          words: words.slice(0, 400),
        },
      })
      const payer =
        account === null ? undefined : [...facts.value.budgetLines.values()].find((l) => l.account === account)
      const line = draft.lines.find((l) => l.id === lineId)
      const isChosenNow = document.activeElement?.id === `line-${lineId}-coding`
      if (payer !== undefined && line !== undefined && !isChosenNow && JSON.stringify(line.codings) === before) {
        line.splitMethod = 'percent'
        line.codings = [{ budgetLineId: payer.id, value: null }]
      }
    } catch {
      /* A proposal that does not come is not missed. */
    }
  }
  const making = () => ({ above: draft.lines.at(-1), facts: facts.value, forItem })
  function append(added: EditableLine[]): void {
    draft.lines.push(...added)
    const ids = new Set(added.map((l) => l.id))
    undo.show(
      `${capital(formatCount(added.length, 'line is', 'lines are'))} on the list.`,
      'Take them off again',
      10,
      () => {
        draft.lines = draft.lines.filter((l) => !ids.has(l.id))
      },
    )
  }
  async function addFromSource(
    lines: readonly SourceLine[],
    items: readonly ItemFound[],
    names: Record<string, string>,
  ): Promise<void> {
    Object.assign(suppliers, names)
    append((await manyLines()).linesOfSource(lines, items, making()))
  }
  async function addRows(rows: readonly ReadRow[]): Promise<void> {
    append(
      await (
        await manyLines()
      ).linesOfRows(
        rows,
        making(),
        async (numbers) => (await api.post('/api/items/match', { body: { numbers } })).items,
      ),
    )
  }
  const copyOut = async (): Promise<boolean> => (await manyLines()).copyLines(draft.lines, suppliers, facts.value)
  /** A supplier becomes known by name and by what is to be minded of it. */
  function meet(supplier: SupplierFound): void {
    suppliers[supplier.id] = supplier.name
    d.know({ suppliers: [supplier.facts] })
  }
  function supply(line: EditableLine, supplier: SupplierFound | null): void {
    if (supplier !== null) meet(supplier)
    line.supplierId = supplier?.id ?? null
  }

  /** What pays for a line, or who delivers it, for all lines that have none; with an undo. */
  function spread(from: EditableLine, what: 'payer' | 'supplier'): void {
    const to = draft.lines.filter((l) =>
      what === 'payer' ? l.codings.length === 0 : l.itemId === null && l.supplierId === null,
    )
    const ids = new Set(to.map((l) => l.id))
    const given = { supplierId: from.supplierId, codings: JSON.stringify(from.codings) }
    for (const line of to) {
      if (what === 'supplier') line.supplierId = from.supplierId
      else Object.assign(line, { splitMethod: from.splitMethod, codings: from.codings.map((c) => ({ ...c })) })
    }
    undo.show(
      `${capital(formatCount(to.length, 'line has', 'lines have'))} the same now.`,
      'Take it off again',
      10,
      () => {
        for (const line of draft.lines.filter((l) => ids.has(l.id))) {
          if (what === 'supplier' && line.supplierId === given.supplierId) line.supplierId = null
          if (what === 'payer' && JSON.stringify(line.codings) === given.codings) line.codings = []
        }
      },
    )
  }
  function follow(line: EditableLine): void {
    const known = line.itemId === null ? undefined : steps.get(line.itemId)
    if (known !== undefined) reprice(line, known, wording.today.value)
  }
  function remove(id: string): void {
    const at = draft.lines.findIndex((l) => l.id === id)
    const [gone] = draft.lines.splice(at, 1)
    if (gone === undefined) return
    undo.show(`“${gone.description}” is off the list.`, 'Put it back', 10, () => {
      draft.lines.splice(at, 0, gone)
    })
    focusAddField()
  }
  function duplicate(id: string): void {
    const at = draft.lines.findIndex((l) => l.id === id)
    const line = draft.lines[at]
    if (line !== undefined)
      draft.lines.splice(at + 1, 0, {
        ...line,
        id: crypto.randomUUID(),
        own: { ...line.own },
        codings: line.codings.map((c) => ({ ...c })),
      })
  }
  /** Moves a line up (-1) or down (1). */
  function move(id: string, by: -1 | 1): void {
    const at = draft.lines.findIndex((l) => l.id === id)
    const line = draft.lines[at]
    if (line === undefined || at + by < 0 || at + by >= draft.lines.length) return
    draft.lines.splice(at, 1)
    draft.lines.splice(at + by, 0, line)
  }
  return {
    room,
    addItem,
    addFree,
    addFromSource,
    meet,
    spread,
    supply,
    addRows,
    follow,
    remove,
    duplicate,
    move,
    copyOut,
  }
}
