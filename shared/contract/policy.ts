import { z } from 'zod'
import { RULE_DOCUMENTS, SUPPLIER_SORTS, type Policy, type Subject } from '#core/approval/policy'
import { CHANGED_HOW, type Replayed } from '#core/approval/policy-replay'
import { MAY_CHANGE, MOST_RANK, type PolicyForm, type RoleHolder } from '#core/approval/policy-form'
import type { WorldField } from '#core/approval/world'
import type { Absence, Person } from '#core/people/person'
import { defineRoute } from './route'
import { day, decimal, id, money, text } from './values'

const several = z.array(text(60)).max(500)
const condition = z.discriminatedUnion('on', [
  z.object({ on: z.literal('amount'), from: money.optional(), below: money.optional() }),
  z.object({ on: z.literal('department'), ids: several, branch: z.boolean() }),
  z.object({ on: z.literal('category'), ids: several }),
  z.object({ on: z.literal('account'), codes: several }),
  z.object({ on: z.literal('project'), codes: several }),
  z.object({ on: z.literal('supplier'), sorts: z.array(z.enum(SUPPLIER_SORTS)).max(SUPPLIER_SORTS.length) }),
  z.object({ on: z.literal('currency'), codes: z.array(z.string().length(3)).max(200) }),
  z.object({ on: z.literal('agreement'), is: z.boolean() }),
  z.object({ on: z.literal('kind'), kinds: several }),
  z.object({ on: z.literal('over budget'), is: z.boolean() }),
  z.object({ on: z.literal('own field'), fieldId: text(60), values: z.array(text(200)).max(200) }),
  z.object({ on: z.literal('owner'), ids: several }),
])
const who = z.discriminatedUnion('by', [
  z.object({ by: z.literal('person'), personId: text(60) }),
  z.object({ by: z.literal('role'), role: text(40), departmentId: text(60).nullable(), holders: several.default([]) }),
  z.object({ by: z.literal('budget holders') }),
  z.object({ by: z.literal('group'), name: text(80), mode: z.enum(['any', 'all']), members: several }),
  z.object({ by: z.literal('chain'), until: z.enum(['covered', 'top']) }),
])
const days = z.number().int().nullable()
/** A policy as it is written: half-written too, since what is wrong is said when it is to be put in force. */
const form = z.object({
  name: text(200),
  rules: z
    .array(
      z.object({
        id: z.uuid('is not an id'),
        name: text(300),
        documents: z.enum(RULE_DOCUMENTS).default('requests'),
        conditions: z.array(condition).max(20),
        steps: z.array(z.object({ rank: z.number().int().min(1).max(MOST_RANK), who, mustCover: z.boolean() })).max(30),
        sparesManagers: z.boolean(),
      }),
    )
    .max(400)
    .refine((list) => new Set(list.map((r) => r.id)).size === list.length, 'names a rule twice'),
  ending: z.enum(['fallback', 'passes']),
  fallbackId: text(60).nullable(),
  ownLimitDays: days,
  remindDays: days,
  escalateDays: days,
  maySkip: z.boolean().default(false),
  mayChange: z.enum(MAY_CHANGE).default('nothing'),
  orderTolerance: z.object({ percent: decimal, amount: money }).nullable().default(null),
  directOrders: z.object({ upTo: money.nullable() }).nullable().default({ upTo: null }),
  byMail: z.object({ upTo: money.nullable() }).nullable().default(null),
})

/** A day and a time of it where the organisation is. */
const zoned = z.object({ day, time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'is not a time like 09:30') })
export type ZonedMoment = z.infer<typeof zoned>

const named = z.object({ id: z.string(), name: z.string() })
/** The policy in force and the draft of the next, with the organisation that they are looked at in. */
const view = z.object({
  number: z.number(),
  inForceAt: z.string(),
  form: z.custom<PolicyForm>(),
  policy: z.custom<Policy>(),
  /** The version that will hold last of those that are confirmed: what a draft begins from. */
  last: z.object({ number: z.number(), form: z.custom<PolicyForm>() }),
  draft: z
    .object({
      form: z.custom<PolicyForm>(),
      version: z.number(),
      state: z.enum(['none', 'written', 'waiting']),
      begunFrom: z.number(),
      changedBy: z.string(),
      changedAt: z.string(),
      /** From when on it is to hold; null: as soon as it is confirmed. */
      inForceAt: z.string().nullable(),
      askedBy: z.string().nullable(),
      askedAt: z.string().nullable(),
      isOwn: z.boolean(),
      mayConfirm: z.boolean(),
      /** What the second person said when they gave it back. */
      returned: z.string(),
    })
    .nullable(),
  versions: z.array(
    z.object({
      number: z.number(),
      name: z.string(),
      inForceAt: z.string(),
      askedBy: z.string().nullable(),
      confirmedBy: z.string().nullable(),
      calledOffBy: z.string().nullable(),
      isCalledOff: z.boolean(),
      /** How many decisions followed it. */
      decisions: z.number(),
    }),
  ),
  mayWrite: z.boolean(),
  grants: z.array(z.custom<RoleHolder>()),
  currency: z.string(),
  timeZone: z.string(),
  today: z.string(),
  people: z.array(z.custom<Person>()),
  absences: z.array(z.custom<Absence>()),
  departments: z.array(named.extend({ branch: z.array(z.string()), retired: z.boolean() })),
  /** The departments that people may raise for, by their ids. */
  openTo: z.array(z.object({ personId: z.string(), departmentIds: z.array(z.string()) })),
  kinds: z.array(z.object({ code: z.string(), name: z.string() })),
  /** Own fields in which something is chosen. */
  ownFields: z.array(z.custom<WorldField>()),
  categories: z.array(named),
  /** In which lines may be priced: the base currency, and those with a rate. */
  currencies: z.array(z.string()),
  /** Every project that a budget line was ever for. */
  projects: z.array(z.string()),
  accounts: z.array(z.object({ code: z.string(), name: z.string(), retired: z.boolean() })),
  /** The budget lines of this fiscal year. */
  lines: z.array(
    named.extend({
      departmentId: z.string(),
      account: z.string(),
      project: z.string().nullable(),
      accountName: z.string(),
      holderId: z.string().nullable(),
    }),
  ),
})
export type PolicyView = z.infer<typeof view>
const version = z.object({ number: z.number(), form: z.custom<PolicyForm>() })
export type PolicyVersion = z.infer<typeof version>
const versioned = z.object({ version: z.number() })
const putForward = versioned.extend({ number: z.number().nullable() })

