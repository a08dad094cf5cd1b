import { itemLine } from '#core/catalogue/item-line'
import { addBusinessDays, fiscalPeriod, type Day } from '#core/base/day'
import { BLANK_DRAFT, BLANK_LINE, type Draft, type DraftLine } from '#core/requisition/draft'
import { idOf } from './ids'
import { budgetLineId, payingAccount } from './world/budgets'
import { CATEGORY_ROWS, ITEM_ROWS, SUPPLIER_ROWS } from './world/catalogue'
import type { Need, NeedLine } from './world/needs'
import { DEPARTMENT_ROWS } from './world/people'

/** A need as its author would have written it on a day. `key` keeps line ids apart. */
export function draftOf(need: Need, day: Day, key: string): Draft {
  const department = DEPARTMENT_ROWS.find((d) => d.name === need.department)
  if (department === undefined) throw new Error(`no department ${need.department}`)
  return {
    ...BLANK_DRAFT,
    title: need.title,
    departmentId: department.id,
    shipToId: department.usualShipToId,
    needBy: addBusinessDays(day, 10, new Set()),
    why: need.why,
    lines: need.lines.map((line, i) => lineOf(line, need.department, day, idOf('line', `${key} ${i}`))),
  }
}

function lineOf(line: NeedLine, department: string, day: Day, id: string): DraftLine {
  const { year } = fiscalPeriod(day, 4)
  if ('text' in line) {
    return {
      ...BLANK_LINE,
      id,
      description: line.text,
      quantity: String(line.quantity),
      unit: line.unit,
      unitPrice: line.price,
      supplierId: line.supplier === null ? null : (SUPPLIER_ROWS.find((s) => s.name === line.supplier)?.id ?? null),
      codings: [{ budgetLineId: budgetLineId(department, line.account, year), value: null }],
    }
  }
  const item = ITEM_ROWS.find((i) => i.supplierPart === line.part)
  if (item === undefined) throw new Error(`no item ${line.part}`)
  const account =
    line.account ?? payingAccount(department, CATEGORY_ROWS.find((c) => c.id === item.categoryId)?.accountCode ?? '')
  if (account === null) throw new Error(`${department} has no budget for ${line.part}`)
  const prices = item.prices.map((s) => ({ ...s, validFrom: null, validUntil: null }))
  return {
    ...BLANK_LINE,
    ...itemLine({ ...item, prices }, String(line.quantity), day),
    id,
    codings: [{ budgetLineId: budgetLineId(department, account, year), value: null }],
  }
}
