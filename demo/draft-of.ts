import { priceFor } from '#core/catalogue/price'
import { addBusinessDays, fiscalPeriod, type Day } from '#core/base/day'
import { type Draft, type DraftLine } from '#core/requisition/draft'
import { idOf } from './ids'
import { budgetLineId, payingAccount } from './world/budgets'
import { CATEGORY_ROWS, ITEM_ROWS, SUPPLIER_ROWS } from './world/catalogue'
import { type Need, type NeedLine } from './world/needs'
import { DEPARTMENT_ROWS } from './world/people'

/** A need as its author would have written it on a day. `key` keeps line ids apart. */
export function draftOf(need: Need, day: Day, key: string): Draft {
  const department = DEPARTMENT_ROWS.find((d) => d.name === need.department)
  if (department === undefined) throw new Error(`no department ${need.department}`)
  return {
    kind: 'goods', title: need.title, departmentId: department.id, shipToId: department.usualShipToId, shipToDetail: '', accountingDate: null,
    needBy: addBusinessDays(day, 10, new Set()), why: need.why, overBudgetReason: '',
    lines: need.lines.map((line, i) => lineOf(line, need.department, day, idOf('line', `${key} ${i}`))),
  }
}

function lineOf(line: NeedLine, department: string, day: Day, id: string): DraftLine {
  const { year } = fiscalPeriod(day, 4)
  if ('text' in line) {
    return {
      id, itemId: null, categoryId: null, description: line.text, quantity: String(line.quantity), unit: line.unit, unitPrice: line.price, priceBase: '1', currency: 'EUR', taxCode: 'S',
      supplierId: line.supplier === null ? null : SUPPLIER_ROWS.find((s) => s.name === line.supplier)?.id ?? null, supplierPart: null, splitMethod: 'percent',
      codings: [{ budgetLineId: budgetLineId(department, line.account, year), value: null }],
    }
  }
  const item = ITEM_ROWS.find((i) => i.supplierPart === line.part)
  if (item === undefined) throw new Error(`no item ${line.part}`)
  const account = line.account ?? payingAccount(department, CATEGORY_ROWS.find((c) => c.id === item.categoryId)?.accountCode ?? '')
  if (account === null) throw new Error(`${department} has no budget for ${line.part}`)
  const steps = item.prices.map((s) => ({ ...s, validFrom: null, validUntil: null }))
  return {
    id, itemId: item.id, categoryId: item.categoryId, description: item.name, quantity: String(line.quantity), unit: item.unit,
    unitPrice: priceFor(steps, String(line.quantity), day)?.unitPrice ?? null, priceBase: item.priceBase, currency: item.currency, taxCode: item.taxCode,
    supplierId: item.supplierId, supplierPart: item.supplierPart, splitMethod: 'percent', codings: [{ budgetLineId: budgetLineId(department, account, year), value: null }],
  }
}
