/** The background work there is. Queues are made in the migration step, as the owner. */
export const TASKS = [
  'send-mail',
  'file-order',
  'sweep-mail',
  'route-again',
  'repeat-templates',
  'send-repeated',
] as const
export type Task = (typeof TASKS)[number]

export interface TaskData {
  'send-mail': { readonly mailId: string }
  'file-order': { readonly orderId: string; readonly revision: number }
  'sweep-mail': Record<string, never>
  'route-again': Record<string, never>
  'repeat-templates': Record<string, never>
  'send-repeated': { readonly requisitionId: string }
}
