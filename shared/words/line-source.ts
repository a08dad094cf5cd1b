import type { LineSource } from '#core/requisition/line-source'

/** What each line source is called, after "take lines from". */
export const SOURCE_NAMES: Record<LineSource, string> = {
  regulars: 'regulars',
  bought: 'bought before',
  requests: 'earlier requests',
  orders: 'orders',
  templates: 'templates',
}
