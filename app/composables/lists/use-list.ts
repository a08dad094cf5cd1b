import { LISTS } from '#core/lists/definitions'
import type { ListName, Values } from '#core/lists/list'
import type { KnownEntries } from '#core/lists/read-rows'
import type { GivenRows, ListChangeView, ListView } from '#shared/contract/lists'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'

/** A list while it is looked at and changed, with its last changes. */
export function useList(
  name: ListName,
  start: { readonly view: ListView; readonly changes: readonly ListChangeView[] },
) {
  const api = useApi()
  const list = LISTS[name]
  const view = shallowRef(start.view)
  const changes = shallowRef(start.changes)
  const busy = ref(false)
  const trouble = ref('')
  const at = { params: { list: name } } as const

  async function read(): Promise<void> {
    const [next, then] = await Promise.all([api.get('/api/lists/{list}', at), api.get('/api/lists/{list}/changes', at)])
    view.value = next
    changes.value = then.changes
  }

  /** Does one thing at a time; a refusal becomes a sentence, and what somebody else changed is read. */
  async function act<T>(work: () => Promise<T>): Promise<T | null> {
    if (busy.value) return null
    busy.value = true
    trouble.value = ''
    try {
      const done = await work()
      await read()
      return done
    } catch (e) {
      trouble.value = sayError(e)
      if (e instanceof ApiProblem && e.status === 412) await read().catch(() => undefined)
      return null
    } finally {
      busy.value = false
    }
  }
  /** Takes rows; null where they were refused. */
  const keep = (given: GivenRows & { readonly source: string; readonly gone: 'keep' | 'retire' }) => {
    // One key for one try: what is repeated by a lost answer happens once.
    const key = crypto.randomUUID()
    return act(() => api.post('/api/lists/{list}/rows', { ...at, body: given, version: view.value.version, key }))
  }
  const undo = (seq: number) =>
    act(() =>
      api.remove('/api/lists/{list}/changes/{seq}', {
        params: { list: name, seq },
        version: view.value.version,
      }),
    )

  /** How entries of other lists are called, by their keys. */
  const called = computed(
    () =>
      new Map(
        Object.entries(view.value.called).flatMap(([of, entries]) =>
          entries.map((e) => [`${of} ${e.key.toLowerCase()}`, e.name || e.key] as const),
        ),
      ),
  )
  /** A value as people read it: names instead of keys. */
  function say(column: string, values: Values): string {
    const text = values[column] ?? ''
    const kind = list.columns.find((c) => c.key === column)?.kind
    if (kind?.is !== 'entry' || text === '') return text
    return text
      .split(', ')
      .map((t) => called.value.get(`${kind.of} ${t.toLowerCase()}`) ?? t)
      .join(', ')
  }
  /** What may be written to name entries, as the server has it. */
  const known = computed<KnownEntries>(() =>
    Object.fromEntries(
      Object.entries(view.value.called).map(([of, entries]) => [
        of,
        new Map(entries.map((e) => [e.key.toLowerCase(), e.key])),
      ]),
    ),
  )
  return { list, view, changes, busy, trouble, read, keep, undo, say, known }
}
