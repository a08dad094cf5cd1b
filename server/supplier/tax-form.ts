import type { Context } from '../context'
import { checkUpload } from '../files/check-upload'
import { findFile, keepFile } from '../files/store'
import { enqueue } from '../queue/enqueue'
import { notFound, refused } from '../http/problem'
import { findProposal } from './reads'
import { seesProposal } from './sees-proposal'
import { setTaxForm } from './store'

/** Keeps the tax form of a supplier that one proposed, in place of the one before. */
export async function giveTaxForm(ctx: Context, id: string, bytes: Buffer, name: string): Promise<void> {
  const p = await findProposal(ctx.tx, id)
  if (p === null || p.proposedById !== ctx.actor.id) throw notFound('This proposal')
  if (p.standing !== 'proposed') throw refused([`${p.name} is ${p.standing} already.`])
  const { mime } = await checkUpload(bytes, name)
  await setTaxForm(ctx.tx, id, await keepFile(ctx.tx, bytes, mime, ctx.now))
  if (p.taxFormHash !== null) await enqueue(ctx.tx, 'drop-files', { hashes: [p.taxFormHash] })
}

/** The tax form of a proposed supplier, for its proposer and whoever approves suppliers. */
export async function readTaxForm(ctx: Context, id: string): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const p = await findProposal(ctx.tx, id)
  const kept =
    p === null || p.taxFormHash === null || !seesProposal(ctx, p) ? null : await findFile(ctx.tx, p.taxFormHash)
  if (p === null || kept === null) throw notFound('This tax form')
  return {
    bytes: kept.bytes,
    mime: kept.mime,
    name: `${p.number} tax form.${kept.mime === 'application/pdf' ? 'pdf' : kept.mime === 'image/png' ? 'png' : 'jpg'}`,
  }
}
