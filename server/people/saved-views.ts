import { randomUUID } from 'node:crypto'
import type { Context } from '../context'
import { invalid, notFound, refused } from '../http/problem'
import { listSavedViews } from './view-reads'
import { deleteSavedView, upsertSavedView } from './store'

const MOST_VIEWS = 30

/** Keeps how one likes to see a place, under a name. */
export async function keepView(
  { tx, actor }: Context,
  place: string,
  name: string,
  query: string,
): Promise<{ id: string }> {
  if (name.trim() === '') throw invalid('Give the view a name.', [{ field: 'name', message: 'is empty' }])
  if ((await listSavedViews(tx, actor.id, place)).length >= MOST_VIEWS)
    throw refused([`You keep ${MOST_VIEWS} views of this place already; take one away first.`])
  return { id: await upsertSavedView(tx, { id: randomUUID(), personId: actor.id, place, name: name.trim(), query }) }
}

export async function removeView({ tx, actor }: Context, id: string): Promise<void> {
  if (!(await deleteSavedView(tx, id, actor.id))) throw notFound('This view')
}
