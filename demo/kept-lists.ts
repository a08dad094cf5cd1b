import { readFile } from 'node:fs/promises'
import { addDays, dayOf, fiscalPeriod } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import type { ListName } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import { addPicture } from '../server/catalogue/pictures'
import { decideTransfer, proposeTransfer } from '../server/budget/transfer-money'
import type { Context } from '../server/context'
import { confirmHeld, readHeld } from '../server/lists/confirm-held'
import { keepRows } from '../server/lists/keep-list'
import { readList } from '../server/lists/read-list'
import { idOf } from './ids'
import { budgetLineId } from './world/budgets'

const emailOf = (name: string) => `${name.toLowerCase().replace(/ /g, '.')}@hallamere.example`

/** Pictures of items, drawn for the demo. */
const PICTURES = [
  ['CP-UV-80A', 'uv-lamp.png'],
  ['BS-25', 'sea-salt.png'],
  ['CP-BRG-P4', 'bearing.png'],
] as const

/** What was spent on some lines last year, from its second month on. */
const LAST_YEAR: readonly (readonly [department: string, account: string, byPeriod: readonly number[]])[] = [
  ['4100', '610', [1100, 700, 1400, 1000, 1250, 1600, 800, 1300, 1500, 1700, 1900]],
  ['4100', '612', [660, 700, 720, 690, 700, 760, 650, 680, 1100, 1200, 900]],
  ['4100', '616', [120, 90, 60, 140, 110, 70, 130, 90, 100, 60, 150]],
]

type As = <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>

/** Money that moved between budget lines a while ago, and some that waits for whoever holds the line that gives. */
async function moveMoney(as: As, ago: (days: number) => Date, at: { year: number; period: number }): Promise<void> {
  const line = (department: string, account: string) => budgetLineId(department, account, at.year)
  const propose = (by: string, days: number, from: string, to: string, amount: string, reason: string) =>
    as(by, ago(days), (ctx) =>
      proposeTransfer(ctx, { fromLineId: from, toLineId: to, period: at.period, amount, reason }),
    )
  const diving = line('Rescue Centre', '642')
  const nets = await propose(
    'Nadia Wexcombe',
    12,
    diving,
    line('Rescue Centre', '640'),
    '350',
    'Two stretchers wore out in the autumn strandings.',
  )
  await as('Greta Molin', ago(11), (ctx) => decideTransfer(ctx, nets.id, 'agree', 'As we said on Monday.'))
  await propose(
    'Kaveh Dorani',
    1,
    line('Water Systems', '650'),
    line('Animal Care', '624'),
    '400',
    'The seal pups need a second course of vaccine, and your training was put off.',
  )
}

/**
 * What administrators and finance entered besides the organisation itself: roles for single departments and places, a
 * limit while somebody stands in, what was spent before Rekko, and pictures of some items.
 */
export async function keepLists(as: As, now: Date, timeZone: string): Promise<void> {
  const today = dayOf(now, timeZone)
  const ago = (days: number) => new Date(now.getTime() - days * 86_400_000)
  const keep = (by: string, at: Date, list: ListName, source: string, head: readonly string[], rows: string[][]) =>
    as(by, at, async (ctx) => {
      const { version } = await readList(ctx, list, '')
      const columns = recogniseColumns(LISTS[list], head)
      return keepRows(ctx, list, version, { columns, cells: rows, source, gone: 'keep' })
    })

  await keep(
    'Harriet Voss',
    ago(30),
    'roles',
    '',
    ['Person', 'Role', 'Department', 'Place', 'Until'],
    [
      [emailOf('Rosa Castell'), 'receiver', '', 'Pump Hall, Quay Gate', ''],
      [emailOf('Sorrel Quist'), 'receiver', '', 'Boat House, Berth 4', ''],
      [emailOf('Jonas Abara'), 'receiver', '4300', '', addDays(today, 60)],
    ],
  )
  await keep(
    'Harriet Voss',
    ago(20),
    'reasons',
    '',
    ['Reason', 'For'],
    [
      ['Please attach the quote that the price comes from.', 'sending back'],
      ['Please name the job that it is for.', 'sending back'],
      ['We have this in the Goods Yard; ask there first.', 'rejecting'],
      ['Can it wait until the next period?', 'asking'],
      ['As agreed with you today.', 'all'],
    ],
  )
  await keep(
    'Harriet Voss',
    ago(3),
    'limits',
    '',
    ['Person', 'Limit', 'Up to', 'From', 'Until'],
    [[emailOf('Kaveh Dorani'), 'own', '600', addDays(today, -3), addDays(today, 9)]],
  )
  await as('Greta Molin', ago(3), async (ctx) => {
    for (const h of await readHeld(ctx)) await confirmHeld(ctx, h.id)
  })
  const year = fiscalPeriod(today, 4).year - 1
  const before = (department: string, account: string, period: string, stage: string, number: string, what: string) =>
    [String(year), department, account, period, stage, number, what] as const
  await keep(
    'Greta Molin',
    ago(50),
    'opening',
    'before-rekko.csv',
    ['Fiscal year', 'Department', 'Account', 'Period', 'Stage', 'Number elsewhere', 'What', 'Amount', 'Over'],
    [
      [...before('4100', '610', '1', 'spent', '', 'Pump parts, as the books have it'), '1240.35', 'no'],
      [...before('4100', '616', '1', 'spent', '', 'Waste, as the books have it'), '418.00', 'no'],
      [...before('4100', '616', '2', 'committed', 'B-2231', 'Skip for the old filter sand'), '260.00', 'yes'],
      [...before('4100', '610', '11', 'committed', 'B-2240', 'Rotor of pump 4, from its maker'), '1180.00', 'no'],
      [...before('4200', '622', '12', 'committed', 'B-2244', 'Frozen herring, the last delivery'), '345.50', 'no'],
    ],
  )
  await keep(
    'Greta Molin',
    ago(50),
    'opening',
    'last-year.csv',
    ['Fiscal year', 'Department', 'Account', 'Period', 'Stage', 'Number elsewhere', 'What', 'Amount', 'Over'],
    LAST_YEAR.flatMap(([department, account, byPeriod]) =>
      byPeriod.map((amount, i) => [
        ...[String(year), department, account, String(i + 2), 'spent', ''],
        ...['As the books have it', String(amount), 'no'],
      ]),
    ),
  )
  await moveMoney(as, ago, fiscalPeriod(today, 4))
  for (const [part, file] of PICTURES) {
    const bytes = await readFile(`demo/files/pictures/${file}`)
    await as('Leonie Farrow', ago(20), (ctx) => addPicture(ctx, idOf('item', part), bytes, { name: file }))
  }
}
