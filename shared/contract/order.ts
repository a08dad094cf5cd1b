import { z } from 'zod'
import { blanketOrder } from './call-off'
import { attachment } from './document'
import { orderAnswer } from './order-answer'
import { changeUnderWay } from './order-change'
import { lineOffers } from './offers'
import { orderAdjustments, orderConditions, partsOfNet } from './order-conditions'
import { orderTalk } from './order-talk'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text, versioned } from './values'

const deskLine = z.object({
  id: z.string(),
  requisitionId: z.string(),
  number: z.string(),
  asker: z.string(),
  description: z.string(),
  open: z.string(),
  unit: z.string(),
  unitPrice: z.string(),
  priceBase: z.string(),
  currency: z.string(),
  net: money,
  supplierId: z.string().nullable(),
  supplier: z.string().nullable(),
  freightFreeFrom: z.string().nullable(),
  needBy: z.string(),
  shipToId: z.string(),
  shipTo: z.string(),
  noteInternal: z.string(),
  supplierStanding: z.string().nullable(),
  /** The number of the agreement on which it draws by itself. */
  agreement: z.string().nullable(),
  /** Put aside until then, and why. */
  asideUntil: z.string().nullable(),
  asideReason: z.string(),
  /** What a buyer asked about it last, on which day, and what was answered; null: nothing. */
  asked: z
    .object({ by: z.string(), on: z.string(), text: z.string(), isOpen: z.boolean(), answer: z.string().nullable() })
    .nullable(),
  /** Who else has it, and what the cheapest saves of its goods; null: nobody does. */
  others: z
    .object({
      /** Those of whom it can be ordered, the cheapest first. */
      fitting: z.array(z.object({ itemId: z.string(), supplierId: z.string(), supplier: z.string() })),
      saves: money.nullable(),
    })
    .nullable(),
})
export type DeskLine = z.infer<typeof deskLine>
const tray = z.object({
  id: z.string(),
  version: z.number(),
  supplierId: z.string(),
  supplier: z.string(),
  shipTo: z.string(),
  shipToId: z.string(),
  currency: z.string(),
  terms: z.string(),
  conditions: orderConditions,
  /** On which it draws, with what is left of that before it. */
  agreement: z
    .object({
      ...{ id: z.string(), number: z.string(), name: z.string() },
      ...{ left: money.nullable(), warnings: z.array(z.string()) },
    })
    .nullable(),
  /** Its buyer said on which, or on none: what is laid on it does not change that. */
  agreementSaid: z.boolean(),
  /** There are agreements with its supplier that are not over. */
  hasAgreements: z.boolean(),
  net: money,
  tax: money,
  total: money,
  saved: money,
  needBy: z.string(),
  lines: z.array(
    z.object({
      description: z.string(),
      quantity: z.string(),
      unit: z.string(),
      unitPrice: z.string(),
      net: money,
      asked: money,
      /** What the next step of its item’s price would make of all that is ordered of it. */
      hint: z
        .object({
          ...{ quantity: z.string(), net: money },
          next: z.object({ more: z.string(), at: z.string(), price: z.string(), net: money }).nullable(),
        })
        .nullable(),
      itemId: z.string().nullable(),
      lineIds: z.array(z.string()),
      /** Whose it was to be, of those lines of which another's offer was taken. */
      insteadOf: z.array(z.string()),
      requests: z.number(),
    }),
  ),
  /** It is in the sums; the goods alone decide what freight is asked. */
  ...partsOfNet,
  /** The value of goods from which that is free; null: never, or it costs nothing anyway. */
  freightFreeFrom: money.nullable(),
  /** The least value of goods that the supplier takes an order for, where they do not reach it. */
  minimum: money.nullable(),
  /** How many requests lie on it. */
  requests: z.number(),
  /** Of a direct order, which has no request: for whom it was written. */
  directFor: z.string().nullable(),
  state: z.enum(['draft', 'in approval', 'approved']),
  /** Nothing but authority stands in its way: it may be sent to whoever decides. */
  maySend: z.boolean(),
  /** Of one that was sent: whom it waits for; nobody, where it is held. */
  waits: z.array(z.string()),
  /** It is issued as soon as it is approved. */
  issuesItself: z.boolean(),
  /** What was asked about it and is not answered, and what was said when it was sent back last. */
  said: z.array(z.object({ id: z.string(), by: z.string(), text: z.string(), asks: z.boolean() })),
  refusals: z.array(z.string()),
  /** What the supplier is told on it. */
  note: z.string(),
  /** Signs that its PDF cannot show, together. */
  unseen: z.string(),
  mayIssue: z.boolean(),
})
export type TrayView = z.infer<typeof tray>

