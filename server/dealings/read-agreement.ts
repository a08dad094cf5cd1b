import { dayOf } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { moneyOf, subtract, sum, type Money } from '#core/base/money'
import { openNet, reservedBy } from '#core/agreement/ceiling'
import { priceFor } from '#core/catalogue/price'
import { may } from '#core/people/rights'
import type { AgreementView } from '#shared/contract/agreement'
import { waysOf } from '#shared/words/ways'
import { findAgreement, listAgreementItems, type AgreementRow } from '../agreement/reads'
import { findItems, listPriceSteps } from '../catalogue/reads'
import type { Context } from '../context'
import { seenAmong } from '../document/visible'
import { notFound } from '../http/problem'
import { listDepartments } from '../people/place-reads'
import { openDrawsOn } from '../requisition/reserved-of-agreements'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { requireOrganisation } from '../settings/reads'
import { listDrawingOrders } from './agreement-reads'
import { withSiblings } from './list-agreements'
import { agreementChoices, viewAgreement } from './view-agreement'

/** An agreement with what stands in it and every document behind what is drawn and reserved. */
export async function readAgreement(ctx: Context, id: string): Promise<AgreementView> {
  const { tx, now, actor } = ctx
  const row = await findAgreement(tx, id)
  if (row === null) throw notFound('This agreement')
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  const draws = (await openDrawsOn(tx, await withSiblings(ctx, [row]), today)).filter((d) => d.agreementId === id)
  const reserved = reservedBy(
    draws.map((d) => d.part),
    row.currency,
  )
  const seen = await seenAmong(ctx, SEEN_REQUISITIONS, [...new Set(draws.map((d) => d.requisitionId))])
  const orders = (await listDrawingOrders(tx, id, ctx)).map(({ net, currency, ...o }) => ({
    ...o,
    net: moneyOf(net, currency),
  }))
  const waiting = draws
    .filter((d) => seen.has(d.requisitionId))
    .map((d) => ({
      ...{ id: d.requisitionId, number: d.number, state: d.state, description: d.description, unit: d.unit },
      ...{ open: d.open, net: openNet(d.part) },
    }))
  return {
    ...viewAgreement(row, reserved, today, waysOf(actor.locale)),
    version: row.version,
    theirNumber: row.theirNumber,
    warnPercent: row.warnPercent,
    warnDays: row.warnDays,
    renewOn: row.renewOn,
    terms: row.termsKind === null || row.termsDays === null ? null : { kind: row.termsKind, days: row.termsDays },
    departments: (await listDepartments(tx))
      .filter((d) => row.departmentIds.includes(d.id))
      .map((d) => ({ id: d.id, name: d.name })),
    note: row.note,
    keeperId: row.keeperId,
    items: await pricedItems(ctx, row, today),
    orders,
    waiting,
    unseen: {
      drawn: restOf(moneyOf(row.drawn, row.currency), orders),
      reserved: restOf(reserved, waiting),
    },
    choices: await agreementChoices(ctx),
    mayPrice: may(actor.grants, 'keep catalogue'),
  }
}

/** What of a total stands on none of some documents. */
const restOf = (total: Money, shown: readonly { readonly net: Money }[]): Money =>
  subtract(
    total,
    sum(
      shown.map((s) => s.net),
      total.currency,
    ),
  )

/** What stands in an agreement, with what the catalogue asks for one of each today. */
async function pricedItems({ tx }: Context, row: AgreementRow, today: string): Promise<AgreementView['items']> {
  const kept = await listAgreementItems(tx, row.id)
  const ids = kept.map((k) => k.itemId)
  const items = new Map((await findItems(tx, ids)).map((i) => [i.id, i]))
  const steps = await listPriceSteps(tx, ids)
  return kept.flatMap(({ itemId, unitPrice }) => {
    const item = items.get(itemId)
    if (item === undefined) return []
    const catalogue = priceFor(steps.get(itemId) ?? [], '1', today)?.unitPrice ?? null
    return [
      {
        ...{ itemId, number: item.number, name: item.name, supplierPart: item.supplierPart, unit: item.unit },
        ...{ priceBase: item.priceBase, unitPrice, currency: item.currency, retired: item.facts.retired, catalogue },
        differs: unitPrice !== null && (catalogue === null || !dec(catalogue).eq(dec(unitPrice))),
      },
    ]
  })
}
