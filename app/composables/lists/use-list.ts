import { unitName } from '#core/base/unit'
import { LISTS } from '#core/lists/definitions'
import { stepsOf } from '#core/catalogue/typed-steps'
import { wordsFit } from '#core/lists/find-entries'
import type { ListName, Values } from '#core/lists/list'
import type { KnownEntries } from '#core/lists/read-rows'
import type { GivenRows, ListChangeView, ListView } from '#shared/contract/lists'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { sayEntry } from '~/composables/lists/say-entry'
import { useWording } from '~/composables/base/use-wording'

/** Of a list too long to be told whole, every text may name an entry: the server knows. */
class Unchecked extends Map<string, string> {
  override get(text: string): string {
    return super.get(text) ?? text
  }
}

/** A list while it is looked at and changed, with its last changes. */
export function useList(
  name: ListName,
  start: { readonly view: ListView; readonly changes: readonly ListChangeView[] },
) {
  const api = useApi()
  const wording = useWording()
  const list = LISTS[name]
  const view = shallowRef(start.view)
  const changes = shallowRef(start.changes)
  const busy = ref(false)
  const trouble = ref('')
  const at = { params: { list: name } } as const

  const words = ref('')
  const get = () => api.get('/api/lists/{list}', { ...at, query: { words: words.value } })
  /** Looks for words on the server, where the list is longer than one answer carries. */
  async function look(asked: string): Promise<void> {
    try {
      const next = await get()
      if (asked === words.value) view.value = next
    } catch (e) {
      trouble.value = sayError(e)
    }
  }
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(words, (typed) => {
    clearTimeout(timer)
    if (isLong.value) timer = setTimeout(() => void look(typed), 200)
  })
  onScopeDispose(() => clearTimeout(timer))
  const isLong = ref(start.view.count > start.view.entries.length)

  async function read(): Promise<void> {
    const [next, then] = await Promise.all([get(), api.get('/api/lists/{list}/changes', at)])
    if (words.value === '') isLong.value = next.count > next.entries.length
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
  const keep = (
    given: GivenRows & { readonly source: string; readonly gone: 'keep' | 'retire'; readonly onlyNew?: boolean },
  ) => {
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
  /** The entries in which every word stands that was typed. */
  const found = computed(() => {
    const fits = wordsFit(list, isLong.value ? '' : words.value, (of, key) => called.value.get(`${of} ${key}`) ?? '')
    return view.value.entries.filter((e) => fits(e.values))
  })
  /** A value as people read it: names instead of keys. */
  function say(column: string, values: Values): string {
    const text = values[column] ?? ''
    const kind = list.columns.find((c) => c.key === column)?.kind
    if (kind?.is === 'unit') return unitName(text)
    if (kind?.is === 'steps') return saySteps(text, values.currency ?? '')
    if (kind?.is !== 'entry' || text === '') return text
    return text
      .split(', ')
      .map((t) => called.value.get(`${kind.of} ${t.toLowerCase()}`) ?? t)
      .join(', ')
  }
  /** What an entry is called. */
  const sayName = (values: Values): string =>
    sayEntry(list, values, (of, key) => called.value.get(`${of} ${key.toLowerCase()}`))
  const saySteps = (plain: string, currency: string) =>
    stepsOf(plain)
      .map(({ from, unitPrice }) => {
        const price = wording.price(unitPrice, currency)
        return from === '1' ? price : `${wording.decimal(from)}: ${price}`
      })
      .join('; ')
  /** What may be written to name entries, as the server has it. */
  const known = computed<KnownEntries>(() =>
    Object.fromEntries(
      Object.entries(view.value.called).map(([of, entries]) => {
        const keys = entries.map((e) => [e.key.toLowerCase(), e.key] as const)
        const names = entries.map((e) => [e.name.toLowerCase(), e.key] as const)
        return [of, view.value.long.includes(of as ListName) ? new Unchecked(keys) : new Map([...names, ...keys])]
      }),
    ),
  )
  return { list, view, words, found, isLong, changes, busy, trouble, read, keep, undo, say, sayName, known }
}
