import { directBounds, directReasons, directWorth, type DirectReason } from '#core/order/direct'
import type { FieldRef } from '#core/requisition/missing'
import { sayDirectReason } from '#shared/words/direct'
import type { Lack } from './judge'
import type { useDraft } from './use-draft'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

function placeOf(r: DirectReason): FieldRef {
  if (r.code === 'direct-own-need') return 'owner'
  return r.code === 'direct-no-supplier' ? { line: r.lineId, field: 'supplier' } : 'lines'
}

/** That a buyer orders what they write themselves, without a request; and what stands in the way of it. */
export function useDirectOrder(
  d: Pick<ReturnType<typeof useDraft>, 'draft' | 'ownerId' | 'facts' | 'judgement'>,
  given: { readonly number: string | null; readonly begins: boolean },
) {
  const { me } = useSessionStore()
  const wording = useWording()
  const mayOrder = me?.rights.includes('order') === true && given.number === null
  /** It is ordered, and not sent as a request. */
  const isDirect = ref(mayOrder && given.begins)
  const lacks = computed<Lack[]>(() => {
    if (!isDirect.value) return []
    const buyerId = me?.id ?? ''
    const ownerId = d.ownerId.value === '' ? buyerId : d.ownerId.value
    const { policy, perBase, baseCurrency } = d.facts.value
    const worth = directWorth(d.judgement.value.verdict.sums, perBase, baseCurrency)
    return [
      ...directBounds(policy.directOrders, worth),
      ...directReasons(d.draft, { ownerId, buyerId, number: given.number }),
    ].map((r) => ({
      ...{ at: placeOf(r), stops: true, sentence: sayDirectReason(r, wording.ways), refuses: false },
    }))
  })
  return { mayOrder, isDirect, lacks }
}
