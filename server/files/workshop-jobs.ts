import { replayPolicy } from '#core/approval/policy-replay'
import { proposeOrders } from '#core/order/propose'
import { makePdf } from './pdf'
import { readOrderResponse } from './read-order-response'
import { readRows } from './read-rows'
import { readSheet } from './read-sheet'
import { writeXlsx } from './write-sheet'

/** What the workshop does: all that reads a stranger's file, or is long at work on ours. */
export const JOBS = {
  'read-sheet': readSheet,
  'read-rows': readRows,
  'read-order-response': readOrderResponse,
  'write-xlsx': writeXlsx,
  'make-pdf': makePdf,
  'replay-policy': replayPolicy,
  'propose-orders': proposeOrders,
} as const
export type Job = keyof typeof JOBS
export type Given<J extends Job> = Parameters<(typeof JOBS)[J]>
export type Made<J extends Job> = Awaited<ReturnType<(typeof JOBS)[J]>>

/** A piece of work on its way to the workshop, and what comes back. */
export interface Errand {
  readonly job: Job
  readonly given: readonly unknown[]
}
export type Answer =
  | { readonly made: unknown }
  | { readonly problem: { readonly status: number; readonly type: string; readonly detail: string } }
  | { readonly fault: string }
