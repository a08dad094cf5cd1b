import { isZero } from '#core/base/money'
import type { DeskLine } from '#shared/contract/order'
import { capital, inWords } from '#shared/words/format'
import type { Ways } from '#shared/words/ways'

/** Who else has what a line asks for, and what that would save; "" where nobody does. */
export function sayOthers({ others }: Pick<DeskLine, 'others'>, ways: Ways): string {
  if (others === null) return ''
  const [first, second] = others.fitting
  if (first === undefined) return 'Others have it; see why not'
  const saves = others.saves !== null && !isZero(others.saves) ? `, for ${ways.amount(others.saves)} less` : ''
  if (second === undefined || saves !== '') return `${first.supplier} has it too${saves}`
  return `${capital(inWords(others.fitting.length))} others have it too`
}

/** The item as which a line is laid on a tray of a supplier: null for what was asked for. */
export const offerFor = (l: Pick<DeskLine, 'supplierId' | 'others'>, supplierId: string): string | null =>
  l.supplierId === null || l.supplierId === supplierId
    ? null
    : (l.others?.fitting.find((o) => o.supplierId === supplierId)?.itemId ?? null)
