import { isId } from '#core/base/id'

/** After which row a page begins, as its key says it (`PAGE_KEY`). */
export interface PageMark {
  readonly moment: string
  readonly id: string
}

const KEY = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2})\.\d{1,6}Z_(.+)$/

/** Reads the key of a page; null where it is none, and then the list begins at its beginning. */
export function readPageMark(text: string | undefined): PageMark | null {
  const [, seconds, id] = KEY.exec(text ?? '') ?? []
  if (text === undefined || seconds === undefined || id === undefined || !isId(id)) return null
  // A day that does not exist is moved on by the calendar, and is none.
  const at = new Date(`${seconds}Z`)
  if (Number.isNaN(at.getTime()) || at.toISOString().slice(0, 19) !== seconds) return null
  return { moment: text.slice(0, text.length - id.length - 1), id }
}
