import { leftOf, warningsAtIssue } from '#core/agreement/ceiling'
import { agreementStanding } from '#core/agreement/fit'
import type { Day } from '#core/base/day'
import { zero, type Money } from '#core/base/money'
import { may } from '#core/people/rights'
import type { AgreementChoices, AgreementHead } from '#shared/contract/agreement'
import { sayMark } from '#shared/words/agreement'
import type { Ways } from '#shared/words/ways'
import { drawnOn, type AgreementRow } from '../agreement/reads'
import type { Context } from '../context'
import { listDepartments } from '../people/place-reads'
import { requireTerms } from '../settings/reads'

/** What whoever keeps agreements chooses from; null for whoever does not. */
export async function agreementChoices({ tx, now, actor }: Context): Promise<AgreementChoices | null> {
  if (!may(actor.grants, 'keep suppliers')) return null
  const { organisation, perBase } = await requireTerms(tx, now)
  const departments = (await listDepartments(tx)).filter((d) => !d.retired)
  return {
    departments: departments.map((d) => ({ id: d.id, name: d.name })),
    currencies: [...new Set([organisation.baseCurrency, ...perBase.map(([currency]) => currency)])].sort(),
  }
}

/** An agreement as lists show it, on a day. */
export function viewAgreement(row: AgreementRow, reserved: Money, today: Day, ways: Ways): AgreementHead {
  const of = drawnOn(row, reserved)
  const standing = agreementStanding(row, today)
  const isOver = standing === 'ended' || standing === 'closed'
  const renewal =
    isOver || row.renewOn === null || row.renewOn > today
      ? []
      : [`its renewal is due since ${ways.date(row.renewOn, today)}`]
  return {
    ...{ id: row.id, number: row.number, name: row.name, supplierId: row.supplierId, supplier: row.supplier },
    ...{ startsOn: row.startsOn, endsOn: row.endsOn, fixes: row.fixes, currency: row.currency, standing },
    ceiling: of.ceiling,
    drawn: of.drawn,
    reserved,
    left: leftOf(of),
    marks: isOver
      ? []
      : [...warningsAtIssue(of, zero(row.currency), today).map((w) => sayMark(w, today, ways)), ...renewal],
    keeper: row.keeper,
  }
}
