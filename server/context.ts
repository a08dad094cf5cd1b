import type { Tx } from './db/client'
import type { Actor } from './people/actor'

/** What every use case gets: one transaction, the moment, and who acts. */
export interface Context {
  readonly tx: Tx
  readonly now: Date
  readonly actor: Actor
}
