import { dec } from '#core/base/decimal'
import type { LineWish } from '#core/order/change'
import { readTypedNumber } from '#core/base/typed-number'
import { useWording } from '~/composables/base/use-wording'

/** A line of an order that somebody writes otherwise. */
export interface WrittenLine {
  readonly id: string
  readonly quantity: string
  readonly unitPrice: string
  readonly needBy: string
}
/** What is written of a line, as it is typed. */
export interface Typed {
  readonly quantity: string
  readonly unitPrice: string
  readonly needBy: string
}

/**
 * The lines of an order while somebody writes what they are to be: what is typed, what of it is wrong, and what is not
 * as it stands. Begins from what was typed before, else from `begun`, else from the order.
 */
export function useTypedLines(
  order: { readonly lines: readonly WrittenLine[]; readonly currency: string },
  begun: readonly LineWish[] | null,
  kept: Record<string, Typed> | null,
) {
  const wording = useWording()
  /** Each line as it begins, and how that is written: what is not touched stays to the last decimal. */
  const first = new Map(
    order.lines.map((l) => {
      const { quantity, unitPrice, needBy } = begun?.find((w) => w.lineId === l.id) ?? l
      const text = { quantity: wording.decimal(quantity), unitPrice: wording.price(unitPrice, order.currency), needBy }
      return [l.id, { value: { quantity, unitPrice, needBy }, text }] as const
    }),
  )
  const typed = ref<Record<string, Typed>>(kept ?? Object.fromEntries([...first].map(([id, { text }]) => [id, text])))
  const typedOf = (l: WrittenLine): Typed => typed.value[l.id] ?? { quantity: '', unitPrice: '', needBy: l.needBy }
  const write = (l: WrittenLine, what: Partial<Typed>): void => {
    typed.value = { ...typed.value, [l.id]: { ...typedOf(l), ...what } }
  }
  const numberOf = (text: string): string | null => {
    const n = readTypedNumber(text, wording.decimalMark)
    return n === null || dec(n).isNegative() ? null : n
  }
  /** A number of a line as it is typed; null where it is none. */
  const valueOf = (l: WrittenLine, of: 'quantity' | 'unitPrice'): string | null => {
    const at = first.get(l.id)
    const text = typedOf(l)[of]
    return text === at?.text[of] ? at.value[of] : numberOf(text)
  }
  /** What is wrong with a line as it is typed; "" where nothing is. */
  const sayWrong = (l: WrittenLine): string => {
    if (valueOf(l, 'quantity') === null) return `“${typedOf(l).quantity}” is no quantity.`
    return valueOf(l, 'unitPrice') === null ? `“${typedOf(l).unitPrice}” is no price.` : ''
  }
  const isOff = (l: WrittenLine): boolean => {
    const n = valueOf(l, 'quantity')
    return n !== null && dec(n).isZero()
  }
  /** Lines that are not as they stand. */
  const lines = computed(() =>
    order.lines.flatMap((l): LineWish[] => {
      const t = typedOf(l)
      const [quantity, unitPrice] = [valueOf(l, 'quantity'), valueOf(l, 'unitPrice')]
      if (quantity === null || unitPrice === null) return []
      const isSame = dec(quantity).eq(dec(l.quantity)) && dec(unitPrice).eq(dec(l.unitPrice)) && t.needBy === l.needBy
      return isSame ? [] : [{ lineId: l.id, quantity, unitPrice, needBy: t.needBy }]
    }),
  )
  const wrong = computed(() => order.lines.map(sayWrong).filter((w) => w !== ''))
  return { typed, typedOf, write, sayWrong, isOff, lines, wrong }
}
