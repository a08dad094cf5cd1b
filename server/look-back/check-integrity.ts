import { isSound, type IntegrityCheck, type IntegrityFound } from '#core/audit/integrity'
import { dayOf } from '#core/base/day'
import { checkChain } from '../audit/lay-chain'
import type { Context } from '../context'
import { notifyChange } from '../live/notify'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { enqueue } from '../queue/enqueue'
import { isSetUp, requireOrganisation } from '../settings/reads'
import { listRuns, LOOKS, type RunRow } from './integrity-reads'
import { insertRun } from './integrity-store'

/** As what live changes name the looks. */
const THE_LOOKS = '00000000-0000-4000-8000-000000000003'
/** How many looks are shown. */
const MOST_SHOWN = 14

/**
 * Looks whether all that is kept twice agrees and the chain of events is whole, keeps what it found, and tells
 * administrators and auditors where something does not fit. It changes nothing else.
 */
export async function checkIntegrity(ctx: Context, byId: string | null): Promise<IntegrityFound> {
  const broken: IntegrityFound['broken'][number][] = []
  for (const [check, look] of Object.entries(LOOKS) as [keyof typeof LOOKS, (typeof LOOKS)['balances']][]) {
    const found = await look(ctx.tx)
    const [first] = found
    if (first !== undefined)
      broken.push({ check: check satisfies IntegrityCheck, count: found.length, first: first.name })
  }
  const found = { broken, chain: await checkChain(ctx.tx) }
  await insertRun(ctx.tx, ctx.now, byId, found)
  if (!isSound(found)) await tellBroken(ctx)
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_LOOKS })
  return found
}

async function tellBroken(ctx: Context): Promise<void> {
  if (!(await isSetUp(ctx.tx))) return
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const roles = [await listHolders(ctx.tx, 'administrator', today), await listHolders(ctx.tx, 'auditor', today)]
  const ids = [...new Set(roles.flat().map((p) => p.id))]
  await tellPeople(
    ctx,
    ids.map((personId) => ({
      personId,
      about: { kind: 'settings', id: THE_LOOKS },
      told: { code: 'integrity-broken' },
      path: '/look-back',
    })),
  )
}

/** Has it looked now, as a task: over many events it takes a while. */
export const askForLook = ({ tx, actor }: Context): Promise<void> => enqueue(tx, 'check-integrity', { byId: actor.id })

/** The newest looks, with what each found. */
export const readLooks = ({ tx }: Context): Promise<RunRow[]> => listRuns(tx, MOST_SHOWN)
