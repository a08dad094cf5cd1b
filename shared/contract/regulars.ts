import { z } from 'zod'
import { LINE_SOURCES } from '#core/requisition/line-source'
import { RHYTHMS } from '#core/requisition/rhythm'
import { item } from './catalogue'
import { draft } from './requisition'
import { defineRoute } from './route'
import { day, decimal, id, ids, made, text, versioned } from './values'

const offeredLine = z.object({
  itemId: id.nullable(),
  description: text(400),
  secondDescription: text(400).default(''),
  quantity: decimal,
  unit: text(8),
  unitPrice: decimal.nullable(),
  priceBase: decimal,
  currency: z.string().length(3),
  taxCode: text(10),
  supplierId: id.nullable(),
  supplierPart: text(80).nullable(),
  categoryId: id.nullable().default(null),
})
/** A line as it is offered: the page makes a line of it, at today's price where it is a catalogue item. */
const sourceLine = offeredLine.extend({ account: z.string().nullable(), note: z.string() })
export type SourceLine = z.infer<typeof sourceLine>
const sourceGroup = z.object({ id: z.string(), name: z.string(), note: z.string(), lines: z.array(sourceLine) })
export type SourceGroup = z.infer<typeof sourceGroup>

const regularEntry = offeredLine.extend({ id: z.string(), supplier: z.string().nullable() })
const regularList = z.object({
  id: z.string(),
  version: z.number(),
  name: z.string(),
  department: z.string().nullable(),
  departmentId: z.string().nullable(),
  entries: z.array(regularEntry),
})
export type RegularList = z.infer<typeof regularList>

const rhythm = z.object({
  every: z.enum(RHYTHMS),
  startsOn: day,
  sendsItself: z.boolean(),
  neededAfter: z.number().int().min(1).max(250),
})
const template = z.object({
  id: z.string(),
  version: z.number(),
  name: z.string(),
  owner: z.string(),
  mine: z.boolean(),
  department: z.string().nullable(),
  departmentId: z.string().nullable(),
  lines: z.number(),
  rhythm: rhythm.nullable(),
  nextOn: z.string().nullable(),
})
export type TemplateView = z.infer<typeof template>
/** A draft to begin from, with the names of what it refers to. */
const beginning = z.object({ draft, suppliers: z.record(z.string(), z.string()) })
export type Beginning = z.infer<typeof beginning>

export const regularsRoutes = {
  readLineSource: defineRoute({
    name: 'readLineSource',
    method: 'GET',
    path: '/api/line-sources/{source}',
    summary: 'Lines to take from regulars, last purchases, earlier requests, orders or templates.',
    access: 'raise',
    params: z.object({ source: z.enum(LINE_SOURCES) }),
    query: z.object({ departmentId: id.optional(), words: text(100).default('') }),
    reply: z.object({
      groups: z.array(sourceGroup),
      items: z.array(item),
      suppliers: z.record(z.string(), z.string()),
    }),
  }),
  proposeAccount: defineRoute({
    name: 'proposeAccount',
    method: 'GET',
    path: '/api/account-proposal',
    summary: 'The account that a department last paid something alike from.',
    access: 'raise',
    query: z.object({ departmentId: id, words: text(400) }),
    reply: z.object({ account: z.string().nullable() }),
  }),
  listRegulars: defineRoute({
    name: 'listRegulars',
    method: 'GET',
    path: '/api/regulars',
    summary: 'One’s own lists of regulars, and those of the departments open to one.',
    access: 'raise',
    reply: z.object({ lists: z.array(regularList) }),
  }),
  makeRegulars: defineRoute({
    name: 'makeRegulars',
    method: 'POST',
    path: '/api/regulars',
    summary: 'A new list of regulars, one’s own or a department’s.',
    access: 'raise',
    idempotent: true,
    body: z.object({
      name: text(80).refine((t) => t.trim() !== '', 'is empty'),
      departmentId: id.nullable(),
      entries: z.array(offeredLine).max(200),
    }),
    reply: made,
  }),
  changeRegulars: defineRoute({
    name: 'changeRegulars',
    method: 'PUT',
    path: '/api/regulars/{id}',
    summary: 'Write a list of regulars anew.',
    access: 'raise',
    params: ids,
    ifMatch: true,
    body: z.object({
      name: text(80).refine((t) => t.trim() !== '', 'is empty'),
      entries: z.array(offeredLine).max(200),
    }),
    reply: versioned,
  }),
  removeRegulars: defineRoute({
    name: 'removeRegulars',
    method: 'DELETE',
    path: '/api/regulars/{id}',
    summary: 'Take a list of regulars away.',
    access: 'raise',
    params: ids,
    ifMatch: true,
  }),
  listTemplates: defineRoute({
    name: 'listTemplates',
    method: 'GET',
    path: '/api/templates',
    summary: 'One’s own templates, and those shared with the departments open to one.',
    access: 'raise',
    reply: z.object({ templates: z.array(template) }),
  }),
  makeTemplate: defineRoute({
    name: 'makeTemplate',
    method: 'POST',
    path: '/api/templates',
    summary: 'Keep a draft as a template; with a rhythm it is raised again by itself.',
    access: 'raise',
    idempotent: true,
    body: z.object({
      name: text(120).refine((t) => t.trim() !== '', 'is empty'),
      departmentId: id.nullable(),
      draft,
      rhythm: rhythm.nullable(),
    }),
    reply: made,
  }),
  changeTemplate: defineRoute({
    name: 'changeTemplate',
    method: 'PUT',
    path: '/api/templates/{id}',
    summary: 'Name, sharing and rhythm of a template.',
    access: 'raise',
    params: ids,
    ifMatch: true,
    body: z.object({
      name: text(120).refine((t) => t.trim() !== '', 'is empty'),
      departmentId: id.nullable(),
      rhythm: rhythm.nullable(),
    }),
    reply: versioned,
  }),
  removeTemplate: defineRoute({
    name: 'removeTemplate',
    method: 'DELETE',
    path: '/api/templates/{id}',
    summary: 'Take a template away.',
    access: 'raise',
    params: ids,
    ifMatch: true,
  }),
  beginFromTemplate: defineRoute({
    name: 'beginFromTemplate',
    method: 'GET',
    path: '/api/templates/{id}/copy',
    summary: 'A draft to begin from a template, at prices and budget lines of today.',
    access: 'raise',
    params: ids,
    reply: beginning,
  }),
  beginFromRequisition: defineRoute({
    name: 'beginFromRequisition',
    method: 'GET',
    path: '/api/requisitions/{id}/copy',
    summary: 'A draft to begin from an earlier requisition.',
    access: 'raise',
    params: ids,
    reply: beginning,
  }),
  beginFromOrder: defineRoute({
    name: 'beginFromOrder',
    method: 'GET',
    path: '/api/orders/{id}/copy',
    summary: 'A draft to begin from the lines of an order.',
    access: 'raise',
    params: ids,
    reply: beginning,
  }),
} as const
