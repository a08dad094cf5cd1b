import { z } from 'zod'
import { LAID_STATES } from '#core/lists/laid'
import { LIST_NAMES } from '#core/lists/list'
import type { ListReason } from '#core/lists/reason'
import { defineRoute } from './route'
import { id, ids, text } from './values'

const name = z.enum(LIST_NAMES)
const params = z.object({ list: name })
const values = z.record(z.string(), z.string())
/** Rows of cells, and which column of the list each holds; null: none. */
const given = z.object({
  columns: z.array(text(40).nullable()).max(60),
  cells: z.array(z.array(text(2000)).max(60)).max(5000, 'has more than 5,000 rows; divide the file'),
})
export type GivenRows = z.infer<typeof given>

const view = z.object({
  name,
  version: z.number(),
  /** How many there are, and how many of them are retired. */
  count: z.number(),
  retired: z.number(),
  /** Those in which the words stand that were asked for: all of them, or as many as one answer carries. */
  entries: z.array(z.object({ id: z.string(), values, retired: z.boolean() })),
  /** How the entries of the lists that this one names are called; of long lists only those that are named. */
  called: z.partialRecord(name, z.array(z.object({ key: z.string(), name: z.string(), retired: z.boolean() }))),
  /** The lists of which only those are told that are named. */
  long: z.array(name),
})
export type ListView = z.infer<typeof view>

const planned = z.object({
  version: z.number(),
  counts: z.object({
    adds: z.number(),
    changes: z.number(),
    nothing: z.number(),
    refused: z.number(),
    gone: z.number(),
  }),
  /** The first of what is refused, changed and new. */
  rows: z.array(
    z.object({
      at: z.number(),
      does: z.enum(['adds', 'changes', 'nothing', 'refused']),
      before: values.nullable(),
      after: values,
      changed: z.array(z.string()),
      reasons: z.array(z.custom<ListReason>()),
      /** What a changed price of an item costs more in a year, at last year's quantities; negative: less. */
      dearer: z.string().nullable(),
    }),
  ),
  /** The same in all, by currency. */
  dearer: z.array(z.object({ currency: z.string(), amount: z.string() })),
  gone: z.array(values),
})
export type PlanView = z.infer<typeof planned>

/** `held`: how many entries have changes that wait for a second person. */
const changed = z.object({
  version: z.number(),
  seq: z.number().nullable(),
  changes: z.number(),
  held: z.number(),
})
const changes = z.object({
  changes: z.array(
    z.object({
      seq: z.number(),
      at: z.string(),
      by: z.string(),
      source: z.string(),
      undoes: z.number().nullable(),
      count: z.number(),
      first: values.nullable(),
    }),
  ),
})
export type ListChangeView = z.infer<typeof changes>['changes'][number]

const held = z.object({
  id: z.string(),
  list: name,
  name: z.string(),
  /** The columns that would change, alone. */
  before: values,
  after: values,
  by: z.string(),
  at: z.string(),
  mayConfirm: z.boolean(),
  isOwn: z.boolean(),
})
export type HeldView = z.infer<typeof held>
const steps = z.object({
  held: z.array(held),
  steps: z.array(
    z.object({
      code: z.enum([
        'places',
        'departments',
        'accounts',
        'budgetLines',
        'people',
        'uninvited',
        'suppliers',
        'reached',
        'buyers',
      ]),
      list: name,
      before: z.enum(['request', 'order', 'use']),
      count: z.number(),
      done: z.boolean(),
    }),
  ),
})

const laid = z.object({
  id: z.string(),
  name: z.string(),
  state: z.enum(LAID_STATES),
  head: z.array(z.string()),
  /** A few of its rows, to see what the columns hold. */
  sample: z.array(z.array(z.string())),
  columns: z.array(z.string().nullable()),
  rows: z.number(),
  looked: z.number(),
  counts: z.object({
    adds: z.number(),
    changes: z.number(),
    nothing: z.number(),
    refused: z.number(),
    /** In use, and not named by it. */
    gone: z.number(),
  }),
  /** The first rows that cannot be taken. */
  reasons: z.array(z.object({ at: z.number(), reasons: z.array(z.custom<ListReason>()) })),
  notes: z.array(z.string()),
  trouble: z.string(),
  seq: z.number().nullable(),
})
export type LaidView = z.infer<typeof laid>

