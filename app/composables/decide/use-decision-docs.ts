import type { DecisionView } from '#shared/contract/decide'
import { useApi } from '~/composables/base/use-api'

/** How many of those that follow are fetched before one comes to them. */
const AHEAD = 3

/**
 * What is decided on, whole, each fetched before one comes to it: so that deciding ten in a row waits for nothing.
 * `wanted` is shown; `following` are the next ones, the nearest first.
 */
export function useDecisionDocs(wanted: Readonly<Ref<string | null>>, following: Readonly<Ref<readonly string[]>>) {
  const api = useApi()
  const docs = shallowReactive(new Map<string, DecisionView>())
  const under = new Map<string, Promise<void>>()
  const problem = shallowRef<unknown>(null)

  const fetch = (id: string) => api.get('/api/documents/{id}/decision', { params: { id } })
  const first = useAsyncData('decision', () => (wanted.value === null ? Promise.resolve(null) : fetch(wanted.value)))
  const ready = first.then(({ data, error }) => {
    if (data.value) docs.set(data.value.id, data.value)
    problem.value = error.value ?? null
  })

  async function load(id: string): Promise<void> {
    try {
      docs.set(id, await fetch(id))
      if (id === wanted.value) problem.value = null
    } catch (e) {
      // One that was only fetched ahead says its trouble when one comes to it.
      if (id === wanted.value) problem.value = e
    } finally {
      under.delete(id)
    }
  }
  function want(id: string): Promise<void> {
    const loading = under.get(id) ?? load(id)
    under.set(id, loading)
    return loading
  }
  /** Fetches one anew, while what is known of it stays shown. */
  async function again(id: string): Promise<void> {
    await under.get(id)
    await want(id)
  }
  const fetchAhead = () => {
    for (const id of following.value.slice(0, AHEAD)) if (!docs.has(id)) void want(id)
  }
  watch(wanted, (id) => {
    problem.value = null
    if (id !== null && !docs.has(id)) void want(id)
  })
  onMounted(() => {
    watch(following, fetchAhead, { immediate: true })
  })

  return {
    /** The first is there, also where the page is drawn on the server. */
    ready,
    doc: computed(() => (wanted.value === null ? null : (docs.get(wanted.value) ?? null))),
    problem,
    again,
    /** What changed elsewhere, or was decided, is not known any more. */
    forget: (id: string) => {
      docs.delete(id)
    },
    /** After the server was not heard for a while all but what is shown may have changed. */
    forgetOthers: () => {
      for (const id of [...docs.keys()]) if (id !== wanted.value) docs.delete(id)
    },
  }
}
