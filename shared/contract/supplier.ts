import { z } from 'zod'
import { supplier } from './catalogue'
import { defineRoute } from './route'
import { CHANNEL_NAMES } from '#core/order/channel'
import { CONTACT_USES, STANDINGS } from '#core/supplier/record'
import { day, decimal, id, ids, text } from './values'

const proposal = z.object({
  name: text(120).refine((t) => t.trim().length >= 2, 'is too short'),
  town: text(80),
  address: text(300).default(''),
  email: text(200)
    .refine((t) => t === '' || z.email().safeParse(t).success, 'is not an e-mail address')
    .default(''),
  telephone: text(60).default(''),
  taxNumber: text(40).default(''),
  currency: z.string().length(3),
  note: text(1000).default(''),
})
const alike = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  town: z.string(),
  standing: z.string(),
  why: z.array(z.enum(['same tax number', 'same mail domain', 'same name', 'like name'])),
})
export type AlikeSupplier = z.infer<typeof alike>
const mode = z.enum(['informs', 'must be read', 'stops'])
const email = text(200).refine((t) => t === '' || z.email().safeParse(t).success, 'is not an e-mail address')
const contact = z.object({
  name: text(120).refine((t) => t.trim() !== '', 'is missing'),
  about: z.enum(CONTACT_USES),
  email: email.default(''),
  telephone: text(60).default(''),
  address: text(300).default(''),
})
const bank = z.object({ holder: text(120), number: text(60), bank: text(30).default('') })
const record = z.object({
  version: z.number(),
  mergedInto: z.object({ id: z.string(), name: z.string() }).nullable(),
  channel: z.enum(CHANNEL_NAMES),
  termsKind: z.enum(['net', 'month-end']),
  termsDays: z.number(),
  leadDays: z.number(),
  freight: z.string().nullable(),
  freightFreeFrom: z.string().nullable(),
  minimumOrder: z.string().nullable(),
  /** In which its orders are written. */
  language: z.string(),
  standingReason: z.string(),
  standingSince: z.string().nullable(),
  standingUntil: z.string().nullable(),
  warningMode: mode,
  datedWarning: z.string().nullable(),
  warningFrom: z.string().nullable(),
  warningUntil: z.string().nullable(),
  contacts: z.array(contact),
  /** In which it has something in the catalogue. */
  categories: z.array(z.object({ name: z.string(), items: z.number() })),
  mayKeep: z.boolean(),
  /** What the reader may make of its standing. */
  nextStandings: z.array(z.enum(STANDINGS)),
  /** For whoever keeps suppliers, as what follows; empty for others. */
  papers: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      validUntil: z.string().nullable(),
      by: z.string(),
      at: z.string(),
    }),
  ),
  bank: bank.nullable(),
  bankChange: z
    .object({
      details: bank,
      by: z.string(),
      at: z.string(),
      toldTo: z.array(z.string()),
      isOwn: z.boolean(),
      mayConfirm: z.boolean(),
    })
    .nullable(),
  /** What an order needs to arrive, part by part. */
  reach: z.array(
    z.object({
      part: z.enum(['standing', 'channel', 'address', 'terms', 'tax number', 'bank', 'papers']),
      is: z.enum(['there', 'missing', 'look']),
    }),
  ),
})
export type SupplierRecord = z.infer<typeof record>
const paired = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  town: z.string(),
  standing: z.string(),
  taxNumber: z.string().nullable(),
  email: z.string().nullable(),
})
const called = z.object({ id: z.string(), number: z.string(), name: z.string() })
const bought = z.object({
  years: z.array(z.object({ year: z.number(), currency: z.string(), orders: z.number(), net: decimal })),
  most: z.array(
    z.object({
      itemId: z.string().nullable(),
      name: z.string(),
      unit: z.string(),
      quantity: decimal,
      times: z.number(),
      lastPrice: decimal,
      priceBase: decimal,
      currency: z.string(),
      lastDay: z.string(),
    }),
  ),
  orders: z.array(
    z.object({
      id: z.string(),
      number: z.string().nullable(),
      day: z.string(),
      net: decimal.nullable(),
      currency: z.string(),
    }),
  ),
})
export type Bought = z.infer<typeof bought>
const merging = z.object({
  from: called,
  into: called,
  moves: z.object({
    items: z.number(),
    lines: z.number(),
    regulars: z.number(),
    orders: z.number(),
    contacts: z.number(),
    papers: z.number(),
    agreements: z.number(),
  }),
  twice: z.array(
    z.object({ id: z.string(), name: z.string(), supplierPart: z.string(), keptId: z.string(), keptName: z.string() }),
  ),
  hinders: z.array(z.string()),
  seen: z.string(),
})
export type MergingView = z.infer<typeof merging>
const supplierView = record.extend({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  town: z.string(),
  address: z.string(),
  email: z.string().nullable(),
  telephone: z.string(),
  taxNumber: z.string().nullable(),
  currency: z.string(),
  standing: z.enum(STANDINGS),
  warning: z.string().nullable(),
  proposedBy: z.string().nullable(),
  proposedAt: z.string().nullable(),
  note: z.string(),
  hasTaxForm: z.boolean(),
  alike: z.array(alike),
  mayDecide: z.boolean(),
  waitingRequests: z.number(),
})
export type SupplierView = z.infer<typeof supplierView>

