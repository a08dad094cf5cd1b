import { z } from 'zod'
import type { Policy } from '#core/approval/policy'
import type { Absence, Person } from '#core/people/person'
import { defineRoute } from './route'

const named = z.object({ id: z.string(), name: z.string() })
/** The policy in force, and the organisation that it is looked at in. */
const view = z.object({
  name: z.string(),
  inForceFrom: z.string(),
  policy: z.custom<Policy>(),
  currency: z.string(),
  today: z.string(),
  people: z.array(z.custom<Person>()),
  absences: z.array(z.custom<Absence>()),
  departments: z.array(named.extend({ branch: z.array(z.string()) })),
  /** The departments that people may raise for, by their ids. */
  openTo: z.array(z.object({ personId: z.string(), departmentIds: z.array(z.string()) })),
  kinds: z.array(z.object({ code: z.string(), name: z.string() })),
  categories: z.array(named),
  /** The budget lines of this fiscal year. */
  lines: z.array(
    named.extend({
      departmentId: z.string(),
      account: z.string(),
      accountName: z.string(),
      holderId: z.string().nullable(),
    }),
  ),
})
export type PolicyView = z.infer<typeof view>

export const policyRoutes = {
  readApprovalPolicy: defineRoute({
    name: 'readApprovalPolicy',
    method: 'GET',
    path: '/api/approval-policy',
    summary: 'The approval policy in force, with the people, departments and budget lines that it is looked at with',
    access: 'keep settings',
    reply: view,
  }),
} as const
