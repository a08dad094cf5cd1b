import type { RequestRule } from '#core/requisition/rules'
import type { RulesReplay } from '#shared/contract/request-form'
import { sayReplay } from '#shared/words/request-form'
import { useApi } from '~/composables/base/use-api'

const AFTER_MS = 500

/**
 * What rules would have done with the requests sent last, worked out anew a moment after they change; only sound rules
 * are sent.
 */
export function useReplay(rules: () => readonly RequestRule[], sound: () => boolean) {
  const api = useApi()
  const replay = shallowRef<RulesReplay | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  let turn = 0
  function later(): void {
    clearTimeout(timer)
    replay.value = null
    const mine = (turn += 1)
    if (!sound() || rules().length === 0) return
    timer = setTimeout(() => {
      // Figures that cannot be had are left out; nothing hangs on them.
      void api.post('/api/request-form/replays', { body: { rules: rules() } }).then(
        (found) => {
          if (mine === turn) replay.value = found
        },
        () => undefined,
      )
    }, AFTER_MS)
  }
  onMounted(() => {
    watch(() => rules().map((r) => [r.when, r.asks]), later, { deep: true, immediate: true })
  })
  onBeforeUnmount(() => {
    clearTimeout(timer)
  })
  return {
    replay,
    say: (at: number) => {
      const figures = replay.value?.rules[at]
      return figures === undefined || replay.value === null ? '' : sayReplay(figures, replay.value.sent)
    },
  }
}
