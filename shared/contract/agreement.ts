import { z } from 'zod'
import { AGREEMENT_FIXES, AGREEMENT_STANDINGS } from '#core/agreement/fit'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text } from './values'

const notBelow = decimal.refine((t) => !t.startsWith('-'), 'is below 0')
const aboveNothing = decimal.refine((t) => Number(t) > 0, 'is not more than nothing')
const days = z.number().int().min(0).max(3660)
const kept = z.object({
  name: text(120).refine((t) => t.trim() !== '', 'is missing'),
  /** Its number in the supplier's own papers. */
  theirNumber: text(60).default(''),
  supplierId: id,
  currency: z.string().length(3),
  startsOn: day,
  endsOn: day,
  fixes: z.enum(AGREEMENT_FIXES),
  /** Net, in its currency; null: no ceiling. */
  ceiling: aboveNothing.nullable(),
  warnPercent: aboveNothing.refine((t) => Number(t) <= 100, 'is more than 100').nullable(),
  warnDays: days.max(730),
  renewOn: day.nullable(),
  terms: z.object({ kind: z.enum(['net', 'month-end']), days: days.max(365) }).nullable(),
  departmentIds: z.array(id).max(200),
  note: text(2000).default(''),
  keeperId: id,
  items: z
    .array(z.object({ itemId: id, unitPrice: notBelow.nullable() }))
    .max(1000)
    .refine((list) => new Set(list.map((i) => i.itemId)).size === list.length, 'names an item twice'),
})
export type KeptAgreement = z.infer<typeof kept>

const head = z.object({
  ...{ id: z.string(), number: z.string(), name: z.string(), supplierId: z.string(), supplier: z.string() },
  ...{ startsOn: z.string(), endsOn: z.string(), fixes: z.enum(AGREEMENT_FIXES), currency: z.string() },
  standing: z.enum(AGREEMENT_STANDINGS),
  ceiling: money.nullable(),
  drawn: money,
  reserved: money,
  /** Below nothing where more is asked for than is left; null without a ceiling. */
  left: money.nullable(),
  /** What is to be known of it: its share is reached, it ends soon, its renewal is due. */
  marks: z.array(z.string()),
  keeper: z.string(),
})
export type AgreementHead = z.infer<typeof head>

const asked = z.object({
  words: text(120).default(''),
  standing: z.enum([...AGREEMENT_STANDINGS, 'any']).default('any'),
})
export type AgreementsAsked = z.infer<typeof asked>

/** What whoever keeps agreements chooses from; null for whoever does not. */
const choices = z
  .object({ departments: z.array(z.object({ id: z.string(), name: z.string() })), currencies: z.array(z.string()) })
  .nullable()
export type AgreementChoices = NonNullable<z.infer<typeof choices>>

const view = head.extend({
  version: z.number(),
  theirNumber: z.string(),
  warnPercent: z.string().nullable(),
  warnDays: z.number(),
  renewOn: z.string().nullable(),
  terms: kept.shape.terms,
  departments: z.array(z.object({ id: z.string(), name: z.string() })),
  note: z.string(),
  keeperId: z.string(),
  items: z.array(
    z.object({
      ...{ itemId: z.string(), number: z.string(), name: z.string(), supplierPart: z.string(), unit: z.string() },
      ...{ priceBase: z.string(), unitPrice: z.string().nullable(), currency: z.string(), retired: z.boolean() },
      /** Of one, in the catalogue today; null where it has none. */
      catalogue: z.string().nullable(),
      /** The catalogue says another price than was agreed. */
      differs: z.boolean(),
    }),
  ),
  orders: z.array(
    z.object({
      ...{ id: z.string(), number: z.string(), issuedAt: z.string(), state: z.string(), buyer: z.string() },
      net: money,
    }),
  ),
  /** What was sent, is not ordered yet, and would draw on it by itself; as far as the reader sees it. */
  waiting: z.array(
    z.object({
      ...{ id: z.string(), number: z.string(), state: z.string(), description: z.string(), unit: z.string() },
      ...{ open: z.string(), net: money },
    }),
  ),
  /** What of it stands on orders and requests that are not for the reader to see. */
  unseen: z.object({ drawn: money, reserved: money }),
  choices,
  mayPrice: z.boolean(),
})
export type AgreementView = z.infer<typeof view>

