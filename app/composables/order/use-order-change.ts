import { dec } from '#core/base/decimal'
import { areAlike } from '#core/order/adjustment'
import type { Reply } from '#shared/contract/all-routes'
import type { OrderView } from '#shared/contract/order'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { missingOf, readAdjustments, typedOf, type TypedAdjustment } from '~/composables/order/typed-adjustment'
import { useTypedLines, type Typed } from '~/composables/order/use-typed-lines'

type Checked = Reply<(typeof orderChangeRoutes)['checkOrderChange']>
export type OrderRest = 'returns' | 'ends'
/** What was typed and not sent, of the order as it stood then. */
interface Kept {
  readonly revision: number
  readonly typed: Record<string, Typed>
  readonly shipToId: string | null
  readonly expiresOn: string | null
  readonly adjustments: TypedAdjustment[]
  readonly rest: OrderRest
  readonly reason: string
  readonly note: string
}

/** What is kept at a place in this browser; null where nothing is, or the order was changed since. */
function readKept(place: string, revision: number): Kept | null {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? 'null') as Kept | null
    return kept?.revision === revision ? kept : null
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
  const revision = order.revisions[0]?.revision ?? 0
  const kept = readKept(place, revision)
  const written = useTypedLines(order, before?.lines ?? null, kept?.typed ?? null)
  const { typed, lines, wrong } = written
  const shipToId = ref<string | null>(kept?.shipToId ?? before?.shipToId ?? order.shipToId)
  const expiresOn = ref<string | null>(kept?.expiresOn ?? before?.expiresOn ?? order.expiresOn)
  const adjustments = ref<TypedAdjustment[]>(
    kept?.adjustments ?? typedOf(before?.adjustments ?? order.saidAdjustments, wording, order.currency),
  )
  const adjusted = computed(() => readAdjustments(adjustments.value, wording.decimalMark))
  /** What of it is missing; where, and what it is called. */
  const missing = computed(() => missingOf(adjustments.value, wording.decimalMark))
  const rest = ref<OrderRest>(kept?.rest ?? before?.rest ?? 'returns')
  const reason = ref(kept?.reason ?? before?.reason ?? '')
  const note = ref(kept?.note ?? before?.note ?? '')
  const checked = shallowRef<Checked | null>(null)
  const trouble = ref('')

  /** Something of it is ordered less. */
  const isLess = computed(() =>
    lines.value.some((w) => dec(w.quantity).lt(dec(order.lines.find((l) => l.id === w.lineId)?.quantity ?? '0'))),
  )
  const wishes = computed(() => ({
    lines: lines.value,
    shipToId: shipToId.value === order.shipToId ? null : shipToId.value,
    expiresOn: expiresOn.value === order.expiresOn ? null : expiresOn.value,
    adjustments: areAlike(adjusted.value, order.saidAdjustments) ? null : adjusted.value,
    rest: rest.value,
    reason: reason.value,
    note: note.value,
  }))
  const isNothing = computed(
    () =>
      wishes.value.lines.length === 0 &&
      [wishes.value.shipToId, wishes.value.expiresOn, wishes.value.adjustments].every((w) => w === null),
  )

  // What is typed outlives the page, until it is sent or left.
  watch(
    [typed, shipToId, expiresOn, adjustments, rest, reason, note],
    () => {
      const now: Kept = {
        revision,
        typed: typed.value,
        shipToId: shipToId.value,
        expiresOn: expiresOn.value,
        adjustments: adjustments.value,
        rest: rest.value,
        reason: reason.value,
        note: note.value,
      }
      localStorage.setItem(place, JSON.stringify(now))
    },
    { deep: true },
  )
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
    [() => JSON.stringify([lines.value, shipToId.value, expiresOn.value, adjusted.value, rest.value]), wrong, missing],
    () => {
      clearTimeout(timer)
      turn += 1
      if (isNothing.value || wrong.value.length > 0 || missing.value.length > 0) checked.value = null
      else timer = setTimeout(() => void check(), PAUSE)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    turn += 1
  })
  return {
    typedOf: written.typedOf,
    write: written.write,
    sayWrong: written.sayWrong,
    isOff: written.isOff,
    isLess,
    isNothing,
    wishes,
    wrong,
    missing,
    checked,
    trouble,
    shipToId,
    expiresOn,
    adjustments,
    rest,
    reason,
    note,
    forget,
  }
}