const orderHead = z.object({
  id: z.string(),
  number: z.string(),
  state: z.string(),
  supplier: z.string(),
  buyer: z.string(),
  currency: z.string(),
  net: z.string(),
  issuedAt: z.string(),
  mailed: z.boolean(),
  /** The first day on which something of it is needed; null of one that is cancelled whole. */
  needBy: z.string().nullable(),
  /** The last day on which it may be delivered. */
  expiresOn: z.string().nullable(),
  placedAs: z.string().nullable(),
  /** It goes to its supplier. */
  isSent: z.boolean(),
  isBlanket: z.boolean(),
  /** Of a blanket order: all of it is called off. */
  isUsedUp: z.boolean(),
  /** Of a call-off: the number of the blanket order of which it is a part. */
  calledFrom: z.string().nullable(),
  /** How often it was changed since it was issued. */
  revision: z.number(),
  /** A change of it is under way. */
  isChanging: z.boolean(),
  /** What its supplier answered waits for its buyer. */
  isAnswered: z.boolean(),
  /** When its supplier was asked last for an answer. */
  remindedAt: z.string().nullable(),
})
export type OrderHead = z.infer<typeof orderHead>
/** What a direct order says besides its lines, as a request for them would. */
export const directOrder = z.object({
  ...{ for: z.string(), title: z.string(), why: z.string(), department: z.string() },
  ...{ justification: z.string(), overBudgetReason: z.string(), attachments: z.array(attachment) },
})
export type DirectOrder = z.infer<typeof directOrder>
const orderView = z.object({
  id: z.string(),
  number: z.string(),
  version: z.number(),
  state: z.string(),
  supplier: z.string(),
  buyer: z.string(),
  /** Of a direct order, which has no request: for whom it was written, and what was written with it. */
  direct: directOrder.nullable(),
  shipTo: z.string(),
  shipToAddress: z.string(),
  currency: z.string(),
  terms: z.string(),
  /** The number under which it was placed elsewhere; and whether it goes to its supplier. */
  placedAs: z.string().nullable(),
  isSent: z.boolean(),
  /** Of a call-off: the blanket order of which it is a part. */
  calledFrom: z.object({ id: z.string(), number: z.string() }).nullable(),
  /** Of a blanket order: what was called off of it, and what is left. */
  blanket: blanketOrder.nullable(),
  agreement: z.object({ id: z.string(), number: z.string() }).nullable(),
  /** The run that made it by itself, for whoever may read it. */
  run: z.object({ id: z.string(), rule: z.string() }).nullable(),
  /** The reader may say on which agreement it draws. */
  mayDraw: z.boolean(),
  net: money,
  ...partsOfNet,
  tax: money,
  total: money,
  issuedAt: z.string(),
  lines: z.array(
    z.object({
      id: z.string(),
      description: z.string(),
      more: z.array(z.string()),
      supplierPart: z.string().nullable(),
      quantity: z.string(),
      unit: z.string(),
      unitPrice: z.string(),
      priceBase: z.string(),
      needBy: z.string(),
      /** By when its supplier promised it. */
      promisedOn: z.string().nullable(),
      net: money,
      sources: z.array(z.object({ requisitionId: z.string(), number: z.string(), quantity: z.string() })),
    }),
  ),
  note: z.string(),
  internalNotes: z.array(z.object({ number: z.string(), note: z.string() })),
  deliveryDetails: z.array(z.string()),
  revisions: z.array(
    z.object({
      revision: z.number(),
      issuedAt: z.string(),
      issuedBy: z.string(),
      hasPdf: z.boolean(),
      /** Over which channel it went, where to, and how far it came. */
      channel: z.string().nullable(),
      address: z.string().nullable(),
      sentAt: z.string().nullable(),
      lastError: z.string().nullable(),
      /** Its last sending is not handed over yet. */
      isWaiting: z.boolean(),
      /** How often it was sent, or is to be. */
      sendings: z.number(),
      /** Why it was sent again; "" of the first. */
      reason: z.string(),
    }),
  ),
  buyerId: z.string(),
  /** The last day on which it may be delivered, or called off. */
  expiresOn: z.string().nullable(),
  /** What is taken off the whole or put on it, as it was said; `adjustments` is what that comes to. */
  saidAdjustments: orderAdjustments,
  shipToId: z.string(),
  /** Whoever reads it may change it. */
  mayChange: z.boolean(),
  /** Where it may go instead, for whoever may change it. */
  places: z.array(z.object({ id: z.string(), name: z.string() })),
  /** A change of it that is under way. */
  change: changeUnderWay.nullable(),
  /** What its supplier answered, the last first. */
  answers: z.array(orderAnswer),
  /** What was said with its supplier besides, the last first; whether the reader notes more. */
  talks: z.array(orderTalk),
  mayNote: z.boolean(),
  /** When its supplier was asked last for an answer. */
  remindedAt: z.string().nullable(),
})
export type OrderView = z.infer<typeof orderView>

