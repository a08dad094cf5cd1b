import type { Context } from '../context'
import { listOpenDepartments } from '../people/place-reads'
import { findUsualAccount } from './old-line-reads'

/** The account that a department open to one last paid something alike from. */
export async function proposeAccount(
  { tx, actor }: Context,
  departmentId: string,
  words: string,
): Promise<{ account: string | null }> {
  const isOpen = (await listOpenDepartments(tx, actor.id)).some((d) => d.id === departmentId)
  return { account: isOpen ? await findUsualAccount(tx, departmentId, words) : null }
}
