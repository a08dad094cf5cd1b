import type { TrayView } from '#shared/contract/order'
import { sayError, useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'
import { useSessionStore } from '~/stores/session'

/** What is done with trays, one thing at a time; what stands in the way stands on the tray that it is about. */
export function useTrayWork(trays: () => readonly TrayView[], refresh: () => Promise<void>) {
  const api = useApi()
  const undo = useUndo()
  const session = useSessionStore()
  const trouble = ref<Record<string, string>>({})
  const busy = ref<string | null>(null)
  /** The order that was issued last. */
  const issued = ref<{ id: string; number: string; supplier: string; isSent: boolean } | null>(null)
  function complain(trayId: string, sentence: string): void {
    trouble.value = { ...trouble.value, [trayId]: sentence }
  }
  /** Takes lines off a tray, or all of them; laid back, they lie there as they did. */
  async function takeOff(t: TrayView, lineIds: string[] | null): Promise<void> {
    try {
      const { parts } = await api.post('/api/trays/{id}/take-off', { params: { id: t.id }, body: { lineIds } })
      await refresh()
      undo.show(
        lineIds === null ? `The tray for ${t.supplier} is put away.` : 'Taken off the tray.',
        'Lay it back',
        10,
        async () => {
          const still = trays().some((x) => x.id === t.id)
          await api.post('/api/trays', { body: { orderId: still ? t.id : null, supplierId: t.supplierId, parts } })
          await refresh()
        },
      )
    } catch (e) {
      complain(t.id, sayError(e))
    }
  }
  /** A price, a quantity or a note that is being written down: what is issued has it. */
  let writing: Promise<unknown> = Promise.resolve()
  function agree(t: TrayView, lineId: string, unitPrice: string): void {
    writing = writing.then(() =>
      write(t, () => api.post('/api/trays/{id}/prices', { params: { id: t.id }, body: { lineId, unitPrice } })),
    )
  }
  function count(t: TrayView, lineIds: string[], quantity: string): void {
    writing = writing.then(() =>
      write(t, () => api.post('/api/trays/{id}/quantities', { params: { id: t.id }, body: { lineIds, quantity } })),
    )
  }
  function note(t: TrayView, words: string): void {
    writing = writing.then(() =>
      write(t, () => api.post('/api/trays/{id}/note', { params: { id: t.id }, body: { note: words } })),
    )
  }
  async function write(t: TrayView, work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
      await refresh()
    } catch (e) {
      complain(t.id, sayError(e))
    }
  }
  /** A direct order is a draft again, to be written on. */
  const writeOn = (id: string) =>
    doWith(id, async (t) => {
      const { id: draft } = await api.post('/api/trays/{id}/writing', {
        ...{ params: { id }, version: t.version, key: crypto.randomUUID() },
      })
      await navigateTo(`/raise/${draft}?as=order`)
    })
  /** Something done to a tray as it is now; what stands in the way stands on it. */
  async function doWith(id: string, work: (t: TrayView) => Promise<unknown>): Promise<void> {
    if (busy.value !== null) return
    busy.value = id
    trouble.value = {}
    await writing
    const t = trays().find((x) => x.id === id)
    try {
      if (t !== undefined && !(id in trouble.value)) await work(t)
    } catch (e) {
      trouble.value = { [id]: sayError(e) }
    } finally {
      await refresh()
      busy.value = null
    }
  }
  const issue = (id: string) =>
    doWith(id, async (t) => {
      const key = `issue-${t.id}-${t.version}`
      const done = await api.post('/api/orders/{id}/issue', { params: { id }, version: t.version, key })
      issued.value = { id: done.id, number: done.number, supplier: t.supplier, isSent: t.conditions.isSent }
      void session.load()
    })
  /** Which orders are to be issued as soon as they are approved, where one said so. */
  const wishes = ref<Record<string, boolean>>({})
  const wishOf = (t: TrayView) => wishes.value[t.id] ?? t.issuesItself
  function wish(t: TrayView, issuesItself: boolean): void {
    wishes.value = { ...wishes.value, [t.id]: issuesItself }
  }
  const send = (id: string) =>
    doWith(id, async (t) => {
      const key = `send-${t.id}-${t.version}`
      const body = { issuesItself: wishOf(t) }
      await api.post('/api/trays/{id}/send', { params: { id }, body, version: t.version, key })
      undo.show(`The order to ${t.supplier} is with whoever decides.`, 'Take it back', 10, () => takeBack(id))
    })
  const takeBack = (id: string) =>
    doWith(id, (t) =>
      api.post('/api/trays/{id}/withdraw', { params: { id }, version: t.version, key: `back-${t.id}-${t.version}` }),
    )
  const answer = (id: string, text: string) =>
    doWith(id, () =>
      api.post('/api/documents/{id}/answers', { params: { id }, body: { text }, key: crypto.randomUUID() }),
    )

  return {
    ...{ trouble, busy, issued, complain },
    ...{ takeOff, agree, count, note, writeOn, issue, wishOf, wish, send, takeBack, answer },
  }
}
