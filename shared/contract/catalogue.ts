import { z } from 'zod'
import { DRAWINGS } from '#core/catalogue/drawing'
import { defineRoute } from './route'
import { day, decimal, id, ids, text } from './values'

const priceStep = z.object({
  from: z.string(),
  unitPrice: z.string(),
  validFrom: z.string().nullable(),
  validUntil: z.string().nullable(),
})
const warningMode = z.enum(['informs', 'must be read', 'stops'])
/** What a verdict has to know of an item and of a supplier. */
const itemFacts = z.object({
  id: z.string(),
  agreed: z.boolean(),
  leadDays: z.number(),
  warning: z.string().nullable(),
  warningMode,
  retired: z.boolean(),
  successor: z.string().nullable(),
})
const supplierFacts = z.object({
  id: z.string(),
  name: z.string(),
  standing: z.enum(['active', 'on hold', 'proposed']),
  leadDays: z.number(),
  warning: z.string().nullable(),
  warningMode,
})
export const item = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  description: z.string(),
  categoryId: z.string(),
  category: z.string(),
  drawing: z.enum(DRAWINGS),
  accountCode: z.string().nullable(),
  supplierId: z.string(),
  supplier: z.string(),
  supplierStanding: z.string(),
  supplierPart: z.string(),
  unit: z.string(),
  priceBase: z.string(),
  currency: z.string(),
  taxCode: z.string(),
  leadDays: z.number(),
  hasAgreement: z.boolean(),
  packSize: z.string().nullable(),
  prices: z.array(priceStep),
  bought: z.number(),
  facts: itemFacts,
  supplierFacts,
})
export type ItemFound = z.infer<typeof item>
export const supplier = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  town: z.string(),
  currency: z.string(),
  standing: z.string(),
  warning: z.string().nullable(),
  leadDays: z.number(),
  facts: supplierFacts,
})
export type SupplierFound = z.infer<typeof supplier>

/** What was last ordered of an item, and at which price. */
const paid = z.object({
  day: z.string(),
  quantity: z.string(),
  unit: z.string(),
  unitPrice: z.string(),
  priceBase: z.string(),
  currency: z.string(),
})
const catalogueItem = item.extend({
  paid: paid.nullable(),
  /** The picture that stands for it. */
  pictureId: z.string().nullable(),
})
export type CatalogueItem = z.infer<typeof catalogueItem>
const filter = z.object({
  words: text(200).default(''),
  departmentId: id.optional(),
  /** A category with all that is part of it. */
  category: id.optional(),
  supplier: id.optional(),
  agreement: z.enum(['yes', 'no']).optional(),
  /** By when it has to be here. */
  by: day.optional(),
  /** Between which prices one of it costs, in the base currency. */
  from: decimal.optional(),
  to: decimal.optional(),
  /** Asked for before: by oneself, or by the department. */
  bought: z.enum(['me', 'department']).optional(),
})
export type CatalogueFilter = z.output<typeof filter>
const named = z.object({ id: z.string(), name: z.string() })
const itemPage = z.object({
  item: catalogueItem,
  /** Every price there was, is and is known to come. */
  steps: z.array(priceStep),
  successor: named.extend({ number: z.string() }).nullable(),
  /** The same thing of other suppliers. */
  others: z.array(catalogueItem),
  /** By how many lines departments asked for it, the most first. */
  askedBy: z.array(z.object({ department: z.string(), lines: z.number() })),
  /** What often stands on one request with it. */
  together: z.array(named.extend({ number: z.string(), times: z.number() })),
  paid: z.array(paid),
  pictures: z.array(named),
})
export type ItemPage = z.infer<typeof itemPage>

