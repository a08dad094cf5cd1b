/** How far a file is that is laid aside. What is being done is a task's; before it is taken it can be left. */
export const LAID_STATES = [
  'reading',
  'read',
  'being looked at',
  'looked at',
  'being taken',
  'taken',
  'being taken back',
  'left',
  'broken',
] as const
export type LaidState = (typeof LAID_STATES)[number]

/** A task is at work on it. */
export const isAtWork = (state: LaidState): boolean => state === 'reading' || state.startsWith('being')
