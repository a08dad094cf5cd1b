import { whyAlike, type SupplierLikeness } from '#core/supplier/alike'
import type { AlikeSupplier } from '#shared/contract/supplier'
import type { Context } from '../context'
import { listCandidates } from './reads'

/** Suppliers that may be the one described, the surest first. */
export async function findAlike(
  { tx }: Pick<Context, 'tx'>,
  like: { readonly name: string; readonly taxNumber: string; readonly email: string },
  except: string | null = null,
): Promise<AlikeSupplier[]> {
  const wanted: SupplierLikeness = { name: like.name, taxNumber: like.taxNumber, email: like.email }
  if (like.name.trim().length < 3 && like.taxNumber.trim() === '' && like.email.trim() === '') return []
  const found = (await listCandidates(tx, like))
    .filter((c) => c.id !== except)
    .map(({ taxNumber, email, ...c }) => ({ ...c, why: whyAlike(wanted, { name: c.name, taxNumber, email }) }))
  return found
    .filter((c) => c.why.length > 0)
    .sort((a, b) => b.why.length - a.why.length || (a.name < b.name ? -1 : 1))
    .slice(0, 5)
}
