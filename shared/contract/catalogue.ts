import { z } from 'zod'
import { defineRoute } from './route'
import { id, text } from './values'

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

export const catalogueRoutes = {
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