export const catalogueRoutes = {
  browseCatalogue: defineRoute({
    name: 'browseCatalogue',
    method: 'GET',
    path: '/api/catalogue',
    summary: 'Items that can be bought, by words and filters; without words by name, page by page.',
    access: 'see catalogue',
    query: filter.extend({ after: text(300).optional(), limit: z.coerce.number().int().min(1).max(60).default(30) }),
    reply: z.object({
      items: z.array(catalogueItem),
      /** How many there are, counted to 1,000; with words only those that were found. */
      count: z.number(),
      next: z.string().nullable(),
    }),
  }),
  readCatalogueChoices: defineRoute({
    name: 'readCatalogueChoices',
    method: 'GET',
    path: '/api/catalogue/choices',
    summary: 'The categories and suppliers that items can be looked for by.',
    access: 'see catalogue',
    reply: z.object({
      categories: z.array(named.extend({ parentId: z.string().nullable(), items: z.number() })),
      suppliers: z.array(named.extend({ items: z.number() })),
    }),
  }),
  readItem: defineRoute({
    name: 'readItem',
    method: 'GET',
    path: '/api/items/{id}',
    summary: 'An item with its prices, who has it besides, who asks for it, and what stands with it.',
    access: 'see catalogue',
    params: ids,
    query: z.object({ departmentId: id.optional() }),
    reply: itemPage,
  }),
  setItemPrices: defineRoute({
    name: 'setItemPrices',
    method: 'PUT',
    path: '/api/items/{id}/prices',
    summary: 'What an item costs from a day on; what was to hold from then on holds no more.',
    access: 'keep catalogue',
    params: ids,
    body: z.object({
      from: day,
      steps: z
        .array(z.object({ from: decimal, unitPrice: decimal }))
        .min(1, 'has no price')
        .max(20),
    }),
  }),
  addItemPicture: defineRoute({
    name: 'addItemPicture',
    method: 'POST',
    path: '/api/items/{id}/pictures',
    summary: 'Keep a picture of an item, a PNG or a JPEG, behind those there are; the body is the file.',
    access: 'keep catalogue',
    params: ids,
    query: z.object({ name: text(300) }),
    bytes: 'upload',
    reply: z.object({ id: z.string() }),
  }),
  readItemPicture: defineRoute({
    name: 'readItemPicture',
    method: 'GET',
    path: '/api/items/{id}/pictures/{pictureId}',
    summary: 'A picture of an item.',
    access: 'see catalogue',
    params: ids.extend({ pictureId: id }),
    bytes: 'download',
  }),
  useItemPicture: defineRoute({
    name: 'useItemPicture',
    method: 'PUT',
    path: '/api/items/{id}/pictures/{pictureId}',
    summary: 'Let a picture stand for its item: it comes before all others.',
    access: 'keep catalogue',
    params: ids.extend({ pictureId: id }),
  }),
  removeItemPicture: defineRoute({
    name: 'removeItemPicture',
    method: 'DELETE',
    path: '/api/items/{id}/pictures/{pictureId}',
    summary: 'Take a picture of an item away.',
    access: 'keep catalogue',
    params: ids.extend({ pictureId: id }),
  }),
  searchItems: defineRoute({
    name: 'searchItems',
    method: 'GET',
    path: '/api/items',
    summary: 'Catalogue items by words or part number, forgiving typing errors.',
    access: 'see catalogue',
    query: z.object({
      words: text(200).default(''),
      departmentId: id.optional(),
      limit: z.coerce.number().int().min(1).max(50).default(8),
    }),
    reply: z.object({ items: z.array(item) }),
  }),
  matchItems: defineRoute({
    name: 'matchItems',
    method: 'POST',
    path: '/api/items/match',
    summary: 'Catalogue items by exactly their own or their supplier’s number.',
    access: 'see catalogue',
    body: z.object({ numbers: z.array(text(80)).max(500) }),
    reply: z.object({ items: z.array(item) }),
  }),
  matchSuppliers: defineRoute({
    name: 'matchSuppliers',
    method: 'POST',
    path: '/api/suppliers/match',
    summary: 'The one supplier that each text means, by name or number; what is not clear is left out.',
    access: 'see catalogue',
    body: z.object({ texts: z.array(text(100)).max(500) }),
    reply: z.object({ found: z.array(z.object({ typed: z.string(), supplier })) }),
  }),
  searchSuppliers: defineRoute({
    name: 'searchSuppliers',
    method: 'GET',
    path: '/api/suppliers',
    summary: 'Suppliers by any part of the name, number or town.',
    access: 'see catalogue',
    query: z.object({ words: text(100).default(''), limit: z.coerce.number().int().min(1).max(200).default(30) }),
    reply: z.object({ suppliers: z.array(supplier) }),
  }),
} as const
