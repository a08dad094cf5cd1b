/** The background work there is. Queues are made in the migration step, as the owner. */
export const TASKS = [
  'send-mail',
  'mail-approved',
  'issue-approved',
  'put-change-in-force',
  'send-order',
  'begin-ordering',
  'order-by-rule',
  'file-order',
  'sweep',
  'route-all-again',
  'route-again',
  'remind-all-late',
  'remind-late',
  'lay-chain',
  'check-integrity',
  'repeat-templates',
  'repeat-template',
  'send-repeated',
  'raise-parts',
  'send-parts',
  'daily-letters',
  'daily-letter',
  'keep-suppliers',
  'tell-shares',
  'keep-agreements',
  'lay-file',
  'look-at-file',
  'take-file',
  'take-file-back',
  'purge',
  'drop-files',
  'task-ended',
] as const
export type Task = (typeof TASKS)[number]

/** Whoever asked for what is done by itself as well; null, or not said, where it was time for it. */
export interface AskedFor {
  readonly byId?: string | null
}

/** What each is told; one task is about one document. */
export interface TaskData {
  'send-mail': { readonly mailId: string }
  'mail-approved': { readonly requisitionId: string; readonly decisionId: string | null }
  'issue-approved': { readonly orderId: string; readonly round: number; readonly decisionId: string | null }
  'put-change-in-force': { readonly changeId: string; readonly round: number; readonly decisionId: string | null }
  'send-order': { readonly sendingId: string }
  'file-order': { readonly orderId: string; readonly revision: number }
  /** The rules of ordering by itself whose hour has come. */
  'begin-ordering': AskedFor
  'order-by-rule': {
    readonly ruleId: string
    readonly cause: 'approval' | 'time' | 'asked'
    readonly byId: string | null
    /** What was approved, where that is why: nothing is begun where the rule covers nothing of it. */
    readonly requisitionId: string | null
  }
  sweep: AskedFor
  'route-all-again': AskedFor
  'route-again': { readonly kind: string; readonly id: string }
  'remind-all-late': AskedFor
  'remind-late': { readonly kind: string; readonly id: string }
  'lay-chain': AskedFor
  'check-integrity': AskedFor
  'repeat-templates': AskedFor
  'repeat-template': { readonly templateId: string }
  'send-repeated': { readonly requisitionId: string }
  'raise-parts': { readonly jobId: string; readonly partIds: readonly string[]; readonly personId: string }
  'send-parts': { readonly requisitionId: string }
  'daily-letters': AskedFor
  'daily-letter': { readonly personId: string }
  'keep-suppliers': AskedFor
  'tell-shares': AskedFor
  'keep-agreements': AskedFor
  'lay-file': { readonly fileId: string }
  'look-at-file': { readonly fileId: string }
  'take-file': { readonly fileId: string }
  'take-file-back': { readonly fileId: string; readonly byId: string }
  purge: AskedFor
  /** Files that lost what carried them. */
  'drop-files': { readonly hashes: readonly string[] }
  'task-ended': Record<string, unknown>
}

/** Tasks that wait for others outside have several workers, so that a slow one holds up the few behind it alone. */
export const WORKERS: Partial<Record<Task, number>> = { 'send-mail': 3, 'send-order': 2 }

/** Tasks of one long transaction: whoever died over one is noticed later. */
export const LONG: readonly Task[] = ['take-file', 'take-file-back', 'order-by-rule', 'lay-chain', 'check-integrity']

/** Where a task goes that was tried for days: an administrator is told of it there. */
export const ENDED: Task = 'task-ended'
