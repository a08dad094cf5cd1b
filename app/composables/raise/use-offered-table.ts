import type { ReadRow } from '#core/requisition/line-table'
import { sayError, useApi } from '~/composables/base/use-api'

/** A table that was pasted or given as a file, before its rows become lines. */
export interface OfferedTable {
  readonly rows: readonly (readonly string[])[]
  readonly source: string
  readonly notes: readonly string[]
}

/** A file of lines rather than one to be attached. */
export const isLineFile = (file: File) => /\.(csv|tsv|txt|xlsx)$/i.test(file.name)

/**
 * Takes tables from the clipboard and from files, and offers them to be looked at; `take` makes lines of what was
 * agreed to.
 */
export function useOfferedTable(o: {
  readonly take: (rows: readonly ReadRow[]) => Promise<void>
  readonly complain: (sentence: string) => void
  readonly focusAddField: () => void
}) {
  const api = useApi()
  const offered = shallowRef<OfferedTable | null>(null)

  /** A range of cells is shown as lines first; a text without tabs or breaks is pasted as ever. */
  async function paste(event: ClipboardEvent): Promise<void> {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (!/[\t\n]/.test(text.trim())) return
    event.preventDefault()
    const { cellsOf } = await import('./pasted-cells')
    offered.value = { rows: cellsOf(text), source: 'what you pasted', notes: [] }
  }

  async function readFile(file: File): Promise<void> {
    o.complain('')
    try {
      offered.value = {
        ...(await api.post('/api/line-files', { raw: file })),
        source: file.name,
      }
    } catch (e) {
      o.complain(`${file.name}: ${sayError(e)}`)
    }
  }
  function choose(event: Event): void {
    const box = event.target as HTMLInputElement
    const [file] = box.files ?? []
    if (file !== undefined) void readFile(file)
    box.value = ''
  }

  /** A dialog gives the focus back where it was before; the add field is where one goes on. */
  function leave(): void {
    offered.value = null
    setTimeout(o.focusAddField, 50)
  }
  async function take(rows: readonly ReadRow[]): Promise<void> {
    try {
      await o.take(rows)
    } catch (e) {
      o.complain(sayError(e))
    } finally {
      leave()
    }
  }

  return { offered, paste, readFile, choose, leave, take }
}
