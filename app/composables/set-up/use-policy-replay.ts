import { addReplayed, NOTHING_REPLAYED, type Replayed } from '#core/approval/policy-replay'
import type { Reply } from '#shared/contract/all-routes'
import type { policyRoutes } from '#shared/contract/policy'
import { sayError, useApi } from '~/composables/base/use-api'

export type ReplayedRequest = Reply<(typeof policyRoutes)['replayPolicy']>['changed'][number]

/** Of those that go another way so many are listed. */
const MOST_LISTED = 100

/** Past requests under the draft, part by part: it shows how far it came, and may be stopped between two parts. */
export function usePolicyReplay() {
  const api = useApi()
  const replayed = shallowRef<Replayed | null>(null)
  const changed = shallowRef<readonly ReplayedRequest[]>([])
  const total = ref(0)
  const running = ref(false)
  const stopped = ref(false)
  const trouble = ref('')
  let turn = 0

  async function run(wish: { from: string; until: string; departmentIds: string[]; draft: number }): Promise<void> {
    const mine = (turn += 1)
    replayed.value = NOTHING_REPLAYED
    changed.value = []
    total.value = 0
    trouble.value = ''
    stopped.value = false
    running.value = true
    try {
      for (let after: string | null = null; mine === turn;) {
        const part: Reply<(typeof policyRoutes)['replayPolicy']> = await api.post('/api/approval-policy/replays', {
          body: { ...wish, after },
        })
        if (mine !== turn) return
        replayed.value = addReplayed(replayed.value, part.replayed)
        changed.value = [...changed.value, ...part.changed].slice(0, MOST_LISTED)
        total.value = part.total ?? total.value
        if (part.next === null) break
        after = part.next
      }
    } catch (e) {
      if (mine === turn) trouble.value = sayError(e)
    } finally {
      if (mine === turn) running.value = false
    }
  }
  function stop(): void {
    turn += 1
    running.value = false
    stopped.value = true
    if (replayed.value?.requests === 0) replayed.value = null
  }
  /** What was replayed was another draft. */
  function forget(): void {
    turn += 1
    running.value = false
    stopped.value = false
    replayed.value = null
  }
  onBeforeUnmount(() => {
    turn += 1
  })
  return { replayed, changed, total, running, stopped, trouble, run, stop, forget }
}
