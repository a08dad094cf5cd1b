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

/** After so long without a key what is written is looked at on the server. */
const PAUSE = 250

/**
 * An issued order while its buyer writes what it is to be: what is typed, what of it is wrong, and what the server says
 * it would come to. Begins from a change that came back, else from the order as it stands.
 */
export function useOrderChange(order: OrderView) {
  const api = useApi()
  const wording = useWording()
  const before = order.change
  const wishedOf = (l: Line) => before?.lines.find((w) => w.lineId === l.id)
  const typed = ref<Record<string, Typed>>(
    Object.fromEntries(
      order.lines.map((l) => {
        const wished = wishedOf(l)
        const from = { quantity: wished?.quantity ?? l.quantity, unitPrice: wished?.unitPrice ?? l.unitPrice }
        return [
          l.id,
          {
            quantity: wording.decimal(from.quantity),
            unitPrice: wording.price(from.unitPrice, order.currency),
            needBy: wished?.needBy ?? l.needBy,
          },
        ]
      }),
    ),
  )
  const shipToId = ref<string | null>(before?.shipToId ?? order.shipToId)
  const rest = ref<OrderRest>(before?.rest ?? 'returns')
  const reason = ref(before?.reason ?? '')
  const note = ref(before?.note ?? '')
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
  /** What is wrong with a line as it is typed; "" where nothing is. */
  const sayWrong = (l: Line): string => {
    const { quantity, unitPrice } = typedOf(l)
    if (numberOf(quantity) === null) return `“${quantity}” is no quantity.`
    return numberOf(unitPrice) === null ? `“${unitPrice}” is no price.` : ''
  }
  const isOff = (l: Line): boolean => {
    const n = numberOf(typedOf(l).quantity)
    return n !== null && dec(n).isZero()
  }
  const lines = computed(() =>
    order.lines.flatMap((l) => {
      const t = typedOf(l)
      const [quantity, unitPrice] = [numberOf(t.quantity), numberOf(t.unitPrice)]
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
  }
}
