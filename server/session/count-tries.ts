import { setHeader, type H3Event } from 'h3'
import { formatCount } from '#shared/words/format'
import type { Context } from '../context'
import { environment } from '../environment'
import { addressOf } from '../http/address-of'
import { Problem } from '../http/problem'
import { countSignIn, forgetSignIns, uncountSignIn } from '../people/store'

/** Failures that are free, of one person from one address and of one address in all; then the pauses begin to grow. */
const FREE_BY_PERSON = 10
const FREE_BY_ADDRESS = 50

const byAddress = (event: H3Event) => `address ${addressOf(event.node.req, environment().trustedProxies)}`

/**
 * Counts a try to name a password, by person and by address; who fails again and again waits a little longer each time.
 * It runs before the work itself and is committed by itself: a refusal later rolls back everything else, not the count.
 * Succeeding takes it back, so that failures alone count.
 */
export async function countTry({ tx, now }: Context, event: H3Event, person: string): Promise<void> {
  const left = Math.max(
    await countSignIn(tx, person, now, FREE_BY_PERSON),
    await countSignIn(tx, byAddress(event), now, FREE_BY_ADDRESS),
  )
  if (left > 0) {
    setHeader(event, 'retry-after', left)
    throw new Problem(429, 'too-many-tries', `Too many tries; wait ${sayWait(left)}.`)
  }
}

/** A try that succeeded: nothing is held against the person any more, and the address has one try less. */
export async function forgetTries({ tx }: Context, event: H3Event, person: string): Promise<void> {
  await forgetSignIns(tx, person)
  await uncountSignIn(tx, byAddress(event))
}

/** Counts a failure under a key by itself, where no try was counted before: it is done in a transaction that stays. */
export async function countFailure({ tx, now }: Context, key: string): Promise<void> {
  await countSignIn(tx, key, now, FREE_BY_PERSON)
}

/** A try that was none: it is held against nobody, and what failed before stays. */
export async function uncountTry({ tx }: Context, event: H3Event, person: string): Promise<void> {
  await uncountSignIn(tx, person)
  await uncountSignIn(tx, byAddress(event))
}

const sayWait = (seconds: number) =>
  seconds < 60 ? formatCount(seconds, 'second', 'seconds') : formatCount(Math.ceil(seconds / 60), 'minute', 'minutes')
