import type { Route } from '#core/approval/route'
import { HELD_BECAUSE } from './requisition'

const THEN = {
  'no-fallback': 'the policy names nobody who decides in the end',
  'fallback-barred': 'whoever decides in the end raised or owns it',
  'fallback-away': 'whoever decides in the end is away or gone',
} as const

/** Why a route is held: why somebody else had to be found, and why they were not. */
export const sayHeld = (held: Route['held']): string =>
  held === null ? 'Nobody is found who may decide' : `${HELD_BECAUSE[held.because]}, and ${THEN[held.code]}`
