import { checkPolicy, type PolicyCheck } from '#core/approval/findings'
import type { Policy } from '#core/approval/policy'
import type { PolicyView } from '#shared/contract/policy'
import { worldOf } from './policy-world'

/** Longest time that a check takes; who was not looked at by then is counted. */
const MOST_MS = 10_000

self.onmessage = ({ data }: MessageEvent<{ readonly view: PolicyView; readonly policy: Policy }>) => {
  const end = performance.now() + MOST_MS
  const found: PolicyCheck = checkPolicy(data.policy, worldOf(data.view), () => performance.now() > end)
  self.postMessage(found)
}
