import type { ListName } from '#core/lists/list'
import type { LaidView } from '#shared/contract/lists'
import type { Context } from '../context'
import { findOpenLaid, listLaidRows, type LaidFile } from './laid-store'
import { requireLaid } from './lay-file'
import { requireList } from './read-list'

const SAMPLE = 5

/** How far a file is that one laid aside. */
export async function readLaidFile(ctx: Context, list: ListName, id: string): Promise<LaidView> {
  return viewOf(ctx, await requireLaid(ctx, list, id))
}

/** The file that one laid aside for a list and neither took nor left: another day, too. */
export async function readOpenFile(ctx: Context, list: ListName): Promise<{ file: LaidView | null }> {
  requireList(ctx, list)
  const open = await findOpenLaid(ctx.tx, list, ctx.actor.id)
  return { file: open === null ? null : await viewOf(ctx, open) }
}

async function viewOf({ tx }: Context, f: LaidFile): Promise<LaidView> {
  return {
    id: f.id,
    name: f.name,
    state: f.state,
    head: [...f.head],
    sample: (await listLaidRows(tx, f.id, 0, SAMPLE)).map((r) => [...r.cells]),
    columns: [...(f.columns ?? [])],
    rows: f.rows,
    looked: f.looked,
    counts: { adds: f.adds, changes: f.changes, nothing: f.nothing, refused: f.refused, gone: f.gone },
    reasons: f.reasons.map((r) => ({ at: r.at, reasons: [...r.reasons] })),
    notes: [...f.notes],
    trouble: f.trouble,
    seq: f.seq,
  }
}