export const supplierRoutes = {
  findAlikeSuppliers: defineRoute({
    name: 'findAlikeSuppliers',
    method: 'GET',
    path: '/api/suppliers/alike',
    summary: 'Suppliers that may be the one that is about to be named.',
    access: 'see catalogue',
    query: z.object({ name: text(120).default(''), taxNumber: text(40).default(''), email: text(200).default('') }),
    reply: z.object({ alike: z.array(alike) }),
  }),
  proposeSupplier: defineRoute({
    name: 'proposeSupplier',
    method: 'POST',
    path: '/api/suppliers',
    summary: 'Name a supplier that is not there yet; the organisation’s policy says whether finance has to approve it.',
    access: 'name suppliers',
    idempotent: true,
    body: proposal,
    reply: supplier,
  }),
  giveTaxForm: defineRoute({
    name: 'giveTaxForm',
    method: 'POST',
    path: '/api/suppliers/{id}/tax-form',
    summary: 'The tax form of a supplier that one proposed; the body is the file.',
    access: 'name suppliers',
    params: ids,
    query: z.object({ name: text(300) }),
    bytes: 'upload',
  }),
  readTaxForm: defineRoute({
    name: 'readTaxForm',
    method: 'GET',
    path: '/api/suppliers/{id}/tax-form',
    summary: 'The tax form of a proposed supplier.',
    access: 'see catalogue',
    params: ids,
    bytes: 'download',
  }),
  readSupplier: defineRoute({
    name: 'readSupplier',
    method: 'GET',
    path: '/api/suppliers/{id}',
    summary: 'A supplier, and as a proposal what was said of it.',
    access: 'see catalogue',
    params: ids,
    reply: supplierView,
  }),
  decideSupplier: defineRoute({
    name: 'decideSupplier',
    method: 'POST',
    path: '/api/suppliers/{id}/decision',
    summary: 'Approve or refuse a proposed supplier.',
    access: 'approve suppliers',
    params: ids,
    idempotent: true,
    body: z.object({ accept: z.boolean(), reason: text(1000).default('') }),
  }),
  keepSupplierRecord: defineRoute({
    name: 'keepSupplierRecord',
    method: 'PUT',
    path: '/api/suppliers/{id}/record',
    summary: 'Keep who is spoken to at a supplier, and of what people are warned on which days.',
    access: 'keep suppliers',
    params: ids,
    ifMatch: true,
    body: z.object({
      contacts: z.array(contact).max(30),
      warning: z.object({ text: text(500), mode, from: day.nullable(), until: day.nullable() }),
    }),
    reply: z.object({ version: z.number() }),
  }),
  changeSupplierStanding: defineRoute({
    name: 'changeSupplierStanding',
    method: 'PUT',
    path: '/api/suppliers/{id}/standing',
    summary: 'Put a supplier on hold, block it, or let it be ordered from again.',
    access: 'approve suppliers',
    params: ids,
    ifMatch: true,
    body: z.object({ to: z.enum(STANDINGS), reason: text(500).default(''), until: day.nullable().default(null) }),
    reply: z.object({ version: z.number() }),
  }),
  askBankChange: defineRoute({
    name: 'askBankChange',
    method: 'PUT',
    path: '/api/suppliers/{id}/bank',
    summary: 'Ask for other bank details; they hold once somebody else of finance confirms them.',
    access: 'keep suppliers',
    params: ids,
    body: bank,
    reply: z.object({ toldTo: z.array(z.string()) }),
  }),
  confirmBankChange: defineRoute({
    name: 'confirmBankChange',
    method: 'POST',
    path: '/api/suppliers/{id}/bank/confirmations',
    summary: 'Confirm bank details that somebody else asked for; the number is the one that was seen.',
    access: 'approve suppliers',
    params: ids,
    idempotent: true,
    body: z.object({ number: text(60) }),
  }),
  endBankChange: defineRoute({
    name: 'endBankChange',
    method: 'DELETE',
    path: '/api/suppliers/{id}/bank',
    summary: 'Take back, or refuse, bank details that wait for a second person.',
    access: 'keep suppliers',
    params: ids,
  }),
  addSupplierPaper: defineRoute({
    name: 'addSupplierPaper',
    method: 'POST',
    path: '/api/suppliers/{id}/papers',
    summary: 'Keep a paper about a supplier, a PDF or a picture, until it ends; the body is the file.',
    access: 'keep suppliers',
    params: ids,
    query: z.object({ name: text(300), validUntil: day.optional() }),
    bytes: 'upload',
    reply: z.object({ id: z.string() }),
  }),
  readSupplierPaper: defineRoute({
    name: 'readSupplierPaper',
    method: 'GET',
    path: '/api/suppliers/{id}/papers/{paperId}',
    summary: 'A paper about a supplier.',
    access: 'keep suppliers',
    params: ids.extend({ paperId: id }),
    bytes: 'download',
  }),
  removeSupplierPaper: defineRoute({
    name: 'removeSupplierPaper',
    method: 'DELETE',
    path: '/api/suppliers/{id}/papers/{paperId}',
    summary: 'Take away a paper about a supplier.',
    access: 'keep suppliers',
    params: ids.extend({ paperId: id }),
  }),
  readBought: defineRoute({
    name: 'readBought',
    method: 'GET',
    path: '/api/suppliers/{id}/bought',
    summary: 'What was ordered of a supplier: by year, what most, and the last orders.',
    access: 'see orders',
    params: ids,
    reply: bought,
  }),
  listDoubles: defineRoute({
    name: 'listDoubles',
    method: 'GET',
    path: '/api/suppliers/doubles',
    summary: 'Pairs of suppliers that may be one, over the whole list.',
    access: 'approve suppliers',
    reply: z.object({ pairs: z.array(z.object({ one: paired, other: paired, why: alike.shape.why })) }),
  }),
  reviewMerging: defineRoute({
    name: 'reviewMerging',
    method: 'GET',
    path: '/api/suppliers/{id}/merging',
    summary: 'What would move if this supplier turned out to be another.',
    access: 'approve suppliers',
    params: ids,
    query: z.object({ into: id }),
    reply: merging,
  }),
  mergeSupplier: defineRoute({
    name: 'mergeSupplier',
    method: 'POST',
    path: '/api/suppliers/{id}/merging',
    summary: 'Make this supplier another one, as it was reviewed: everything that names it names the other.',
    access: 'approve suppliers',
    params: ids,
    idempotent: true,
    body: z.object({ into: id, seen: text(40) }),
  }),
} as const
