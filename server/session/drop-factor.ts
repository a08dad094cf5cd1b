import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { deleteFactor, findFactor } from '../people/factor-store'
import { tellPerson } from '../people/tell-person'

/** Takes the second factor of somebody else away who lost theirs; they are told by mail. */
export async function dropFactorOf(ctx: Context, personId: string): Promise<void> {
  if (personId === ctx.actor.id) throw refused(['One’s own second factor is taken away under Account.'])
  if ((await findFactor(ctx.tx, personId))?.isConfirmed !== true) throw notFound('A second factor of this person')
  await deleteFactor(ctx.tx, personId)
  await appendEvent(ctx, { type: 'second factor dropped', subjectKind: 'session', subjectId: personId })
  const told = { code: 'second-factor-changed', begun: false, from: '' } as const
  await tellPerson(ctx, personId, { kind: 'session', id: personId }, told, { path: '/account' })
}
