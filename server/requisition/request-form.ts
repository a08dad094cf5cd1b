import { randomUUID } from 'node:crypto'
import { dayOf } from '#core/base/day'
import { checkForm, type RequestForm } from '#core/requisition/form'
import { branchesOf } from '#core/people/branch'
import { completeDraft, type Draft, type DraftLine } from '#core/requisition/draft'
import { hasAgreement } from '#core/requisition/line-agreement'
import { replayRule } from '#core/requisition/replay'
import type { RequestRule } from '#core/requisition/rules'
import type { RequestFormView, RulesReplay } from '#shared/contract/request-form'
import { sayFormReason } from '#shared/words/request-form'
import { listAgreementsWith } from '../agreement/reads'
import { appendEvent } from '../audit/store'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import { refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { listDepartments, listUpward } from '../people/place-reads'
import { lockFormVersion, requireOrganisation, requireTerms } from '../settings/reads'
import { raiseFormVersion } from '../settings/store'
import {
  countFilledFields,
  countSentKinds,
  inForce,
  listSentLast,
  readForm,
  readNamed,
  type FormEver,
} from './form-reads'
import { writeForm } from './form-store'

/** The one form there is, as events name it. */
const THE_FORM = '00000000-0000-4000-8000-000000000001'

/** What is asked for with requisitions as it is now, with what it may name and how much each part is used. */
export async function readRequestForm({ tx, now }: Context): Promise<RequestFormView> {
  const { baseCurrency, newSuppliers, timeZone, formVersion } = await requireOrganisation(tx)
  const ever = await readForm(tx, dayOf(now, timeZone))
  return {
    form: formOf(ever, newSuppliers),
    version: formVersion,
    currency: baseCurrency,
    departments: await listDepartments(tx),
    categories: await listCategories(tx),
    sent: Object.fromEntries((await countSentKinds(tx)).map((c) => [c.kind, c.count])),
    filled: Object.fromEntries(
      (
        await countFilledFields(
          tx,
          ever.ownFields.map((f) => f.id),
        )
      ).map((c) => [c.field, c.count]),
    ),
  }
}

/**
 * Keeps the form as a whole, at the version that was seen; it holds for what is sent from now on. What is
 * left out is retired: documents keep what was written. Refused with every reason at once.
 */
export async function keepRequestForm(ctx: Context, version: number, form: RequestForm): Promise<{ version: number }> {
  const seen = await lockFormVersion(ctx.tx)
  if (seen !== version) throw stale('another administrator changed what is asked for')
  const { baseCurrency, newSuppliers, timeZone } = await requireOrganisation(ctx.tx)
  const ever = await readForm(ctx.tx, dayOf(ctx.now, timeZone))
  const reasons = checkForm(form, {
    baseCurrency,
    departmentIds: new Set((await listDepartments(ctx.tx)).map((d) => d.id)),
    categoryIds: new Set((await listCategories(ctx.tx)).map((c) => c.id)),
    everFields: new Map(ever.ownFields.map((f) => [f.id, f])),
  })
  if (reasons.length > 0) throw refused(reasons.map((r) => sayFormReason(r, form)))
  const before = formOf(ever, newSuppliers)
  const kept = { ...form, rules: form.rules.map((rule) => askAnew(rule, before.rules)) }
  await writeForm(ctx.tx, kept)
  await raiseFormVersion(ctx.tx, form.newSuppliers)
  await appendEvent(ctx, {
    type: 'request form changed',
    subjectKind: 'settings',
    subjectId: THE_FORM,
    before,
    after: kept,
  })
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_FORM })
  return { version: version + 1 }
}

function formOf(ever: FormEver, newSuppliers: RequestForm['newSuppliers']): RequestForm {
  return { newSuppliers, kinds: inForce(ever.kinds), ownFields: inForce(ever.ownFields), rules: ever.rules }
}

/** What has to be read is read again when it says something else: whoever read it before read other words. */
function askAnew(rule: RequestForm['rules'][number], before: RequestForm['rules']): RequestForm['rules'][number] {
  const was = before.find((r) => r.id === rule.id)?.asks
  return rule.asks.what === 'reading' && was !== undefined && !(was.what === 'reading' && was.text === rule.asks.text)
    ? { ...rule, id: randomUUID() }
    : rule
}

/** How many of the requests sent last a replay looks at. */
const REPLAYED = 1000

/** For how many of the requests sent last each rule would have held, at today's rates and agreements. */
export async function replayPast({ tx, now }: Context, rules: readonly RequestRule[]): Promise<RulesReplay> {
  const { organisation, perBase, today } = await requireTerms(tx, now)
  const past = (await listSentLast(tx, REPLAYED)).map((p) => ({ ...p, draft: completeDraft(p.draft) }))
  const lines = past.flatMap((p) => p.draft.lines)
  const { items } = await readNamed(tx, [], [...new Set(lines.flatMap((l) => l.itemId ?? []))])
  const known = new Map(items.map((i) => [i.id, i]))
  const agreements = await listAgreementsWith(tx, [...new Set(lines.flatMap((l) => l.supplierId ?? []))])
  const branches = branchesOf(await listUpward(tx))
  const facts = {
    baseCurrency: organisation.baseCurrency,
    perBase: new Map(perBase),
    isAgreed: (line: DraftLine, draft: Draft) =>
      hasAgreement(line, draft, {
        today,
        agreements,
        items: known,
        branch: branches.get(draft.departmentId ?? '') ?? [],
      }),
  }
  return {
    sent: past.length,
    since: past.at(-1)?.day ?? null,
    rules: rules.map((rule) => replayRule(rule, past, facts)),
  }
}
