import type { PolicyCheck } from '#core/approval/findings'
import type { Policy } from '#core/approval/policy'
import type { PolicyView } from '#shared/contract/policy'

/** While somebody writes, it begins anew after so long. */
const PAUSE_MS = 400

/** What a policy hardly should do, worked out beside the page; null while that goes on. */
export function usePolicyCheck(view: () => PolicyView, policy: () => Policy) {
  const check = shallowRef<PolicyCheck | null>(null)
  const failed = ref(false)
  let worker: Worker | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  function begin(): void {
    worker?.terminate()
    failed.value = false
    worker = new Worker(new URL('./check-policy.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PolicyCheck>) => {
      check.value = data
      worker?.terminate()
    }
    worker.onerror = () => {
      failed.value = true
    }
    // A proxy cannot be cloned, and it is data all through.
    worker.postMessage(JSON.parse(JSON.stringify({ view: view(), policy: policy() })))
  }
  onMounted(() => {
    begin()
    watch([view, policy], () => {
      check.value = null
      worker?.terminate()
      clearTimeout(timer)
      timer = setTimeout(begin, PAUSE_MS)
    })
  })
  onBeforeUnmount(() => {
    clearTimeout(timer)
    worker?.terminate()
  })
  return { check, failed }
}
