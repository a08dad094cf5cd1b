import { dayOf } from '#core/base/day'
import type { Context } from '../context'
import { markSendingGivenUp } from '../order/sending-store'
import { listHolders } from '../people/person-reads'
import { tellPerson } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { giveUpMail } from './store'

/**
 * What was tried for days and did not succeed ends here: it is marked as given up, and administrators are told, unless
 * it was a mail that told them so.
 */
export async function tellEnded(ctx: Context, jobId: string, data: unknown, output: unknown): Promise<void> {
  const { task, mailId, sendingId } = (data ?? {}) as { task?: string; mailId?: string; sendingId?: string }
  if (sendingId !== undefined) await markSendingGivenUp(ctx.tx, sendingId)
  if (mailId !== undefined && (await giveUpMail(ctx.tx, mailId, ctx.now)) === 'task-ended') return
  const { timeZone } = await requireOrganisation(ctx.tx)
  const { message = '' } = (output ?? {}) as { message?: string }
  for (const { id } of await listHolders(ctx.tx, 'administrator', dayOf(ctx.now, timeZone))) {
    await tellPerson(
      ctx,
      id,
      { kind: 'task', id: jobId },
      { code: 'task-ended', task: task ?? '', error: message.slice(0, 300) },
      { path: '/set-up/requests' },
    )
  }
}
