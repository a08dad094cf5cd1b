/** How often something is done: each minute, or at a minute of each hour, or at a time of each day; by UTC. */
export type Every =
  | { readonly each: 'minute' }
  | { readonly each: 'hour'; readonly minute: number }
  | { readonly each: 'day'; readonly hour: number; readonly minute: number }

/** The same as a line of crontab (POSIX crontab: minute, hour, day of month, month, day of week). */
export function cronOf(every: Every): string {
  switch (every.each) {
    case 'minute':
      return '* * * * *'
    case 'hour':
      return `${every.minute} * * * *`
    case 'day':
      return `${every.minute} ${every.hour} * * *`
  }
}

const MINUTE_MS = 60_000
const HOUR_MS = 60 * MINUTE_MS
const DAY_MS = 24 * HOUR_MS
const LENGTH = { minute: MINUTE_MS, hour: HOUR_MS, day: DAY_MS } as const

/** The first moment after another at which it is done. */
export function nextAfter(every: Every, moment: Date): Date {
  const length = LENGTH[every.each]
  const into =
    every.each === 'minute' ? 0 : every.minute * MINUTE_MS + (every.each === 'day' ? every.hour * HOUR_MS : 0)
  const begun = Math.floor((moment.getTime() - into) / length)
  return new Date((begun + 1) * length + into)
}
