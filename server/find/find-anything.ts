import { waysOf } from '#shared/words/ways'
import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import type { Hit } from '#shared/contract/find'
import { listAgreements } from '../agreement/reads'
import { searchItems } from '../browse/search-reads'
import type { Context } from '../context'
import { searchPeople } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import { searchSuppliers } from '../supplier/reads'
import { findJobs, findOrders, findRequisitions } from './reads'

const OF_EACH = 5

/**
 * What one field finds: by number (also a part of it, or with wildcards), by words and by misspelt words, and never
 * what one may not see.
 */
export async function findAnything(ctx: Context, words: string): Promise<{ hits: Hit[] }> {
  const { tx, now } = ctx
  const wanted = words.trim()
  if (wanted.length < 2) return { hits: [] }
  const { timeZone } = await requireOrganisation(tx)
  const hits: Hit[] = []
  for (const r of await findRequisitions(tx, ctx, wanted, OF_EACH)) {
    hits.push({
      kind: 'requisition',
      id: r.id,
      name: r.title === '' ? 'A request without a title' : r.title,
      more: `${r.number ?? 'draft'} · ${r.state} · ${r.owner}`,
      link: r.state === 'draft' ? `/raise/${r.id}` : `/trail/${r.id}`,
    })
  }
  for (const o of await findOrders(tx, ctx, wanted, OF_EACH)) {
    hits.push({
      kind: 'order',
      id: o.id,
      name: `${o.number} to ${o.supplier}`,
      more: `${o.state} · ${o.currency} ${waysOf(ctx.actor.locale).kept(o.net, o.currency)}`,
      link: `/orders/${o.id}`,
    })
  }
  for (const j of await findJobs(tx, wanted, OF_EACH)) {
    hits.push({
      kind: 'job',
      id: j.id,
      name: j.name,
      more: [j.number, ...(j.department === null ? [] : [j.department]), ...(j.isOpen ? [] : ['closed'])].join(' · '),
      link: `/jobs/${j.id}`,
    })
  }
  // Wildcards are for numbers; the catalogue's search takes words.
  const plain = wanted.replace(/[*?]/g, ' ').trim()
  if (plain.length < 2) return { hits }
  for (const i of await searchItems(tx, plain, null, OF_EACH)) {
    hits.push({
      kind: 'item',
      id: i.id,
      name: i.name,
      more: `${i.supplier} · ${i.supplierPart}`,
      link: `/catalogue/${i.id}`,
    })
  }
  for (const s of await searchSuppliers(tx, plain, OF_EACH)) {
    hits.push({
      kind: 'supplier',
      id: s.id,
      name: s.name,
      more: [
        s.number,
        s.town,
        ...(s.standing === 'active' ? [] : [s.standing]),
        ...(s.warning === null ? [] : [s.warning]),
      ].join(' · '),
      link: `/suppliers/${s.id}`,
    })
  }
  const agreed = { words: plain, standing: 'any' as const, day: dayOf(now, timeZone) }
  for (const a of may(ctx.actor.grants, 'see orders') ? await listAgreements(tx, agreed, OF_EACH) : [])
    hits.push({
      kind: 'agreement',
      id: a.id,
      name: a.name,
      more: [a.number, a.supplier, ...(a.isClosed ? ['closed'] : [])].join(' · '),
      link: `/agreements/${a.id}`,
    })
  for (const p of await searchPeople(tx, plain, dayOf(now, timeZone))) {
    if (hits.filter((h) => h.kind === 'person').length < OF_EACH)
      hits.push({ kind: 'person', id: p.id, name: p.name, more: `${p.jobTitle}, ${p.department}`, link: null })
  }
  return { hits }
}
