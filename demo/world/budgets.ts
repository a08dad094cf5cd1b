import { moneyOf } from '#core/base/money'
import { divide } from '#core/base/split'
import { ONE } from '#core/base/decimal'
import { idOf } from '../ids'
import { personId } from './people'

/** department, account, name, amount for the year, control, holder, may fall below zero by, project */
type Row = [
  department: string,
  account: string,
  name: string,
  amount: string,
  control: 'tells' | 'asks' | 'refuses',
  holder: string,
  below?: string,
  project?: string,
]
const ROWS: Row[] = [
  ['Water Systems', '610', 'Pumps and filters', '16000', 'asks', 'Tomas Brandt'],
  ['Water Systems', '612', 'Salt and water', '9000', 'refuses', 'Tomas Brandt'],
  ['Water Systems', '614', 'Ozone', '2600', 'asks', 'Tomas Brandt'],
  ['Water Systems', '616', 'Waste', '1400', 'tells', 'Tomas Brandt'],
  ['Water Systems', '620', 'Laboratory reagents', '600', 'asks', 'Tomas Brandt'],
  ['Water Systems', '630', 'Tools and wear', '1200', 'tells', 'Tomas Brandt'],
  ['Water Systems', '650', 'Training', '2500', 'tells', 'Tomas Brandt'],
  ['Animal Care', '622', 'Feed', '9500', 'refuses', 'Kaveh Dorani'],
  ['Animal Care', '624', 'Veterinary supplies', '2400', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '620', 'Reagents and swabs', '3800', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '670', 'Instruments', '1200', 'asks', 'Kaveh Dorani'],
  ['Animal Care', '616', 'Waste', '900', 'tells', 'Kaveh Dorani'],
  ['Exhibits Workshop', '632', 'Exhibit building', '7000', 'asks', 'Nadia Wexcombe'],
  ['Exhibits Workshop', '632', 'Jellyfish tank', '18000', 'asks', 'Nadia Wexcombe', '0', 'J103'],
  ['Exhibits Workshop', '634', 'Signs and print', '1400', 'tells', 'Nadia Wexcombe'],
  ['Exhibits Workshop', '630', 'Tools', '1600', 'refuses', 'Nadia Wexcombe', '50'],
  ['Rescue Centre', '622', 'Seal feed', '3600', 'refuses', 'Nadia Wexcombe'],
  ['Rescue Centre', '624', 'Seal hospital', '2600', 'asks', 'Nadia Wexcombe'],
  ['Rescue Centre', '642', 'Diving', '4200', 'asks', 'Nadia Wexcombe'],
  ['Rescue Centre', '640', 'Nets and gear', '2400', 'tells', 'Nadia Wexcombe'],
  ['Research Boat', '640', 'Boat and rope', '5200', 'asks', 'Nadia Wexcombe'],
  ['Research Boat', '670', 'Instruments', '4000', 'asks', 'Nadia Wexcombe'],
  ['Research Boat', '630', 'Tools', '500', 'tells', 'Nadia Wexcombe'],
  ['Purchasing and Finance', '660', 'Office', '2800', 'tells', 'Harriet Voss'],
  ['Purchasing and Finance', '650', 'Training', '4000', 'tells', 'Harriet Voss'],
  ['Purchasing and Finance', '630', 'Goods-yard tools', '1600', 'tells', 'Harriet Voss'],
]

export function budgetLineId(department: string, account: string, year: number, project?: string): string {
  return idOf('budget', `${department} ${account}${project === undefined ? '' : ` ${project}`} ${year}`)
}

/** The budget lines of a fiscal year, spread evenly over its periods to the cent. */
export function describeBudgets(year: number) {
  return ROWS.map(([department, accountCode, name, amount, control, holder, below, project]) => ({
    id: budgetLineId(department, accountCode, year, project),
    departmentId: idOf('department', department),
    department,
    accountCode,
    projectCode: project ?? null,
    fiscalYear: year,
    name,
    control,
    mayFallBelow: below ?? '0',
    span: 'year' as const,
    holderId: personId(holder),
    perPeriod: divide(
      moneyOf(amount, 'EUR'),
      Array.from({ length: 12 }, () => ONE),
    ).map((m) => m.amount),
  }))
}

/** What of a department pays for an account; null where it has no such line. */
export function payingAccount(department: string, account: string): string | null {
  return ROWS.some((r) => r[0] === department && r[1] === account) ? account : null
}
