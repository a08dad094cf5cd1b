import type { Every } from '#core/base/every'
import type { Task } from './tasks'

/** What is done by itself, and how often. What guards what is kept, or sends what waits, is never paused. */
export const SCHEDULE = {
  sweep: { every: { each: 'minute' }, mayPause: false },
  'lay-chain': { every: { each: 'minute' }, mayPause: false },
  'check-integrity': { every: { each: 'day', hour: 2, minute: 47 }, mayPause: false },
  'route-all-again': { every: { each: 'hour', minute: 1 }, mayPause: true },
  'remind-all-late': { every: { each: 'hour', minute: 31 }, mayPause: true },
  'begin-ordering': { every: { each: 'hour', minute: 3 }, mayPause: true },
  'repeat-templates': { every: { each: 'hour', minute: 11 }, mayPause: true },
  'daily-letters': { every: { each: 'hour', minute: 5 }, mayPause: true },
  'keep-suppliers': { every: { each: 'hour', minute: 7 }, mayPause: true },
  'keep-agreements': { every: { each: 'hour', minute: 9 }, mayPause: true },
  'tell-shares': { every: { each: 'hour', minute: 17 }, mayPause: true },
  purge: { every: { each: 'day', hour: 3, minute: 23 }, mayPause: true },
} as const satisfies Partial<Record<Task, { readonly every: Every; readonly mayPause: boolean }>>
export type Scheduled = keyof typeof SCHEDULE
export const SCHEDULED = Object.keys(SCHEDULE) as [Scheduled, ...Scheduled[]]
export const isScheduled = (task: Task): task is Scheduled => task in SCHEDULE
