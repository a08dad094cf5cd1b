import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import type { Reply } from '#shared/contract/all-routes'
import type { OrderView } from '#shared/contract/order'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

type Checked = Reply<(typeof orderChangeRoutes)['checkOrderChange']>
type Line = OrderView['lines'][number]
export type OrderRest = 'returns' | 'ends'
/** What is written of a line, as it is typed. */
interface Typed {
  readonly quantity: string
  readonly unitPrice: string
  readonly needBy: string
}

/** What was typed and not sent, of the order as it stood then. */
interface Kept {
  readonly version: number
  readonly typed: Record<string, Typed>
  readonly shipToId: string | null
  readonly rest: OrderRest
  readonly reason: string
  readonly note: string
}

/** What is kept at a place in this browser; null where nothing is, or the order was changed since. */
function readKept(place: string, version: number): Kept | null {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? 'null') as Kept | null
    return kept?.version === version ? kept : null
  } catch {
    return null
  }
}

/** After so long without a key what is written is looked at on the server. */
const PAUSE = 250

/**
 * An issued order while its buyer writes what it is to be: what is typed, what of it is wrong, and what the server says
 * it would come to. Begins from what was typed and not sent in this browser, else from a change that came back, else
 * from the order as it stands.
 */
export function useOrderChange(order: OrderView) {
  const api = useApi()
  const wording = useWording()
  const place = `rekko change of ${order.id} by ${order.buyerId}`
  const before = order.change
  /** Each line as it begins, and how that is written: what is not touched stays to the last decimal. */
  const begun = new Map(
    order.lines.map((l) => {
      const { quantity, unitPrice, needBy } = before?.lines.find((w) => w.lineId === l.id) ?? l
      const text = { quantity: wording.decimal(quantity), unitPrice: wording.price(unitPrice, order.currency), needBy }
      return [l.id, { value: { quantity, unitPrice, needBy }, text }] as const
    }),
  )
  const kept = readKept(place, order.version)
  const typed = ref<Record<string, Typed>>(
    kept?.typed ?? Object.fromEntries([...begun].map(([id, { text }]) => [id, text])),
  )
  const shipToId = ref<string | null>(kept?.shipToId ?? before?.shipToId ?? order.shipToId)
  const rest = ref<OrderRest>(kept?.rest ?? before?.rest ?? 'returns')
  const reason = ref(kept?.reason ?? before?.reason ?? '')
  const note = ref(kept?.note ?? before?.note ?? '')
  const checked = shallowRef<Checked | null>(null)
  const trouble = ref('')

  const typedOf = (l: Line): Typed => typed.value[l.id] ?? { quantity: '', unitPrice: '', needBy: l.needBy }
  const write = (l: Line, what: Partial<Typed>): void => {
    typed.value = { ...typed.value, [l.id]: { ...typedOf(l), ...what } }
  }
  const numberOf = (text: string): string | null => {
    const n = readTypedNumber(text, wording.decimalMark)
    return n === null || dec(n).isNegative() ? null : n
  }
  /** A number of a line as it is typed; null where it is none. */
  const valueOf = (l: Line, of: 'quantity' | 'unitPrice'): string | null => {
    const at = begun.get(l.id)
    const text = typedOf(l)[of]
    return text === at?.text[of] ? at.value[of] : numberOf(text)
  }
  /** What is wrong with a line as it is typed; "" where nothing is. */
  const sayWrong = (l: Line): string => {
    if (valueOf(l, 'quantity') === null) return `“${typedOf(l).quantity}” is no quantity.`
    return valueOf(l, 'unitPrice') === null ? `“${typedOf(l).unitPrice}” is no price.` : ''
  }
  const isOff = (l: Line): boolean => {
    const n = valueOf(l, 'quantity')
    return n !== null && dec(n).isZero()
  }
  const lines = computed(() =>
    order.lines.flatMap((l) => {
      const t = typedOf(l)
      const [quantity, unitPrice] = [valueOf(l, 'quantity'), valueOf(l, 'unitPrice')]
      if (quantity === null || unitPrice === null) return []
      const isSame = dec(quantity).eq(dec(l.quantity)) && dec(unitPrice).eq(dec(l.unitPrice)) && t.needBy === l.needBy
      return isSame ? [] : [{ lineId: l.id, quantity, unitPrice, needBy: t.needBy }]
    }),
  )
  const wrong = computed(() => order.lines.map(sayWrong).filter((w) => w !== ''))
  /** Something of it is ordered less. */
  const isLess = computed(() =>
    lines.value.some((w) => dec(w.quantity).lt(dec(order.lines.find((l) => l.id === w.lineId)?.quantity ?? '0'))),
  )
  const wishes = computed(() => ({
    lines: lines.value,
    shipToId: shipToId.value === order.shipToId ? null : shipToId.value,
    rest: rest.value,
    reason: reason.value,
    note: note.value,
  }))
  const isNothing = computed(() => wishes.value.lines.length === 0 && wishes.value.shipToId === null)

  // What is typed outlives the page, until it is sent or left.
  watch([typed, shipToId, rest, reason, note], () => {
    const now: Kept = {
      version: order.version,
      typed: typed.value,
      shipToId: shipToId.value,
      rest: rest.value,
      reason: reason.value,
      note: note.value,
    }
    localStorage.setItem(place, JSON.stringify(now))
  })
  const forget = (): void => {
    localStorage.removeItem(place)
  }

  let turn = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  async function check(): Promise<void> {
    const mine = (turn += 1)
    try {
      const found = await api.post('/api/orders/{id}/change-checks', {
        params: { id: order.id },
        body: wishes.value,
      })
      if (mine === turn) [checked.value, trouble.value] = [found, '']
    } catch (e) {
      if (mine === turn) trouble.value = sayError(e)
    }
  }
  watch(
    [() => JSON.stringify([lines.value, shipToId.value, rest.value]), wrong],
    () => {
      clearTimeout(timer)
      turn += 1
      if (isNothing.value || wrong.value.length > 0) checked.value = null
      else timer = setTimeout(() => void check(), PAUSE)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    turn += 1
  })
  return {
    typedOf,
    write,
    sayWrong,
    isOff,
    isLess,
    isNothing,
    wishes,
    wrong,
    checked,
    trouble,
    shipToId,
    rest,
    reason,
    note,
    forget,
  }
}
