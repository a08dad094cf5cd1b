import { z } from 'zod'
import { NEW_SUPPLIER_POLICIES, type RequestForm } from '#core/requisition/form'
import { OWN_FIELD_TYPES, type OwnFieldType } from '#core/requisition/own-field'
import { ATTACHMENT_KINDS } from '#core/requisition/rules'
import { defineRoute } from './route'
import { decimal, id, text } from './values'

const kind = z.object({
  code: text(40).min(1),
  name: text(60),
  help: text(300),
  series: text(10),
  /** What is added to a job is asked for by itself, as a request of this kind. */
  raisesParts: z.boolean().optional(),
})
const codes = z.array(text(40)).max(100)
const several = z.array(id).max(500)
const ownField = z.object({
  id,
  name: text(80),
  help: text(300),
  on: z.enum(['requisition', 'line']),
  type: z.enum(Object.keys(OWN_FIELD_TYPES) as [OwnFieldType, ...OwnFieldType[]]),
  required: z.boolean(),
  kinds: codes,
  departmentIds: several,
  categoryIds: several,
  choices: z.array(text(120)).max(100),
})
const rule = z.object({
  id,
  name: text(300),
  when: z.object({
    from: z.object({ amount: decimal, currency: z.string().length(3) }).nullable(),
    kinds: codes,
    departmentIds: several,
    categoryIds: several,
    withoutAgreement: z.boolean(),
  }),
  asks: z.discriminatedUnion('what', [
    z.object({ what: z.literal('quotes'), count: z.number().int() }),
    z.object({ what: z.literal('attachment'), kind: z.enum(ATTACHMENT_KINDS) }),
    z.object({ what: z.literal('justification') }),
    z.object({ what: z.literal('reading'), text: text(1000) }),
  ]),
})
const once = <T>(list: readonly T[], key: (entry: T) => string) => new Set(list.map(key)).size === list.length
const form = z.object({
  newSuppliers: z.enum(NEW_SUPPLIER_POLICIES),
  kinds: z
    .array(kind)
    .max(50)
    .refine((list) => once(list, (k) => k.code), 'names a kind twice'),
  ownFields: z
    .array(ownField)
    .max(200)
    .refine((list) => once(list, (f) => f.id), 'names a field twice'),
  rules: z
    .array(rule)
    .max(200)
    .refine((list) => once(list, (r) => r.id), 'names a rule twice'),
})

const named = z.array(z.object({ id: z.string(), name: z.string() }))
const formView = z.object({
  form: z.custom<RequestForm>(),
  version: z.number(),
  currency: z.string(),
  departments: named,
  categories: named,
  /** Requests sent so far, by kind; documents on which an own field is filled in, by its id. */
  sent: z.record(z.string(), z.number()),
  filled: z.record(z.string(), z.number()),
})
export type RequestFormView = z.infer<typeof formView>
const replayed = z.object({
  sent: z.number(),
  since: z.string().nullable(),
  rules: z.array(z.object({ asked: z.number(), lacking: z.number() })),
})
export type RulesReplay = z.infer<typeof replayed>

export const requestFormRoutes = {
  readRequestForm: defineRoute({
    name: 'readRequestForm',
    method: 'GET',
    path: '/api/request-form',
    summary: 'Kinds, own fields, rules and what holds for new suppliers, as they are now.',
    access: 'keep settings',
    reply: formView,
  }),
  keepRequestForm: defineRoute({
    name: 'keepRequestForm',
    method: 'PUT',
    path: '/api/request-form',
    summary: 'Keep kinds, own fields, rules and what holds for new suppliers, as a whole.',
    access: 'keep settings',
    ifMatch: true,
    body: form,
    reply: z.object({ version: z.number() }),
  }),
  replayRules: defineRoute({
    name: 'replayRules',
    method: 'POST',
    path: '/api/request-form/replays',
    summary: 'For how many of the requests sent last each rule would have held, and how many lack what it asks for.',
    access: 'keep settings',
    body: z.object({ rules: z.array(rule).max(200) }),
    reply: replayed,
  }),
} as const
