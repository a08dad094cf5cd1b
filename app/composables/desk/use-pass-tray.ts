import type { TrayView } from '#shared/contract/order'
import { sayError, useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'
import { useSessionStore } from '~/stores/session'

/** A tray that is being passed to a colleague, and whom it may go to. */
interface Passing {
  readonly tray: TrayView
  readonly buyers: readonly { readonly id: string; readonly name: string; readonly mayIssue: boolean }[]
}

/** Passes trays to other buyers, with an undo while they have not touched them. */
export function usePassTray(o: {
  readonly refresh: () => Promise<void>
  readonly complain: (trayId: string, sentence: string) => void
}) {
  const api = useApi()
  const undo = useUndo()
  const session = useSessionStore()
  const passing = shallowRef<Passing | null>(null)

  async function begin(tray: TrayView): Promise<void> {
    o.complain(tray.id, '')
    try {
      const { buyers } = await api.get('/api/trays/{id}/buyers', { params: { id: tray.id } })
      passing.value = { tray, buyers }
    } catch (e) {
      o.complain(tray.id, sayError(e))
    }
  }
  const give = (id: string, version: number, personId: string) =>
    api.post('/api/trays/{id}/pass', { params: { id }, version, body: { personId }, key: crypto.randomUUID() })
  async function pass(to: { readonly id: string; readonly name: string }): Promise<void> {
    const tray = passing.value?.tray
    passing.value = null
    if (tray === undefined) return
    try {
      const { version } = await give(tray.id, tray.version, to.id)
      await o.refresh()
      undo.show(`The tray for ${tray.supplier} is ${to.name}’s now.`, 'Take it back', 10, async () => {
        await give(tray.id, version, session.me?.id ?? '')
        await o.refresh()
      })
    } catch (e) {
      o.complain(tray.id, sayError(e))
      await o.refresh()
    }
  }
  function leave(): void {
    passing.value = null
  }
  return { passing, begin, pass, leave }
}
