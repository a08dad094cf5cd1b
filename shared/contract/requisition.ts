import { z } from 'zod'
import { NEW_SUPPLIER_POLICIES } from '#core/requisition/form'
import { type DraftFactsWire } from './draft-facts'
import { defineRoute } from './route'
import { day, decimal, id, ids, made, money, text, versioned } from './values'

const coding = z.object({ budgetLineId: id, value: decimal.nullable() })
const own = z
  .record(id, text(1000))
  .default({})
  .refine((o) => Object.keys(o).length <= 60, 'has more than 60 own fields')
const draftLine = z.object({
  id,
  itemId: id.nullable(),
  categoryId: id.nullable(),
  description: text(400),
  secondDescription: text(400).default(''),
  quantity: decimal,
  unit: text(8),
  unitPrice: decimal.nullable(),
  listPrice: decimal.nullable().default(null),
  priceWithTax: decimal.nullable().default(null),
  priceBase: decimal.refine((t) => Number(t) > 0, 'is not above 0'),
  discount: z
    .object({ of: z.enum(['percent', 'amount']), value: decimal })
    .nullable()
    .default(null),
  currency: z.string().length(3),
  taxCode: text(10),
  supplierId: id.nullable(),
  supplierPart: text(80).nullable(),
  noteToSupplier: text(1000).default(''),
  noteInternal: text(1000).default(''),
  jobId: id.nullable().default(null),
  own,
  splitMethod: z.enum(['percent', 'share', 'amount', 'quantity']),
  codings: z.array(coding).max(20),
})
const address = z.object({ name: text(120), street: text(120), postcode: text(20), town: text(80), country: text(80) })
/** A requisition as its author writes it; what is left out is blank. */
export const draft = z.object({
  kind: text(40),
  title: text(120),
  departmentId: id.nullable(),
  shipToId: id.nullable(),
  address: address.nullable().default(null),
  shipToDetail: text(200),
  attention: text(120).default(''),
  telephone: text(60).default(''),
  instructions: text(1000).default(''),
  needBy: day.nullable(),
  why: text(4000),
  overBudgetReason: text(2000),
  justification: text(4000).default(''),
  noteToSupplier: text(2000).default(''),
  noteInternal: text(2000).default(''),
  jobId: id.nullable().default(null),
  own,
  readWarnings: z.array(id).max(1000).default([]),
  accountingDate: day.nullable(),
  lines: z.array(draftLine).max(500, 'has more than 500 lines'),
})
const attachmentKind = z.enum(['quote', 'specification', 'drawing', 'other'])
const attachment = z.object({
  id: z.string(),
  name: z.string(),
  kind: attachmentKind,
  size: z.number(),
  mime: z.string(),
  forSupplier: z.boolean(),
})
export type AttachmentView = z.infer<typeof attachment>
const remark = z.object({
  id: z.string(),
  personId: z.string(),
  name: z.string(),
  at: z.string(),
  kind: z.enum(['question', 'answer', 'reason', 'wish']),
  text: z.string(),
  answered: z.boolean(),
})
export type RemarkView = z.infer<typeof remark>

const requisitionView = z.object({
  id: z.string(),
  number: z.string().nullable(),
  version: z.number(),
  state: z.string(),
  ownerId: z.string(),
  owner: z.string(),
  raisedById: z.string(),
  changedAt: z.string(),
  draft,
  attachments: z.array(attachment),
  remarks: z.array(remark),
  suppliers: z.record(z.string(), z.string()),
  names: z.record(z.string(), z.string()),
  mayEdit: z.boolean(),
})
export type RequisitionView = z.infer<typeof requisitionView>

