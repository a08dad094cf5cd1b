import { moneyOf } from '#core/base/money'
import { divide } from '#core/base/split'
import { Decimal } from '#core/base/decimal'
import { idOf } from '../ids'
import { personId } from './people'

/** department, account, name, amount for the year, control, holder, may fall below zero by */
type Row = [department: string, account: string, name: string, amount: string, control: 'tells' | 'asks' | 'refuses', holder: string, below?: string]
const ROWS: Row[] = [
  ['Water Systems', '610', 'Pumps and filters', '28000', 'asks', 'Tomas Brandt'],
  ['Water Systems', '612', 'Salt and water', '31000', 'refuses', 'Tomas Brandt'],
  ['Water Systems', '614', 'Ozone', '3600', 'asks', 'Tomas Brandt'],
  ['Water Systems', '616', 'Waste', '1400', 'tells', 'Tomas Brandt'],
  ['Water Systems', '620', 'Laboratory reagents', '2500', 'asks', 'Tomas Brandt'],
  ['Water Systems', '630', 'Tools and wear', '4000', 'tells', 'Tomas Brandt'],
  ['Water Systems', '650', 'Training', '2500', 'tells', 'Tomas Brandt'],
  ['Animal Care', '622', 'Feed', '24000', 'refuses', 'Kaveh Dorani'],
  ['Animal Care', '624', 'Veterinary supplies', '9000', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '620', 'Reagents and swabs', '5200', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '670', 'Instruments', '4000', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '616', 'Waste', '900', 'tells', 'Kaveh Dorani'],
  ['Exhibits Workshop', '632', 'Exhibit building', '16000', 'asks', 'Nadia Wexcombe'],
  ['Exhibits Workshop', '634', 'Signs and print', '3000', 'tells', 'Nadia Wexcombe'],
  ['Exhibits Workshop', '630', 'Tools', '2400', 'refuses', 'Nadia Wexcombe', '50'],
  ['Rescue Centre', '622', 'Seal feed', '8000', 'refuses', 'Nadia Wexcombe'],
  ['Rescue Centre', '624', 'Seal hospital', '6500', 'asks', 'Nadia Wexcombe'],
  ['Rescue Centre', '642', 'Diving', '5000', 'asks', 'Nadia Wexcombe'],
  ['Rescue Centre', '640', 'Nets and gear', '3600', 'tells', 'Nadia Wexcombe'],
  ['Research Boat', '640', 'Boat and rope', '11000', 'asks', 'Nadia Wexcombe'],
  ['Research Boat', '670', 'Instruments', '9000', 'asks', 'Nadia Wexcombe'],
  ['Research Boat', '630', 'Tools', '1500', 'tells', 'Nadia Wexcombe'],
  ['Purchasing and Finance', '660', 'Office', '2800', 'tells', 'Harriet Voss'],
  ['Purchasing and Finance', '650', 'Training', '4000', 'tells', 'Harriet Voss'],
  ['Purchasing and Finance', '630', 'Goods-yard tools', '1600', 'tells', 'Harriet Voss'],
]

export function budgetLineId(department: string, account: string, year: number): string {
  return idOf('budget', `${department} ${account} ${year}`)
}

/** The budget lines of a fiscal year, spread evenly over its periods to the cent. */
export function describeBudgets(year: number) {
  return ROWS.map(([department, accountCode, name, amount, control, holder, below]) => ({
    id: budgetLineId(department, accountCode, year), departmentId: idOf('department', department), department, accountCode, projectCode: null, fiscalYear: year, name, control,
    mayFallBelow: below ?? '0', span: 'year', holderId: personId(holder),
    perPeriod: divide(moneyOf(amount, 'EUR'), Array.from({ length: 12 }, () => new Decimal(1))).map((m) => m.amount),
  }))
}

/** What of a department pays for an account; null where it has no such line. */
export function payingAccount(department: string, account: string): string | null {
  return ROWS.some((r) => r[0] === department && r[1] === account) ? account : null
}
