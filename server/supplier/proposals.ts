import { randomUUID } from 'node:crypto'
import { dayOf, fiscalPeriod } from '#core/base/day'
import { isCurrency } from '#core/base/currency'
import { may } from '#core/people/rights'
import { whyAlike, type SupplierLikeness } from '#core/supplier/alike'
import { type AlikeSupplier, type SupplierView } from '#shared/contract/supplier'
import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { environment } from '../environment'
import { checkUpload } from '../files/check-upload'
import { findFile, keepFile } from '../files/store'
import { forbidden, invalid, notFound, refused } from '../http/problem'
import { postMail } from '../mail/post-mail'
import { findAddress, listHolders } from '../people/reads'
import { insertNotice } from '../people/store'
import { requireOrganisation } from '../settings/reads'
import { takeNumber } from '../settings/store'
import { countWaitingRequests, findProposal, findSupplier, listCandidates, type ProposalRow, type SupplierRow } from './reads'
import { insertSupplier, setStanding, setTaxForm } from './store'

/** What is said of a supplier that is not there yet. */
export interface Proposal { readonly name: string; readonly town: string; readonly address: string; readonly email: string; readonly telephone: string; readonly taxNumber: string; readonly currency: string; readonly note: string }

/** Suppliers that may be the one described, the surest first. */
export async function findAlike({ tx }: Pick<Context, 'tx'>, like: { readonly name: string; readonly taxNumber: string; readonly email: string }, except: string | null = null): Promise<AlikeSupplier[]> {
  const wanted: SupplierLikeness = { name: like.name, taxNumber: like.taxNumber, email: like.email }
  if (like.name.trim().length < 3 && like.taxNumber.trim() === '' && like.email.trim() === '') return []
  const found = (await listCandidates(tx, like)).filter((c) => c.id !== except).map(({ taxNumber, email, ...c }) => ({ ...c, why: whyAlike(wanted, { name: c.name, taxNumber, email }) }))
  return found.filter((c) => c.why.length > 0).sort((a, b) => b.why.length - a.why.length || (a.name < b.name ? -1 : 1)).slice(0, 5)
}

/** Names a new supplier: refused, proposed to finance, or there at once, as the organisation's policy says. */
export async function proposeSupplier(ctx: Context, p: Proposal): Promise<SupplierRow> {
  const { newSuppliers, timeZone, fiscalStartMonth } = await requireOrganisation(ctx.tx)
  const finance = (await listHolders(ctx.tx, 'finance', dayOf(ctx.now, timeZone))).filter((f) => f.id !== ctx.actor.id)
  if (newSuppliers === 'nobody') throw forbidden(`New suppliers are entered by finance only; ask ${finance[0]?.name ?? 'an administrator'}.`)
  if (!isCurrency(p.currency)) throw invalid('This currency does not exist.', [{ field: 'currency', message: 'not a currency' }])
  const same = (await findAlike(ctx, p)).find((a) => a.why.includes('same tax number'))
  if (same !== undefined) throw refused([`${same.name} (${same.number}) has this tax number already; choose it instead.`], { alike: same.id }, 'same-supplier')
  const id = randomUUID()
  const standing = newSuppliers === 'create' ? 'active' as const : 'proposed' as const
  const number = await takeNumber(ctx.tx, 'SUP', fiscalPeriod(dayOf(ctx.now, timeZone), fiscalStartMonth).year)
  await insertSupplier(ctx.tx, { id, number, standing, proposedById: ctx.actor.id, proposedAt: ctx.now, ...p, email: p.email === '' ? null : p.email, taxNumber: p.taxNumber === '' ? null : p.taxNumber })
  await appendEvent(ctx, { type: standing === 'proposed' ? 'proposed' : 'created', subjectKind: 'supplier', subjectId: id, after: { name: p.name, taxNumber: p.taxNumber } })
  if (standing === 'proposed') {
    for (const f of finance) await tellOf(ctx, f.id, id, `A new supplier: ${p.name}`, `${ctx.actor.name} proposes a new supplier: ${p.name}, ${p.town}. Requests may name it meanwhile; orders wait for you.`)
  }
  const made = await findSupplier(ctx.tx, id)
  if (made === null) throw new Error('a supplier was not written')
  return made
}