export const policyRoutes = {
  readApprovalPolicy: defineRoute({
    name: 'readApprovalPolicy',
    method: 'GET',
    path: '/api/approval-policy',
    summary:
      'The policy in force, the draft of the next version, and the people and departments they are looked at with.',
    access: 'see policy',
    reply: view,
  }),
  replayPolicy: defineRoute({
    name: 'replayPolicy',
    method: 'POST',
    path: '/api/approval-policy/replays',
    summary: 'A part of the requests sent between two days, under what is in force and under the draft, counted.',
    access: 'see policy',
    body: z.object({
      from: day,
      until: day,
      /** None: all. */
      departmentIds: z.array(id).max(500),
      /** Where the part before ended; null for the first. */
      after: id.nullable(),
      /** The version of the draft that is meant. */
      draft: z.number().int(),
    }),
    reply: z.object({
      /** How many there are in all, told with the first part. */
      total: z.number().nullable(),
      next: z.string().nullable(),
      replayed: z.custom<Replayed>(),
      /** Those that go another way, as far as they may be seen; of each part the first. */
      changed: z.array(
        z.object({ id: z.string(), how: z.enum(CHANGED_HOW), number: z.string(), title: z.string(), amount: money }),
      ),
    }),
  }),
  readTriedRequest: defineRoute({
    name: 'readTriedRequest',
    method: 'GET',
    path: '/api/approval-policy/requests/{number}',
    summary: 'What a request that was sent is judged by today, for whoever may see it: to try a policy on it.',
    access: 'see policy',
    params: z.object({ number: text(40) }),
    reply: z.object({ number: z.string(), title: z.string(), subject: z.custom<Subject>() }),
  }),
  readPolicyVersion: defineRoute({
    name: 'readPolicyVersion',
    method: 'GET',
    path: '/api/approval-policy/versions/{number}',
    summary: 'A version of the policy as it was written.',
    access: 'see policy',
    params: z.object({ number: z.coerce.number().int().min(1).max(1_000_000) }),
    reply: version,
  }),
  callPolicyVersionOff: defineRoute({
    name: 'callPolicyVersionOff',
    method: 'DELETE',
    path: '/api/approval-policy/versions/{number}',
    summary: 'Call a version off that is confirmed and has not come into force; it stays among the versions.',
    access: 'keep settings',
    params: z.object({ number: z.coerce.number().int().min(1).max(1_000_000) }),
  }),
  keepPolicyDraft: defineRoute({
    name: 'keepPolicyDraft',
    method: 'PUT',
    path: '/api/approval-policy/draft',
    summary: 'Keep the draft of the next version, which holds for nobody; its version is 0 before there ever was one.',
    access: 'keep settings',
    ifMatch: true,
    body: form,
    reply: versioned,
  }),
  throwPolicyDraftAway: defineRoute({
    name: 'throwPolicyDraftAway',
    method: 'DELETE',
    path: '/api/approval-policy/draft',
    summary: 'Throw the draft away; what holds goes on to hold.',
    access: 'keep settings',
    ifMatch: true,
    reply: versioned,
  }),
  askForPolicyDraft: defineRoute({
    name: 'askForPolicyDraft',
    method: 'POST',
    path: '/api/approval-policy/draft/requests',
    summary: 'Ask a second person to put the draft in force, as soon as they confirm it or from a moment on.',
    access: 'keep settings',
    ifMatch: true,
    body: z.object({ from: zoned.nullable() }),
    reply: putForward,
  }),
  confirmPolicyDraft: defineRoute({
    name: 'confirmPolicyDraft',
    method: 'POST',
    path: '/api/approval-policy/draft/confirmations',
    summary: 'Confirm the draft that waits, as it was seen; it is the next version of the policy.',
    access: 'confirm changes',
    ifMatch: true,
    reply: putForward,
  }),
  givePolicyDraftBack: defineRoute({
    name: 'givePolicyDraftBack',
    method: 'POST',
    path: '/api/approval-policy/draft/returns',
    summary: 'Give the draft back that waits, saying why; whoever asked for it takes it back.',
    access: 'confirm changes',
    ifMatch: true,
    body: z.object({ why: text(1000) }),
    reply: versioned,
  }),
} as const