/** Which of one's requests are listed. */
const mineQuery = {
  view: z.enum(['all', 'open', 'drafts', 'waiting']).default('all'),
  words: text(100).default(''),
  job: id.optional(),
  field: id.optional(),
  value: text(200).optional(),
}
const mineRow = z.object({
  id: z.string(),
  number: z.string().nullable(),
  state: z.string(),
  title: z.string(),
  amount: z.string().nullable(),
  since: z.string(),
  waitsFor: z.array(z.string()),
  question: z.string().nullable(),
  orderedShare: z.number(),
  decisionShare: z.number(),
  stateBy: z.string().nullable(),
  version: z.number(),
  remindedAt: z.string().nullable(),
  job: z.string().nullable(),
  own: z.record(z.string(), z.string()),
})
export type MineRow = z.infer<typeof mineRow>

const slip = z.object({
  id: z.string(),
  owner: z.string(),
  amount: z.string(),
  currency: z.string(),
  title: z.string(),
  needBy: z.string(),
  since: z.string(),
  forName: z.string().nullable(),
  overBudget: z.boolean(),
  asked: z.boolean(),
})
export type Slip = z.infer<typeof slip>

const seat = z.object({
  actorId: z.string(),
  name: z.string(),
  why: z.string(),
  state: z.enum(['done', 'open', 'ahead']),
  at: z.string().nullable(),
  comment: z.string(),
})
export type SeatView = z.infer<typeof seat>
const bar = z.object({
  lineId: z.string(),
  name: z.string(),
  code: z.string(),
  budgeted: money,
  spent: money,
  committed: money,
  reserved: money,
  effect: money,
  before: money,
  after: money,
  passed: z.boolean(),
})
export type BudgetBarView = z.infer<typeof bar>
const decisionLine = z.object({
  id: z.string(),
  description: z.string(),
  quantity: z.string(),
  unit: z.string(),
  unitPrice: z.string(),
  priceBase: z.string(),
  net: money,
  supplier: z.string().nullable(),
  supplierPart: z.string().nullable(),
  paidFrom: z.array(z.string()),
  paid: z.array(z.object({ unitPrice: z.string(), currency: z.string(), day: z.string() })),
  ordered: z.string(),
  cancelled: z.string(),
  listPrice: z.string().nullable(),
  more: z.array(z.string()),
  currency: z.string(),
})
export type DecisionLine = z.infer<typeof decisionLine>

const decisionView = z.object({
  id: z.string(),
  number: z.string(),
  version: z.number(),
  state: z.string(),
  title: z.string(),
  ownerId: z.string(),
  owner: z.string(),
  department: z.string(),
  amount: money,
  tax: z.array(z.object({ currency: z.string(), net: money, tax: money, total: money })),
  needBy: z.string(),
  shipTo: z.string(),
  shipToDetail: z.string(),
  why: z.string(),
  overBudgetReason: z.string(),
  kind: z.string(),
  justification: z.string(),
  noteInternal: z.string(),
  besides: z.array(z.string()),
  sentAt: z.string(),
  lines: z.array(decisionLine),
  budget: z.array(bar),
  route: z.array(seat),
  held: z.boolean(),
  remarks: z.array(remark),
  attachments: z.array(attachment),
  mine: z.boolean(),
  forName: z.string().nullable(),
  /** What an approval now would lead to. */
  afterApproval: z.object({ state: z.enum(['waiting', 'held', 'approved']), next: z.array(z.string()) }),
})
export type DecisionView = z.infer<typeof decisionView>

