import type { Context } from '../context'
import { findRoute } from './reads'
import { dropSeats, updateRoute } from './store'

/** Ends the route of a document: nobody is asked any more. Returns who was asked until now. */
export async function stopRoute({ tx }: Pick<Context, 'tx'>, documentId: string): Promise<string[]> {
  const route = await findRoute(tx, documentId)
  if (route === null || route.state === 'stopped') return []
  const dropped = await dropSeats(tx, route.id)
  await updateRoute(tx, route.id, { state: 'stopped' })
  return [...new Set(dropped.map((d) => d.actorId))]
}
