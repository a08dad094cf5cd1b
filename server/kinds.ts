import type { Decidable } from './approval/decidable'
import type { Kind } from './document/kind'
import { ORDER } from './order/kind'
import { REQUISITION } from './requisition/kind'

/** Every kind of document there is, by its name: where something is about a document, it asks here what kind it is. */
export const KINDS: Readonly<Record<string, Kind | undefined>> = { requisition: REQUISITION, order: ORDER }

/** The kinds that are decided on. */
export const DECIDABLES: Readonly<Record<string, Decidable | undefined>> = { requisition: REQUISITION }