export const listRoutes = {
  confirmHeldChange: defineRoute({
    name: 'confirmHeldChange',
    method: 'POST',
    path: '/api/held-changes/{id}/confirmations',
    summary: 'Puts a change of limits in force that somebody else asked for',
    access: 'confirm changes',
    params: ids,
    reply: z.object({ version: z.number() }),
    idempotent: true,
  }),
  dropHeldChange: defineRoute({
    name: 'dropHeldChange',
    method: 'DELETE',
    path: '/api/held-changes/{id}',
    summary: 'Ends a change that waits for a second person, without putting it in force',
    access: 'confirm changes',
    params: ids,
  }),
  readSetUp: defineRoute({
    name: 'readSetUp',
    method: 'GET',
    path: '/api/set-up',
    summary: 'What is set up and what is not, in the order in which the first request and the first order need it',
    access: 'keep lists',
    reply: steps,
  }),
  readList: defineRoute({
    name: 'readList',
    method: 'GET',
    path: '/api/lists/{list}',
    summary: 'A list that the organisation keeps, with all its entries, for whoever keeps it',
    access: 'keep lists',
    params,
    query: z.object({ words: text(200).default('') }),
    reply: view,
  }),
  planRows: defineRoute({
    name: 'planRows',
    method: 'POST',
    path: '/api/lists/{list}/plans',
    summary: 'What rows would do to a list: new, changed, unchanged, refused and gone; nothing is kept',
    access: 'keep lists',
    params,
    body: given,
    reply: planned,
  }),
  keepRows: defineRoute({
    name: 'keepRows',
    method: 'POST',
    path: '/api/lists/{list}/rows',
    summary: 'Takes rows into a list, all or none; what they do not name is kept or retired',
    access: 'keep lists',
    params,
    body: given.extend({ source: text(300), gone: z.enum(['keep', 'retire']), onlyNew: z.boolean().optional() }),
    reply: changed,
    ifMatch: true,
    idempotent: true,
  }),
  listChanges: defineRoute({
    name: 'listChanges',
    method: 'GET',
    path: '/api/lists/{list}/changes',
    summary: 'The last changes of a list, the newest first',
    access: 'keep lists',
    params,
    reply: changes,
  }),
  undoListChange: defineRoute({
    name: 'undoListChange',
    method: 'DELETE',
    path: '/api/lists/{list}/changes/{seq}',
    summary: 'Takes a change of a list back, where nobody changed its entries since',
    access: 'keep lists',
    params: params.extend({ seq: z.coerce.number().int().positive().max(2_000_000_000) }),
    reply: changed,
    ifMatch: true,
  }),
  layFile: defineRoute({
    name: 'layFile',
    method: 'POST',
    path: '/api/lists/{list}/files',
    summary: 'Lay a long CSV aside for a list; a task reads it. The body is the file.',
    access: 'keep lists',
    params,
    query: z.object({ name: text(300) }),
    bytes: 'upload',
    reply: z.object({ id: z.string() }),
  }),
  readLaidFile: defineRoute({
    name: 'readLaidFile',
    method: 'GET',
    path: '/api/lists/{list}/files/{id}',
    summary: 'How far a file is that one laid aside: what was read, and what it would do',
    access: 'keep lists',
    params: params.extend({ id }),
    reply: laid,
  }),
  readOpenFile: defineRoute({
    name: 'readOpenFile',
    method: 'GET',
    path: '/api/lists/{list}/files',
    summary: 'The file that one laid aside for a list and neither took nor left',
    access: 'keep lists',
    params,
    reply: z.object({ file: laid.nullable() }),
  }),
  lookAtFile: defineRoute({
    name: 'lookAtFile',
    method: 'POST',
    path: '/api/lists/{list}/files/{id}/looks',
    summary: 'Work out what a file would do, by what its columns hold; a task does it',
    access: 'keep lists',
    params: params.extend({ id }),
    body: z.object({ columns: z.array(text(40).nullable()).max(60) }),
    idempotent: true,
  }),
  takeFile: defineRoute({
    name: 'takeFile',
    method: 'POST',
    path: '/api/lists/{list}/files/{id}/takings',
    summary: 'Take a file as it was looked at, all or nothing; a task does it in one transaction',
    access: 'keep lists',
    params: params.extend({ id }),
    body: z.object({ gone: z.enum(['keep', 'retire']).default('keep') }),
    idempotent: true,
  }),
  leaveFile: defineRoute({
    name: 'leaveFile',
    method: 'DELETE',
    path: '/api/lists/{list}/files/{id}',
    summary: 'Leave a file that was laid aside; nothing of it is kept',
    access: 'keep lists',
    params: params.extend({ id }),
  }),
  exportList: defineRoute({
    name: 'exportList',
    method: 'GET',
    path: '/api/lists/{list}/file',
    summary: 'A list as a CSV or XLSX file, which can be brought back unchanged',
    access: 'keep lists',
    params,
    query: z.object({ as: z.enum(['csv', 'xlsx']).default('csv') }),
    bytes: 'download',
  }),
}
