import type { PolicyCheck } from '#core/approval/findings'
import type { PolicyView } from '#shared/contract/policy'

/** What a policy hardly should do, worked out beside the page; null while that goes on. */
export function usePolicyCheck(view: () => PolicyView | null) {
  const check = shallowRef<PolicyCheck | null>(null)
  const failed = ref(false)
  let worker: Worker | undefined
  function begin(): void {
    worker?.terminate()
    check.value = null
    failed.value = false
    const now = view()
    if (now === null) return
    worker = new Worker(new URL('./check-policy.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PolicyCheck>) => {
      check.value = data
      worker?.terminate()
    }
    worker.onerror = () => {
      failed.value = true
    }
    worker.postMessage(JSON.parse(JSON.stringify(now)))
  }
  onMounted(() => {
    watch(view, begin, { immediate: true })
  })
  onBeforeUnmount(() => worker?.terminate())
  return { check, failed }
}
