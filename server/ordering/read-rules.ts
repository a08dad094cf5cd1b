import { RULE_MOVE_NAMES } from '#core/order/rule-moves'
import type { RuleChoices, RuleView, RunHead } from '#shared/contract/ordering'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import { listBuyers } from '../people/person-reads'
import { listDepartments } from '../people/place-reads'
import { readForm } from '../requisition/form-reads'
import { requireTerms } from '../settings/reads'
import { mayMove } from './keep-rule'
import { listLastRuns, listNamedSuppliers, listRules, type RuleRow, type RunRow } from './reads'

/** The rules of ordering by itself, how each went last, and what whoever looks may do with it. */
export async function readRules(ctx: Context): Promise<{ rules: RuleView[]; choices: RuleChoices }> {
  const rules = await listRules(ctx.tx)
  const runs = await listLastRuns(ctx.tx)
  const views: RuleView[] = []
  for (const rule of rules) {
    const run = runs.find((r) => r.ruleId === rule.id)
    views.push({ ...viewRule(rule), may: await movesOf(ctx, rule), lastRun: run === undefined ? null : viewRun(run) })
  }
  return { rules: views, choices: await choicesOf(ctx, rules) }
}

async function movesOf(ctx: Context, rule: RuleRow): Promise<RuleView['may']> {
  const found: RuleView['may'] = []
  for (const move of RULE_MOVE_NAMES) if (await mayMove(ctx, rule, move)) found.push(move)
  return found
}

const viewRule = ({ writtenById: _, ranOn: __, ...rule }: RuleRow) => ({
  ...rule,
  form: {
    ...rule.form,
    ...{ kinds: [...rule.form.kinds], departmentIds: [...rule.form.departmentIds] },
    ...{ categoryIds: [...rule.form.categoryIds], supplierIds: [...rule.form.supplierIds] },
  },
})

/** A run as lists show it. */
export const viewRun = ({ form: _, left, ...run }: RunRow): RunHead => ({ ...run, left: left.length })

/** What a rule may name. */
export async function choicesOf({ tx, now }: Context, rules: readonly RuleRow[]): Promise<RuleChoices> {
  const { organisation, today } = await requireTerms(tx, now)
  const named = (of: readonly { readonly id: string; readonly name: string }[]) =>
    of.map(({ id, name }) => ({ id, name }))
  const { kinds } = await readForm(tx, today)
  return {
    currency: organisation.baseCurrency,
    kinds: kinds.map((k) => ({ id: k.code, name: k.name })),
    departments: named(await listDepartments(tx)),
    categories: named(await listCategories(tx)),
    buyers: named(await listBuyers(tx, [], organisation.baseCurrency, today)),
    suppliers: await listNamedSuppliers(tx, [...new Set(rules.flatMap((r) => r.form.supplierIds))]),
  }
}
