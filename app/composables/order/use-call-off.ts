import { dec } from '#core/base/decimal'
import { sum } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import { callLines, decideCallOff, leftToCall, type CallReason, type CallWish } from '#core/order/call-off'
import type { BlanketOrder } from '#shared/contract/call-off'
import type { OrderView } from '#shared/contract/order'
import { useWording } from '~/composables/base/use-wording'

/** What was typed and not sent. */
interface Kept {
  readonly typed: Record<string, string>
  readonly needBy: string | null
  readonly shipToId: string
  readonly note: string
}

/** What is kept at a place in this browser; null where nothing is. */
function readKept(place: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(place) ?? 'null') as Kept | null
  } catch {
    return null
  }
}

/**
 * A part of a blanket order while its buyer calls it off: what is typed of each line, what it comes to, and what stands
 * in the way by the same rules as on the server. What is typed outlives the page, until it is sent or left.
 */
export function useCallOff(order: OrderView, blanket: BlanketOrder) {
  const wording = useWording()
  const place = `rekko call-off of ${order.id} by ${order.buyerId}`
  const kept = readKept(place)
  const typed = ref<Record<string, string>>(kept?.typed ?? {})
  const needBy = ref<string | null>(kept?.needBy ?? null)
  const shipToId = ref(kept?.shipToId ?? order.shipToId)
  const note = ref(kept?.note ?? '')
  watch([typed, needBy, shipToId, note], () => {
    const now: Kept = { typed: typed.value, needBy: needBy.value, shipToId: shipToId.value, note: note.value }
    localStorage.setItem(place, JSON.stringify(now))
  })
  const forget = (): void => {
    localStorage.removeItem(place)
  }
  const typedOf = (lineId: string): string => typed.value[lineId] ?? ''
  const write = (lineId: string, text: string): void => {
    typed.value = { ...typed.value, [lineId]: text }
  }
  /** What is typed of a line; null where it is no number. */
  const muchTyped = (lineId: string): string | null => {
    const text = typedOf(lineId).trim()
    if (text === '') return '0'
    const n = readTypedNumber(text, wording.decimalMark)
    return n === null || dec(n).isNegative() ? null : n
  }
  /** What is wrong with what is typed of a line; "" where nothing is. */
  const sayWrong = (lineId: string): string => (muchTyped(lineId) === null ? `“${typedOf(lineId)}” is no number.` : '')
  const isWrong = computed(() => blanket.lines.some((l) => sayWrong(l.id) !== ''))
  /** Until a day is said it is looked at as if it were today. */
  const wishes = computed(() =>
    blanket.lines.flatMap((l): CallWish[] => {
      const much = muchTyped(l.id)
      if (much === null || dec(much).isZero()) return []
      return [{ lineId: l.id, much, needBy: needBy.value ?? wording.today.value }]
    }),
  )
  const lines = computed(() => callLines(blanket.lines, wishes.value, order.currency))
  const net = computed(() =>
    sum(
      lines.value.map((l) => l.net),
      order.currency,
    ),
  )
  const netOf = (lineId: string) => lines.value.find((l) => l.of.id === lineId)?.net ?? null
  /** What stands in the way, of what is known here; the server looks at the supplier besides. */
  const reasons = computed((): CallReason[] =>
    decideCallOff({
      ...{ state: 'issued', expiresOn: blanket.expiresOn, today: wording.today.value, currency: order.currency },
      supplier: { name: order.supplier, isBlocked: false, channel: 'e-mail' },
      ...{ isReachable: true, lines: lines.value },
    }).reasons.filter((r) => r.code !== 'nothing-called'),
  )
  /** Writes all that is left of a line. */
  const takeAll = (line: BlanketOrder['lines'][number]): void => {
    write(line.id, wording.decimal(leftToCall(line)))
  }
  return { typedOf, write, sayWrong, isWrong, wishes, net, netOf, reasons, takeAll, needBy, shipToId, note, forget }
}
