import type { ProposedOrderView } from '#shared/contract/proposal'
import { formatCount } from '#shared/words/format'
import { sayError, useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'

/** As many lines as one request lays on a tray. */
const AT_ONCE = 500

/** Lays proposed orders on trays, one after another, with what is done so far; may be stopped, and undone. */
export function useProposals(after: () => Promise<unknown>) {
  const api = useApi()
  const undo = useUndo()
  const done = ref(0)
  const of = ref(0)
  const isStopped = ref(false)
  const troubles = ref<{ key: string; says: string }[]>([])
  const isLaying = computed(() => of.value > 0)

  async function layOne(order: ProposedOrderView): Promise<string> {
    let orderId: string | null = null
    for (let from = 0; from < order.parts.length; from += AT_ONCE) {
      const parts = order.parts.slice(from, from + AT_ONCE)
      const made: { orderId: string } = await api.post('/api/trays', {
        body: { orderId, supplierId: order.supplierId, parts },
        key: crypto.randomUUID(),
      })
      orderId = made.orderId
    }
    return orderId ?? ''
  }

  /** Lays them; what does not go says why, and the others go on. Gives back how many trays there are now. */
  async function lay(orders: readonly ProposedOrderView[]): Promise<number> {
    if (isLaying.value || orders.length === 0) return 0
    of.value = orders.length
    done.value = 0
    isStopped.value = false
    troubles.value = []
    const trays: string[] = []
    try {
      for (const order of orders) {
        if (isStopped.value) break
        try {
          trays.push(await layOne(order))
        } catch (e) {
          troubles.value = [...troubles.value, { key: order.key, says: `${order.supplier}: ${sayError(e)}` }]
        }
        done.value += 1
      }
    } finally {
      of.value = 0
    }
    await after()
    if (trays.length > 0)
      undo.show(
        `${formatCount(trays.length, 'order lies', 'orders lie')} on ${trays.length === 1 ? 'a tray' : 'trays'}.`,
        'Lay the lines back',
        20,
        async () => {
          for (const id of trays)
            await api.post('/api/trays/{id}/take-off', { params: { id }, body: { lineIds: null } })
          await after()
        },
      )
    return trays.length
  }

  const stop = () => {
    isStopped.value = true
  }
  return { lay, stop, done, of, isLaying, isStopped, troubles }
}
