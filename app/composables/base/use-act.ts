import { sayError } from '~/composables/base/use-api'

/** Does one thing at a time: what is pressed meanwhile is left, and a refusal becomes a sentence. */
export function useAct() {
  const busy = ref(false)
  const trouble = ref('')
  /** True when the work was done; false where it was refused, or something else was being done. */
  async function act(work: () => Promise<unknown>): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    trouble.value = ''
    try {
      await work()
      return true
    } catch (e) {
      trouble.value = sayError(e)
      return false
    } finally {
      busy.value = false
    }
  }
  return { busy, trouble, act }
}
