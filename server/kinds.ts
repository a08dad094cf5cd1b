import type { Decidable } from './approval/decidable'
import type { Context } from './context'
import type { Kind } from './document/kind'
import { findKindName } from './document/reads'
import { notFound } from './http/problem'
import { ORDER_CHANGE } from './order/change-kind'
import { ORDER } from './order/kind'
import { REQUISITION } from './requisition/kind'

/** Every kind of document there is, by its name: where something is about a document, it asks here what kind it is. */
export const KINDS: Readonly<Record<string, Kind | undefined>> = {
  requisition: REQUISITION,
  order: ORDER,
  'order change': ORDER_CHANGE,
}

/** The kinds that are decided on. */
export const DECIDABLES: Readonly<Record<string, Decidable | undefined>> = {
  requisition: REQUISITION,
  order: ORDER,
  'order change': ORDER_CHANGE,
}

/** The kind of a document that is decided on; 404 where there is no such document. */
export async function requireDecidable({ tx }: Pick<Context, 'tx'>, id: string): Promise<Decidable> {
  const kind = DECIDABLES[(await findKindName(tx, id)) ?? '']
  if (kind === undefined) throw notFound('This document')
  return kind
}