/** Keeps the tax form of a supplier that one proposed. */
export async function giveTaxForm(ctx: Context, id: string, bytes: Buffer, name: string): Promise<void> {
  const p = await findProposal(ctx.tx, id)
  if (p === null || p.proposedById !== ctx.actor.id) throw notFound('This proposal')
  if (p.standing !== 'proposed') throw refused([`${p.name} is ${p.standing} already.`])
  const { mime } = await checkUpload(bytes, name)
  await setTaxForm(ctx.tx, id, await keepFile(ctx.tx, bytes, mime, ctx.now))
}

const seesProposal = ({ actor }: Context, p: ProposalRow) => p.proposedById === actor.id || may(actor.grants, 'approve suppliers')

export async function readTaxForm(ctx: Context, id: string): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const p = await findProposal(ctx.tx, id)
  const kept = p === null || p.taxFormHash === null || !seesProposal(ctx, p) ? null : await findFile(ctx.tx, p.taxFormHash)
  if (p === null || kept === null) throw notFound('This tax form')
  return { bytes: kept.bytes, mime: kept.mime, name: `${p.number} tax form.${kept.mime === 'application/pdf' ? 'pdf' : kept.mime === 'image/png' ? 'png' : 'jpg'}` }
}

/** A supplier; what was said of it as a proposal is for its proposer and whoever approves suppliers. */
export async function readSupplier(ctx: Context, id: string): Promise<SupplierView> {
  const p = await findProposal(ctx.tx, id)
  if (p === null) throw notFound('This supplier')
  const seen = seesProposal(ctx, p)
  return {
    id, number: p.number, name: p.name, town: p.town, address: p.address, email: p.email, telephone: p.telephone, currency: p.currency, standing: p.standing, warning: p.warning,
    taxNumber: seen ? p.taxNumber : null, proposedBy: p.proposedBy, proposedAt: p.proposedAt, note: seen ? p.note : '', hasTaxForm: seen && p.taxFormHash !== null,
    alike: seen && p.standing === 'proposed' ? await findAlike(ctx, { name: p.name, taxNumber: p.taxNumber ?? '', email: p.email ?? '' }, id) : [],
    mayDecide: p.standing === 'proposed' && may(ctx.actor.grants, 'approve suppliers') && p.proposedById !== ctx.actor.id, waitingRequests: await countWaitingRequests(ctx.tx, id),
  }
}

/** Approves or refuses a proposed supplier; nobody their own. Who proposed it hears of it. */
export async function decideSupplier(ctx: Context, id: string, accept: boolean, reason: string): Promise<void> {
  const p = await findProposal(ctx.tx, id, true)
  if (p === null) throw notFound('This supplier')
  if (p.standing !== 'proposed') throw refused([`${p.name} is ${p.standing} already.`], {}, 'wrong-state')
  if (p.proposedById === ctx.actor.id) throw forbidden('Nobody approves a supplier that they proposed themselves; ask a colleague in finance.')
  if (!accept && reason.trim() === '') throw invalid('Say why it is refused: whoever proposed it reads it.', [{ field: 'reason', message: 'is empty' }])
  await setStanding(ctx.tx, id, accept ? 'active' : 'refused', accept ? null : reason.trim())
  await appendEvent(ctx, { type: accept ? 'approved' : 'refused', subjectKind: 'supplier', subjectId: id, before: { standing: p.standing }, after: { standing: accept ? 'active' : 'refused', reason } })
  if (p.proposedById !== null) {
    await tellOf(ctx, p.proposedById, id, `${p.name} ${accept ? 'approved' : 'refused'}`, accept ? `${ctx.actor.name} approved ${p.name}; it can be ordered from now.` : `${ctx.actor.name} refused ${p.name}: “${reason.trim()}”`)
  }
}

async function tellOf({ tx, now, actor }: Context, personId: string, supplierId: string, subject: string, sentence: string): Promise<void> {
  const to = personId === actor.id ? null : await findAddress(tx, personId)
  if (to === null) return
  await insertNotice(tx, { personId, at: now, sentence, aboutKind: 'supplier', aboutId: supplierId })
  await postMail(tx, { toName: to.name, toAddress: to.email, subject, body: `${sentence}\n\n${environment().publicUrl}/suppliers/${supplierId}\n`, aboutKind: 'supplier', aboutId: supplierId, notBefore: now, now })
}