const station = z.object({
  name: z.enum(['Need', 'Decision', 'Order', 'Delivery', 'Bill']),
  amount: z.string().nullable(),
  share: z.number(),
  look: z.enum(['empty', 'dashed', 'filled', 'stopped']),
  waits: z.boolean(),
  note: z.string(),
})
export type StationView = z.infer<typeof station>
const trailEntry = z.object({
  key: z.string(),
  at: z.string(),
  station: z.enum(['Need', 'Decision', 'Order', 'Delivery', 'Bill']),
  who: z.string(),
  what: z.string(),
  more: z.string(),
  amount: z.string().nullable(),
  link: z.string().nullable(),
})
export type TrailEntry = z.infer<typeof trailEntry>
const action = z.object({
  name: z.enum(['edit', 'answer', 'remind', 'withdraw', 'wish', 'cancelRest', 'copy', 'throwAway', 'handOver']),
  allowed: z.boolean(),
  why: z.string(),
})
export type TrailAction = z.infer<typeof action>
const trailView = z.object({
  id: z.string(),
  number: z.string().nullable(),
  version: z.number(),
  state: z.string(),
  title: z.string(),
  owner: z.string(),
  isOwner: z.boolean(),
  sentence: z.string(),
  stations: z.array(station),
  entries: z.array(trailEntry),
  next: z.string(),
  money: z.array(z.object({ stage: z.enum(['reserved', 'committed', 'spent']), amount: z.string() })),
  currency: z.string(),
  lines: z.array(
    z.object({
      id: z.string(),
      description: z.string(),
      requested: z.string(),
      ordered: z.string(),
      cancelled: z.string(),
    }),
  ),
  remarks: z.array(remark),
  attachments: z.array(attachment),
  route: z.array(seat),
  actions: z.array(action),
})
export type TrailView = z.infer<typeof trailView>

const choices = z.object({
  departments: z.array(z.object({ id: z.string(), name: z.string(), usualShipToId: z.string().nullable() })),
  shipTos: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      street: z.string(),
      postcode: z.string(),
      town: z.string(),
      country: z.string(),
    }),
  ),
  holidays: z.array(z.string()),
  /** For whom one may raise, oneself first. */
  people: z.array(z.object({ id: z.string(), name: z.string(), jobTitle: z.string() })),
  newSuppliers: z.enum(NEW_SUPPLIER_POLICIES),
})
export type RaiseChoices = z.infer<typeof choices>

const decided = z.object({ id: z.string(), decisionId: z.string(), state: z.string(), version: z.number() })
export type DecidedView = z.infer<typeof decided>

