import { decide } from '../server/approval/decide'
import { listOpenActors } from '../server/approval/reads'
import { routeAgain } from '../server/approval/route-again'
import { readApprovalPolicy } from '../server/decide/read-policy'
import { keepDraft } from '../server/decide/policy-draft'
import { askForDraft, confirmDraft } from '../server/decide/put-policy-in-force'
import type { PolicyForm } from '#core/approval/policy-form'
import type { Condition, Who } from '#core/approval/policy'
import { money } from '#core/base/money'
import type { Draft } from '#core/requisition/draft'
import type { Context } from '../server/context'
import { REQUISITION } from '../server/requisition/kind'
import { createDraft } from '../server/requisition/save-draft'
import { sendRequisition } from '../server/requisition/send-requisition'
import { idOf } from './ids'
import { DEPARTMENT_ROWS, personId } from './world/people'

type As = <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>

const departmentId = (name: string): string => DEPARTMENT_ROWS.find((d) => d.name === name)?.id ?? ''
const from = (amount: string): Condition => ({ on: 'amount', from: money(`${amount} EUR`) })
const person = (name: string): Who => ({ by: 'person', personId: personId(name) })

/** What Hallamere asks besides: each with its conditions, who decides, and in which rank. */
const MORE: readonly (readonly [name: string, conditions: Condition[], who: Who, rank: number])[] = [
  [
    'Finance looks at a journey from 1,500',
    [{ on: 'kind', kinds: ['travel'] }, from('1500.00')],
    { by: 'role', role: 'finance', departmentId: null, holders: [] },
    20,
  ],
  [
    'A supplier that nobody approved yet, from 2,500: finance too',
    [{ on: 'supplier', sorts: ['proposed'] }, from('2500.00')],
    { by: 'role', role: 'finance', departmentId: null, holders: [] },
    20,
  ],
  [
    'What is priced in pounds, from 5,000: the head of purchasing',
    [{ on: 'currency', codes: ['GBP'] }, from('5000.00')],
    person('Harriet Voss'),
    15,
  ],
  [
    'Diving gear from 4,000: whoever is responsible for diving',
    [{ on: 'account', codes: ['642'] }, from('4000.00')],
    person('Nadia Wexcombe'),
    15,
  ],
  // Water Systems has no line for diving: the check finds that it can never fit.
  [
    'Diving in the pump hall: Tomas Brandt',
    [
      { on: 'account', codes: ['642'] },
      { on: 'department', ids: [departmentId('Water Systems')], branch: false },
    ],
    person('Tomas Brandt'),
    15,
  ],
  [
    'The jellyfish tank from 3,000: its project’s holder and the head of Exhibits',
    [{ on: 'project', codes: ['J103'] }, from('3000.00')],
    { by: 'budget holders' },
    20,
  ],
  [
    'Training of the office from 400: Desmond Hale, who keeps the plan of courses',
    [
      { on: 'account', codes: ['650'] },
      { on: 'department', ids: [departmentId('Purchasing and Finance')], branch: false },
      from('400.00'),
    ],
    person('Desmond Hale'),
    15,
  ],
]

/** The policy as it has held for three weeks: a dozen rules, of which one can never fit. */
export async function putPolicyInForce(as: As, now: Date): Promise<void> {
  const at = (hours: number) => new Date(now.getTime() - 21 * 86_400_000 + hours * 3_600_000)
  await as('Harriet Voss', at(0), async (ctx) => {
    const { form } = await readApprovalPolicy(ctx)
    const more = MORE.map(([name, conditions, who, rank]) => ({
      ...{ id: idOf('rule', name), name, documents: 'requests' as const, conditions, sparesManagers: false },
      steps: [{ rank, who, mustCover: false }],
    }))
    const next: PolicyForm = {
      ...form,
      name: 'Journeys, new suppliers, pounds, diving, courses; whoever approves may change',
      mayChange: 'quantities and payers',
      rules: [...form.rules, ...more],
    }
    const { version } = await keepDraft(ctx, 0, next)
    await askForDraft(ctx, version, null)
  })
  await as('Greta Molin', at(2), async (ctx) => {
    const { draft } = await readApprovalPolicy(ctx)
    await confirmDraft(ctx, draft?.version ?? 0)
  })
}

/**
 * A request of whoever decides in the end, which is held: the one who keeps the plan of courses is away with nobody
 * instead, and nobody decides their own.
 */
export async function leaveOneHeld(as: As, now: Date, draft: Draft): Promise<void> {
  const id = idOf('requisition', 'held course')
  const sent = new Date(now.getTime() - 3 * 86_400_000)
  await as('Marguerite Oduya', sent, (ctx) => createDraft(ctx, id, draft))
  await as('Marguerite Oduya', sent, (ctx) => sendRequisition(ctx, id, 1))
  await as('Harriet Voss', new Date(now.getTime() - 3_600_000), async (ctx) => {
    const kept = await REQUISITION.find(ctx.tx, id, true)
    if (kept !== null) await routeAgain(ctx, REQUISITION, kept)
  })
}

/** A request that was approved by answering its mail. */
export async function decideOneByMail(as: As, now: Date, owner: string, draft: Draft): Promise<void> {
  const id = idOf('requisition', 'by mail')
  const at = (hours: number) => new Date(now.getTime() - hours * 3_600_000)
  await as(owner, at(30), (ctx) => createDraft(ctx, id, draft))
  await as(owner, at(30), (ctx) => sendRequisition(ctx, id, 1))
  const [next] = await as(owner, at(30), (ctx) => listOpenActors(ctx.tx, id))
  if (next === undefined) throw new Error('nobody is asked')
  await as(next.name, at(27), async (ctx) => {
    const kept = await REQUISITION.find(ctx.tx, id, true)
    const byMail = { ...ctx, actor: { ...ctx.actor, byMail: true } }
    await decide(byMail, REQUISITION, id, kept?.version ?? 1, 'approve', 'From the train: yes.')
  })
}
