import { checkPolicy, type PolicyCheck } from '#core/approval/findings'
import type { PolicyView } from '#shared/contract/policy'
import { worldOf } from './policy-world'

/** Longest time that a check takes; who was not looked at by then is counted. */
const MOST_MS = 10_000

self.onmessage = ({ data }: MessageEvent<PolicyView>) => {
  const end = performance.now() + MOST_MS
  const found: PolicyCheck = checkPolicy(data.policy, worldOf(data), () => performance.now() > end)
  self.postMessage(found)
}