const deskAsked = z.object({
  /** Words of what is asked for, its supplier and whoever asked, or a number. */
  words: text(200).default(''),
  /** Several: others have what is asked for too. */
  supplier: z.enum(['any', 'known', 'several', 'none']).default('any'),
  shipToId: id.optional(),
  /** Past its day, or within a week. */
  due: z.enum(['any', 'late', 'week']).default('any'),
  /** Those that wait, or those that were put aside. */
  aside: z.enum(['no', 'yes']).default('no'),
})
export type DeskAsked = z.output<typeof deskAsked>

/** Sorts of orders by which they are asked for. */
const ORDER_SORTS = ['blanket', 'call-off', 'by amount', 'direct', 'placed elsewhere'] as const
const ordersAsked = z.object({
  whose: z.enum(['all', 'own']).default('all'),
  sort: z.enum(ORDER_SORTS).optional(),
  state: z
    .enum([
      ...([
        'any',
        'issued',
        'overdue',
        'expired',
        'due soon',
        'unanswered',
        'answered',
        'acknowledged',
        'changing',
        'unsent',
      ] as const),
      'cancelled',
    ])
    .default('any'),
  words: text(200).default(''),
  /** Days of issue, both included. */
  from: day.optional(),
  until: day.optional(),
})
export type OrdersAsked = z.output<typeof ordersAsked>