/** An agreement with an order's supplier, and whether the order may draw on it. */
const choice = z.object({
  ...{ id: z.string(), number: z.string(), name: z.string(), fixes: z.enum(AGREEMENT_FIXES), endsOn: z.string() },
  /** What is left to draw, apart from what is reserved; null without a ceiling. */
  left: money.nullable(),
  /** Why the order does not fit; none where it does. */
  reasons: z.array(z.string()),
})
export type AgreementChoice = z.infer<typeof choice>

export const agreementRoutes = {
  listAgreements: defineRoute({
    name: 'listAgreements',
    method: 'GET',
    path: '/api/agreements',
    summary: 'Framework agreements with what is drawn, reserved and left of each; what ends first, first.',
    access: 'see orders',
    query: asked,
    reply: z.object({ agreements: z.array(head), isAll: z.boolean(), choices }),
  }),
  exportAgreements: defineRoute({
    name: 'exportAgreements',
    method: 'GET',
    path: '/api/agreements/file',
    summary: 'The same agreements as a file.',
    access: 'see orders',
    query: asked.extend({ as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
  }),
  readAgreement: defineRoute({
    name: 'readAgreement',
    method: 'GET',
    path: '/api/agreements/{id}',
    summary: 'An agreement with what stands in it and every document behind what is drawn and reserved.',
    access: 'see orders',
    params: ids,
    reply: view,
  }),
  addAgreement: defineRoute({
    name: 'addAgreement',
    method: 'POST',
    path: '/api/agreements',
    summary: 'Enter a framework agreement with a supplier.',
    access: 'keep suppliers',
    idempotent: true,
    body: kept,
    reply: z.object({ id: z.string(), number: z.string(), version: z.number() }),
  }),
  keepAgreement: defineRoute({
    name: 'keepAgreement',
    method: 'PUT',
    path: '/api/agreements/{id}',
    summary: 'Change what a framework agreement says; never below what is drawn of it.',
    access: 'keep suppliers',
    params: ids,
    ifMatch: true,
    body: kept,
    reply: z.object({ version: z.number() }),
  }),
  closeAgreement: defineRoute({
    name: 'closeAgreement',
    method: 'PUT',
    path: '/api/agreements/{id}/closing',
    summary: 'Close an agreement, so that nothing draws on it any more, or open it again.',
    access: 'keep suppliers',
    params: ids,
    ifMatch: true,
    body: z.object({ isClosed: z.boolean() }),
    reply: z.object({ version: z.number() }),
  }),
  putAgreedPrices: defineRoute({
    name: 'putAgreedPrices',
    method: 'POST',
    path: '/api/agreements/{id}/prices',
    summary: 'Put the prices that were agreed into the catalogue, from today on.',
    access: 'keep catalogue',
    params: ids,
    idempotent: true,
    body: z.object({ itemIds: z.array(id).min(1).max(1000) }),
    reply: z.object({ items: z.number() }),
  }),
  listOrderAgreements: defineRoute({
    name: 'listOrderAgreements',
    method: 'GET',
    path: '/api/orders/{id}/agreements',
    summary: 'The agreements with an order’s supplier: which it may draw on, and why not on the others.',
    access: 'order',
    params: ids,
    reply: z.object({ agreementId: z.string().nullable(), choices: z.array(choice) }),
  }),
  setOrderAgreement: defineRoute({
    name: 'setOrderAgreement',
    method: 'PUT',
    path: '/api/orders/{id}/agreement',
    summary: 'Say on which agreement an order draws, a tray or one that is issued; null: on none.',
    access: 'order',
    params: ids,
    ifMatch: true,
    body: z.object({ agreementId: id.nullable() }),
    reply: z.object({ version: z.number() }),
  }),
} as const
