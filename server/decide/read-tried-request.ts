import type { Subject } from '#core/approval/policy'
import { judgeAgain } from '../approval/judge-again'
import { findRoute } from '../approval/reads'
import type { Context } from '../context'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { REQUISITION } from '../requisition/kind'
import { findIdByNumber } from '../requisition/reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'

/**
 * What a request that was sent is judged by today: as it was sent, with the owner, department and holders of now. Only
 * for whoever may see it anyway.
 */
export async function readTriedRequest(
  ctx: Context,
  number: string,
): Promise<{ number: string; title: string; subject: Subject }> {
  const id = await findIdByNumber(ctx.tx, number.trim())
  if (id === null || !(await maySee(ctx, SEEN_REQUISITIONS, id))) throw notFound(`A request ${number.trim()}`)
  const document = await REQUISITION.find(ctx.tx, id)
  const row = await findRoute(ctx.tx, id)
  if (document === null || document.number === null || row === null) throw notFound(`A request ${number.trim()}`)
  const { subject } = await judgeAgain(ctx, REQUISITION, document, row)
  return { number: document.number, title: document.title, subject }
}
