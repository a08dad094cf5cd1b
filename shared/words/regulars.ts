import type { LineSource } from '#core/requisition/line-source'
import type { Rhythm } from '#core/requisition/rhythm'

/** What each line source offers, and what it says when it has nothing. */
export const SOURCE_WORDS = {
  regulars: {
    title: 'Things you buy again and again',
    empty: 'No list of regulars yet: write the lines once, then keep them as regulars.',
  },
  bought: { title: 'What your department bought before', empty: 'Your department has bought nothing that fits.' },
  requests: { title: 'Lines of earlier requests', empty: 'No earlier request fits.' },
  orders: { title: 'Lines of orders', empty: 'No order that you may see fits.' },
  templates: {
    title: 'Lines of templates',
    empty: 'No template yet: write a request once, then keep it as a template.',
  },
} as const satisfies Record<LineSource, object>

/** How often, after "raised". */
export const RHYTHM_WORDS: Record<Rhythm, string> = {
  week: 'every week',
  'two weeks': 'every two weeks',
  month: 'every month',
  quarter: 'every quarter',
  year: 'every year',
}
