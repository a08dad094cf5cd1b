import type { Day } from '#core/base/day'
import { comparedNumber } from '#core/order/conditions'
import { wordsThatHold, type OrderWords } from '#core/order/kept-words'
import type { Context } from '../context'
import { findOrderWords } from '../requisition/reads'
import { conditionsOf, findPlacedAs, type OrderRow } from './reads'
import { setConditions, setNote } from './store'

/** What a tray's buyer said of it besides its lines; terms only where they said them. */
export function wordsOf(tray: OrderRow): OrderWords {
  const { terms, ...conditions } = conditionsOf(tray)
  const { supplierId, currency, note, termsSaid } = tray
  return { ...conditions, ...{ supplierId, currency, note }, terms: termsSaid ? terms : null }
}

/** Says of a direct order again what was said of it before it was written on, as far as that still holds. */
export async function sayAgain(ctx: Context, order: OrderRow, today: Day): Promise<void> {
  const { tx } = ctx
  const words = await findOrderWords(tx, order.id)
  if (words === null) return
  const { id, supplierId, currency } = order
  const isPlaced =
    words.placedAs !== null && (await findPlacedAs(tx, supplierId, comparedNumber(words.placedAs), id)) !== null
  const held = wordsThatHold(words, { supplierId, currency, today, isPlaced })
  if (held === null) return
  const terms = held.terms ?? { kind: order.termsKind, days: order.termsDays }
  await setConditions(tx, id, { ...held, terms, termsSaid: held.terms !== null })
  if (held.note !== '') await setNote(tx, id, held.note)
}