export const orderRoutes = {
  readDesk: defineRoute({
    name: 'readDesk',
    method: 'GET',
    path: '/api/desk',
    summary: 'Approved lines that wait to be ordered, and one’s own trays.',
    access: 'order',
    query: deskAsked.extend({ limit: z.coerce.number().int().min(1).max(500).default(200) }),
    reply: z.object({
      ...{ lines: z.array(deskLine), trays: z.array(tray), total: z.number(), currency: z.string() },
      /** Where lines may go to. */
      places: z.array(z.object({ id: z.string(), name: z.string() })),
    }),
  }),
  putAside: defineRoute({
    name: 'putAside',
    method: 'POST',
    path: '/api/desk/aside',
    summary: 'Put lines of the Desk aside until a day; or have them wait again.',
    access: 'order',
    body: z.object({ lineIds: z.array(id).min(1).max(500), until: day.nullable(), reason: text(300).default('') }),
  }),
  askAboutLine: defineRoute({
    name: 'askAboutLine',
    method: 'POST',
    path: '/api/desk/lines/{id}/questions',
    summary: 'Ask whoever asked for a line something about it; it waits for the answer.',
    access: 'order',
    params: ids,
    idempotent: true,
    body: z.object({ text: text(4000) }),
    reply: z.object({ id: z.string() }),
  }),
  readOffers: defineRoute({
    name: 'readOffers',
    method: 'GET',
    path: '/api/desk/lines/{id}/offers',
    summary: 'Everybody who has what a line of the Desk asks for, side by side: price, day, terms, and why not.',
    access: 'order',
    params: ids,
    /** What it would be for a part of what is open. */
    query: z.object({ quantity: decimal.optional() }),
    reply: lineOffers,
  }),
  layOnTray: defineRoute({
    name: 'layOnTray',
    method: 'POST',
    path: '/api/trays',
    summary: 'Lay lines on a tray, or on a new one; also of another supplier, as the item that it offers.',
    access: 'order',
    idempotent: true,
    body: z.object({
      orderId: id.nullable(),
      supplierId: id.nullable(),
      parts: z
        .array(z.object({ lineId: id, quantity: decimal.nullable(), offerItemId: id.nullable().default(null) }))
        .min(1)
        .max(500),
    }),
    reply: z.object({ orderId: z.string() }),
  }),
  orderDirectly: defineRoute({
    name: 'orderDirectly',
    method: 'POST',
    path: '/api/requisitions/{id}/order',
    summary: 'Make an order of a draft that was written for somebody, without a request: a tray, to be decided on.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned,
  }),
  writeOn: defineRoute({
    name: 'writeOn',
    method: 'POST',
    path: '/api/trays/{id}/writing',
    summary: 'Write on a direct order: it is a draft again; or, once it was decided on, a copy of it is.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned,
  }),
  takeOffTray: defineRoute({
    name: 'takeOffTray',
    method: 'POST',
    path: '/api/trays/{id}/take-off',
    summary: 'Take lines off a tray; all of them put it away.',
    access: 'order',
    params: ids,
    body: z.object({ lineIds: z.array(id).max(500).nullable() }),
    /** What lay there, as it can be laid again. */
    reply: z.object({
      parts: z.array(z.object({ lineId: z.string(), quantity: z.string(), offerItemId: z.string().nullable() })),
    }),
  }),
  readTrayBuyers: defineRoute({
    name: 'readTrayBuyers',
    method: 'GET',
    path: '/api/trays/{id}/buyers',
    summary: 'Buyers to whom a tray may be passed, those whose limit covers it first.',
    access: 'order',
    params: ids,
    reply: z.object({ buyers: z.array(z.object({ id: z.string(), name: z.string(), mayIssue: z.boolean() })) }),
  }),
  passTray: defineRoute({
    name: 'passTray',
    method: 'POST',
    path: '/api/trays/{id}/pass',
    summary: 'Pass a tray to another buyer; or take it back while they have not touched it.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ personId: id }),
    reply: versioned,
  }),
  sendTray: defineRoute({
    name: 'sendTray',
    method: 'POST',
    path: '/api/trays/{id}/send',
    summary: 'Send an order that one may not issue alone to whoever decides on it.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ issuesItself: z.boolean().default(true) }),
    reply: versioned.extend({ state: z.string() }),
  }),
  takeTrayBack: defineRoute({
    name: 'takeTrayBack',
    method: 'POST',
    path: '/api/trays/{id}/withdraw',
    summary: 'Take an order back from whoever decides, or that they approved: it is a tray again.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned,
  }),
  agreePrice: defineRoute({
    name: 'agreePrice',
    method: 'POST',
    path: '/api/trays/{id}/prices',
    summary: 'Write the price agreed for a line without a catalogue price.',
    access: 'order',
    params: ids,
    body: z.object({ lineId: id, unitPrice: decimal.refine((t) => !t.startsWith('-'), 'is below 0') }),
  }),
  setTrayQuantity: defineRoute({
    name: 'setTrayQuantity',
    method: 'POST',
    path: '/api/trays/{id}/quantities',
    summary: 'Say how many of one line of a tray are ordered there; the rest goes back to the Desk, or comes from it.',
    access: 'order',
    params: ids,
    body: z.object({
      lineIds: z.array(id).min(1).max(500),
      quantity: decimal.refine((t) => !t.startsWith('-'), 'is below 0'),
    }),
  }),
  writeTrayNote: defineRoute({
    name: 'writeTrayNote',
    method: 'POST',
    path: '/api/trays/{id}/note',
    summary: 'Write what the supplier is told on an order that is being put together.',
    access: 'order',
    params: ids,
    body: z.object({ note: text(2000) }),
  }),
  setConditions: defineRoute({
    name: 'setConditions',
    method: 'PUT',
    path: '/api/trays/{id}/conditions',
    summary: 'Say how an order that is put together is paid and delivered, until when, and that it was placed already.',
    access: 'order',
    params: ids,
    ifMatch: true,
    body: orderConditions,
    reply: versioned,
  }),
  issueOrder: defineRoute({
    name: 'issueOrder',
    method: 'POST',
    path: '/api/orders/{id}/issue',
    summary: 'Issue an order: number, money, PDF and mail.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    reply: versioned.extend({ number: z.string() }),
  }),
  resendOrder: defineRoute({
    name: 'resendOrder',
    method: 'POST',
    path: '/api/orders/{id}/sendings',
    summary: 'Send what holds of an order once more, to the supplier’s address of now.',
    access: 'order',
    params: ids,
    idempotent: true,
    reply: z.object({ address: z.string() }),
  }),
  listOrders: defineRoute({
    name: 'listOrders',
    method: 'GET',
    path: '/api/orders',
    summary: 'Issued orders, newest first, by keyset pages.',
    access: 'see orders',
    query: ordersAsked.extend({
      after: z.string().max(80).optional(),
      limit: z.coerce.number().int().min(1).max(100).default(50),
    }),
    reply: z.object({ orders: z.array(orderHead), next: z.string().nullable() }),
  }),
  exportOrders: defineRoute({
    name: 'exportOrders',
    method: 'GET',
    path: '/api/orders/file',
    summary: 'The same orders as a file.',
    access: 'see orders',
    query: ordersAsked.extend({ as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
  }),
  readOrder: defineRoute({
    name: 'readOrder',
    method: 'GET',
    path: '/api/orders/{id}',
    summary: 'An order as it stands.',
    access: 'see own',
    params: ids,
    reply: orderView,
  }),
  readOrderAttachment: defineRoute({
    name: 'readOrderAttachment',
    method: 'GET',
    path: '/api/orders/{id}/attachments/{attachmentId}',
    summary: 'An attachment of a direct order, to be kept; with show, to be looked at in place.',
    access: 'see own',
    params: z.object({ id, attachmentId: id }),
    query: z.object({ show: z.stringbool().default(false) }),
    bytes: 'download',
  }),
  readOrderPdf: defineRoute({
    name: 'readOrderPdf',
    method: 'GET',
    path: '/api/orders/{id}/pdf',
    summary: 'The PDF of an order as it was sent.',
    access: 'see own',
    params: ids,
    query: z.object({ revision: z.coerce.number().int().min(0).optional() }),
    bytes: 'download',
  }),
  readOrderUbl: defineRoute({
    name: 'readOrderUbl',
    method: 'GET',
    path: '/api/orders/{id}/ubl',
    summary: 'An order as it was sent, as UBL 2.1: Order, OrderChange or OrderCancellation.',
    access: 'see own',
    params: ids,
    query: z.object({ revision: z.coerce.number().int().min(0).optional() }),
    bytes: 'download',
  }),
} as const
