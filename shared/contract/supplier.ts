import { z } from 'zod'
import { supplier } from './catalogue'
import { defineRoute } from './route'
import { ids, text } from './values'

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
const supplierView = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  town: z.string(),
  address: z.string(),
  email: z.string().nullable(),
  telephone: z.string(),
  taxNumber: z.string().nullable(),
  currency: z.string(),
  standing: z.string(),
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
} as const
