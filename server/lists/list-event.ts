import type { ListName, Values } from '#core/lists/list'

/** What each list is called where events name what they are about. */
export const LIST_SUBJECTS: Readonly<Record<ListName, string>> = {
  places: '00000000-0000-4000-8000-000000000011',
  departments: '00000000-0000-4000-8000-000000000012',
  accounts: '00000000-0000-4000-8000-000000000013',
  people: '00000000-0000-4000-8000-000000000014',
  suppliers: '00000000-0000-4000-8000-000000000015',
  'budget-lines': '00000000-0000-4000-8000-000000000016',
  categories: '00000000-0000-4000-8000-000000000017',
  taxes: '00000000-0000-4000-8000-000000000018',
  holidays: '00000000-0000-4000-8000-000000000019',
  rates: '00000000-0000-4000-8000-000000000020',
  items: '00000000-0000-4000-8000-000000000021',
  jobs: '00000000-0000-4000-8000-000000000022',
  parts: '00000000-0000-4000-8000-000000000023',
  roles: '00000000-0000-4000-8000-000000000024',
  limits: '00000000-0000-4000-8000-000000000025',
  opening: '00000000-0000-4000-8000-000000000026',
  reasons: '00000000-0000-4000-8000-000000000027',
}

/** An entry before and after; null before it was there, or after it was taken away. */
export interface ListChange {
  readonly id: string
  readonly before: Values | null
  readonly after: Values | null
}

/** What one event of a list holds: where its rows came from, and each entry that changed. */
export interface ListChanged {
  /** The name of a file, or "" where it was typed. */
  readonly source: string
  /** The event that it takes back. */
  readonly undoes: number | null
  /** Who asked for what another confirmed. */
  readonly askedBy?: string
  readonly changes: readonly ListChange[]
  /** A long file, whose rows hold each entry before and after, and how many of them there are. */
  readonly file?: string
  readonly count?: number
}