export const requisitionRoutes = {
  readChoices: defineRoute({
    name: 'readChoices',
    method: 'GET',
    path: '/api/raise-choices',
    summary: 'Departments, places and holidays to choose from when raising.',
    access: 'raise',
    reply: choices,
  }),
  readDraftFacts: defineRoute({
    name: 'readDraftFacts',
    method: 'GET',
    path: '/api/draft-facts',
    summary: 'The facts that the verdict on one draft rests on, for the page that shows it.',
    access: 'raise',
    query: z.object({
      departmentId: id.optional(),
      accountingDate: day.optional(),
      ownerId: id.optional(),
      requisitionId: id.optional(),
    }),
    reply: z.custom<DraftFactsWire>(),
  }),
  readLineFile: defineRoute({
    name: 'readLineFile',
    method: 'POST',
    path: '/api/line-files',
    summary: 'The cells of a CSV or XLSX file, to be shown before lines are made of them; nothing is kept.',
    access: 'raise',
    bytes: 'upload',
    reply: z.object({ rows: z.array(z.array(z.string())), notes: z.array(z.string()) }),
  }),
  readMineFilters: defineRoute({
    name: 'readMineFilters',
    method: 'GET',
    path: '/api/mine-filters',
    summary: 'Jobs and own fields by which one’s requests can be told apart.',
    access: 'see own',
    reply: z.object({
      jobs: z.array(z.object({ id: z.string(), number: z.string(), name: z.string() })),
      fields: z.array(
        z.object({ id: z.string(), name: z.string(), values: z.array(z.object({ id: z.string(), name: z.string() })) }),
      ),
    }),
  }),
  exportMine: defineRoute({
    name: 'exportMine',
    method: 'GET',
    path: '/api/requisitions/export',
    summary: 'What one started or owns, or its lines, as a CSV or XLSX file.',
    access: 'see own',
    bytes: 'download',
    query: z.object({
      ...mineQuery,
      of: z.enum(['requests', 'lines']).default('requests'),
      as: z.enum(['csv', 'xlsx']).default('csv'),
    }),
  }),
  listMine: defineRoute({
    name: 'listMine',
    method: 'GET',
    path: '/api/requisitions',
    summary: 'What one started or owns, newest first, by keyset pages.',
    access: 'see own',
    query: z.object({
      ...mineQuery,
      after: text(80).optional(),
      limit: z.coerce.number().int().min(1).max(100).default(50),
    }),
    reply: z.object({
      rows: z.array(mineRow),
      next: z.string().nullable(),
      total: z.number(),
      waiting: z.number(),
      currency: z.string(),
      sum: z.string(),
      openSum: z.string(),
      /** The server's moment: what was done a day ago is told by it. */
      now: z.string(),
    }),
  }),
  createDraft: defineRoute({
    name: 'createDraft',
    method: 'POST',
    path: '/api/requisitions',
    summary: 'Keep a new draft.',
    access: 'raise',
    body: z.object({ id, draft, ownerId: id.nullable().default(null) }),
    reply: versioned,
    idempotent: true,
  }),
  readRequisition: defineRoute({
    name: 'readRequisition',
    method: 'GET',
    path: '/api/requisitions/{id}',
    summary: 'A requisition as it was written.',
    access: 'see own',
    params: ids,
    reply: requisitionView,
  }),
  saveDraft: defineRoute({
    name: 'saveDraft',
    method: 'PUT',
    path: '/api/requisitions/{id}',
    summary: 'Save a draft over what was kept of it.',
    access: 'raise',
    params: ids,
    body: z.object({ draft, ownerId: id.nullable().default(null) }),
    reply: versioned,
    ifMatch: true,
  }),
  throwAwayDraft: defineRoute({
    name: 'throwAwayDraft',
    method: 'DELETE',
    path: '/api/requisitions/{id}',
    summary: 'Throw a draft away.',
    access: 'raise',
    params: ids,
    ifMatch: true,
  }),
  sendRequisition: defineRoute({
    name: 'sendRequisition',
    method: 'POST',
    path: '/api/requisitions/{id}/send',
    summary: 'Send it: reserve its money and ask those who decide.',
    access: 'raise',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: z.object({ id: z.string(), number: z.string(), state: z.string(), version: z.number() }),
  }),
  withdrawRequisition: defineRoute({
    name: 'withdrawRequisition',
    method: 'POST',
    path: '/api/requisitions/{id}/withdraw',
    summary: 'Take it back from those who decide.',
    access: 'see own',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned,
  }),
  remind: defineRoute({
    name: 'remind',
    method: 'POST',
    path: '/api/requisitions/{id}/reminders',
    summary: 'Remind those it waits for, at most once a day.',
    access: 'see own',
    params: ids,
    idempotent: true,
    reply: z.object({ names: z.array(z.string()) }),
  }),
  wishForChange: defineRoute({
    name: 'wishForChange',
    method: 'POST',
    path: '/api/requisitions/{id}/wishes',
    summary: 'Ask the buyer to change or cancel what is approved or ordered.',
    access: 'see own',
    params: ids,
    idempotent: true,
    body: z.object({ what: z.enum(['change', 'cancel']), text: text(2000) }),
    reply: z.object({ names: z.array(z.string()) }),
  }),
  readRequisitionPdf: defineRoute({
    name: 'readRequisitionPdf',
    method: 'GET',
    path: '/api/requisitions/{id}/pdf',
    summary: 'A requisition as a PDF.',
    access: 'see own',
    params: ids,
    bytes: 'download',
  }),
  cancelRest: defineRoute({
    name: 'cancelRest',
    method: 'POST',
    path: '/api/requisitions/{id}/cancel-rest',
    summary: 'Cancel what was not ordered of it.',
    access: 'see own',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned,
  }),
  handOver: defineRoute({
    name: 'handOver',
    method: 'POST',
    path: '/api/requisitions/{id}/owner',
    summary: 'Give it a new owner; a buyer may give everything else of the same owner along.',
    access: 'see own',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ personId: id, everything: z.boolean().default(false) }),
    reply: versioned.extend({ others: z.number() }),
  }),
  readDecision: defineRoute({
    name: 'readDecision',
    method: 'GET',
    path: '/api/requisitions/{id}/decision',
    summary: 'Everything that one decision needs.',
    access: 'see own',
    params: ids,
    reply: decisionView,
  }),
  decideRequisition: defineRoute({
    name: 'decideRequisition',
    method: 'POST',
    path: '/api/requisitions/{id}/decisions',
    summary: 'Approve, send back or reject.',
    access: 'decide',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ outcome: z.enum(['approve', 'sendBack', 'reject']), comment: text(4000).default('') }),
    reply: decided,
  }),
  takeBackDecision: defineRoute({
    name: 'takeBackDecision',
    method: 'DELETE',
    path: '/api/requisitions/{id}/decisions/{decisionId}',
    summary: 'Take a decision back within ten seconds.',
    access: 'decide',
    params: z.object({ id, decisionId: id }),
    reply: versioned,
  }),
  askQuestion: defineRoute({
    name: 'askQuestion',
    method: 'POST',
    path: '/api/requisitions/{id}/questions',
    summary: 'Ask the owner something.',
    access: 'decide',
    params: ids,
    body: z.object({ text: text(4000) }),
    reply: made,
    idempotent: true,
  }),
  answerQuestion: defineRoute({
    name: 'answerQuestion',
    method: 'POST',
    path: '/api/requisitions/{id}/answers',
    summary: 'Answer what was asked.',
    access: 'see own',
    params: ids,
    body: z.object({ text: text(4000) }),
    reply: made,
    idempotent: true,
  }),
  readTrail: defineRoute({
    name: 'readTrail',
    method: 'GET',
    path: '/api/requisitions/{id}/trail',
    summary: 'One need and everything that came of it.',
    access: 'see own',
    params: ids,
    reply: trailView,
  }),
  attachFile: defineRoute({
    name: 'attachFile',
    method: 'POST',
    path: '/api/requisitions/{id}/attachments',
    summary: 'Attach a PDF or a picture; the body is the file.',
    access: 'raise',
    params: ids,
    bytes: 'upload',
    query: z.object({
      name: text(300),
      kind: attachmentKind.default('quote'),
      forSupplier: z.stringbool().default(false),
    }),
    reply: attachment,
  }),
  readAttachment: defineRoute({
    name: 'readAttachment',
    method: 'GET',
    path: '/api/requisitions/{id}/attachments/{attachmentId}',
    summary: 'An attachment, to be kept; with show, to be looked at in place.',
    access: 'see own',
    params: z.object({ id, attachmentId: id }),
    query: z.object({ show: z.stringbool().default(false) }),
    bytes: 'download',
  }),
  describeAttachment: defineRoute({
    name: 'describeAttachment',
    method: 'PUT',
    path: '/api/requisitions/{id}/attachments/{attachmentId}',
    summary: 'Say of what kind an attachment is, and whether the supplier gets it.',
    access: 'raise',
    params: z.object({ id, attachmentId: id }),
    body: z.object({ kind: attachmentKind, forSupplier: z.boolean() }),
    reply: attachment,
  }),
  detachFile: defineRoute({
    name: 'detachFile',
    method: 'DELETE',
    path: '/api/requisitions/{id}/attachments/{attachmentId}',
    summary: 'Take an attachment off.',
    access: 'raise',
    params: z.object({ id, attachmentId: id }),
  }),
  listWaiting: defineRoute({
    name: 'listWaiting',
    method: 'GET',
    path: '/api/waiting',
    summary: 'What waits for one’s decision, oldest first.',
    access: 'decide',
    reply: z.object({ slips: z.array(slip) }),
  }),
} as const
