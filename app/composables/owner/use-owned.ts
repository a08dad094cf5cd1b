import type { OwnedView } from '#shared/contract/owner'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount } from '#shared/words/format'
import { sayOwned } from '#shared/words/owner'
import { sayError, useApi } from '~/composables/base/use-api'

/** All that a person owns, looked at and then given to others in one action. */
export function useOwned() {
  const api = useApi()
  const whose = shallowRef<PersonFound | null>(null)
  const requestsTo = shallowRef<PersonFound | null>(null)
  const ordersTo = shallowRef<PersonFound | null>(null)
  const owned = shallowRef<OwnedView | null>(null)
  const trouble = ref('')
  const said = ref('')
  const busy = ref(false)

  async function look(): Promise<void> {
    const of = whose.value
    owned.value = null
    trouble.value = ''
    if (of === null) return
    try {
      const found = await api.get('/api/people/{id}/owned', { params: { id: of.id } })
      if (whose.value?.id === of.id) owned.value = found
    } catch (e) {
      trouble.value = sayError(e)
    }
  }
  watch(whose, () => {
    said.value = ''
    void look()
  })

  async function handOver(): Promise<void> {
    const of = whose.value
    if (of === null || busy.value) return
    trouble.value = ''
    busy.value = true
    try {
      const done = await api.post('/api/people/{id}/owned/hand-over', {
        params: { id: of.id },
        body: { requestsTo: requestsTo.value?.id ?? null, ordersTo: ordersTo.value?.id ?? null },
        key: crypto.randomUUID(),
      })
      const stay =
        done.kept === 0
          ? ''
          : ` ${capital(formatCount(done.kept, 'request stays', 'requests stay'))}: ` +
            `${requestsTo.value?.name ?? ''} has decided on ${done.kept === 1 ? 'it' : 'them'}; choose somebody else.`
      said.value = `Handed over: ${sayOwned(done)} of ${of.name}.${stay}`
      requestsTo.value = null
      ordersTo.value = null
      await look()
    } catch (e) {
      trouble.value = sayError(e)
    } finally {
      busy.value = false
    }
  }
  return { whose, requestsTo, ordersTo, owned, trouble, said, busy, handOver }
}
