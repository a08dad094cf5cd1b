import { addDays } from '#core/base/day'
import { may } from '#core/people/rights'
import type { DecidedAsked, DecidedPage, DecidedRow } from '#shared/contract/decided'
import type { Context } from '../context'
import { asSheet } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { forbidden } from '../http/problem'
import { beginOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { listDecided, type DecidedQuery } from './decided-reads'

const PAGE = 50
/** The most decisions that a file holds. */
const MOST_ROWS = 20_000

async function queryOf(ctx: Context, asked: DecidedAsked): Promise<Omit<DecidedQuery, 'after' | 'limit'>> {
  if (asked.whose === 'all' && !may(ctx.actor.grants, 'see all documents'))
    throw forbidden('Everybody’s decisions are for finance and auditors to see.')
  const { timeZone } = await requireOrganisation(ctx.tx)
  return {
    whose: asked.whose,
    outcome: asked.outcome ?? null,
    words: asked.words,
    from: asked.from === undefined ? null : beginOf(asked.from, timeZone),
    until: asked.until === undefined ? null : beginOf(addDays(asked.until, 1), timeZone),
  }
}

/** A page of what was decided, the newest first. */
export async function readDecided(ctx: Context, asked: DecidedAsked): Promise<DecidedPage> {
  const query = await queryOf(ctx, asked)
  return listDecided(ctx.tx, ctx.actor, { ...query, after: asked.after, limit: PAGE })
}

/** The same as a file, with exact moments and plain decimals. */
export async function exportDecided(
  ctx: Context,
  asked: DecidedAsked & { readonly as: 'csv' | 'xlsx' },
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const query = await queryOf(ctx, asked)
  const found: DecidedRow[] = []
  for (let after: string | undefined; found.length < MOST_ROWS;) {
    const page = await listDecided(ctx.tx, ctx.actor, { ...query, after, limit: 500 })
    found.push(...page.rows)
    if (page.next === null) break
    after = page.next
  }
  const table = {
    name: 'Decided',
    head: [
      ...['Decided at', 'Decided by', 'For', 'Decision', 'Taken back', 'Reason', 'Number', 'What it is for', 'Owner'],
      ...['Amount', 'Currency', 'Version of the policy', 'State now'],
    ],
    rows: found.map((d): Cell[] => [
      ...[d.at, d.by, d.forName ?? '', d.outcome, d.takenBack ? 'yes' : '', d.comment, d.number, d.title, d.owner],
      { decimal: d.amount },
      d.currency,
      d.policy === null ? null : { decimal: String(d.policy) },
      d.state,
    ]),
  }
  return asSheet(table, 'decided', asked.as)
}
