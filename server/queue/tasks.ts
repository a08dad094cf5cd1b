/** The background work there is. Queues are made in the migration step, as the owner. */
export const TASKS = [
  'send-mail',
  'mail-approved',
  'send-order',
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
  'lay-file',
  'look-at-file',
  'take-file',
  'take-file-back',
  'purge',
  'drop-files',
  'task-ended',
] as const
export type Task = (typeof TASKS)[number]

/** What each is told; one task is about one document. */
export interface TaskData {
  'send-mail': { readonly mailId: string }
  'mail-approved': { readonly requisitionId: string; readonly decisionId: string | null }
  'send-order': { readonly sendingId: string }
  'file-order': { readonly orderId: string; readonly revision: number }
  sweep: Record<string, never>
  'route-all-again': Record<string, never>
  'route-again': { readonly kind: string; readonly id: string }
  'remind-all-late': Record<string, never>
  'remind-late': { readonly kind: string; readonly id: string }
  'lay-chain': Record<string, never>
  /** Whoever asked for it; null where it was time for it. */
  'check-integrity': { readonly byId: string | null }
  'repeat-templates': Record<string, never>
  'repeat-template': { readonly templateId: string }
  'send-repeated': { readonly requisitionId: string }
  'raise-parts': { readonly jobId: string; readonly partIds: readonly string[]; readonly personId: string }
  'send-parts': { readonly requisitionId: string }
  'daily-letters': Record<string, never>
  'daily-letter': { readonly personId: string }
  'keep-suppliers': Record<string, never>
  'lay-file': { readonly fileId: string }
  'look-at-file': { readonly fileId: string }
  'take-file': { readonly fileId: string }
  'take-file-back': { readonly fileId: string; readonly byId: string }
  purge: Record<string, never>
  /** Files that lost what carried them. */
  'drop-files': { readonly hashes: readonly string[] }
  'task-ended': Record<string, unknown>
}

/** Tasks that wait for others outside have several workers, so that a slow one holds up the few behind it alone. */
export const WORKERS: Partial<Record<Task, number>> = { 'send-mail': 3, 'send-order': 2 }

/** Tasks of one long transaction: whoever died over one is noticed later. */
export const LONG: readonly Task[] = ['take-file', 'take-file-back', 'lay-chain', 'check-integrity']

/** Where a task goes that was tried for days: an administrator is told of it there. */
export const ENDED: Task = 'task-ended'
