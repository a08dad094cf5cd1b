import type { Every } from '#core/base/every'

/** What is done by itself, in words: its name, and what it is for. */
export const SCHEDULED_WORDS: Readonly<Record<string, { readonly name: string; readonly says: string } | undefined>> = {
  'remind-all-late': {
    name: 'Reminders and escalation',
    says: 'Whoever lets a decision wait is reminded, and their manager asked too, after the days that the policy says.',
  },
  'route-all-again': {
    name: 'Absences and the policy',
    says: 'Who decides on what waits follows absences that begin or end, people who leave, and a new policy.',
  },
  'begin-ordering': {
    name: 'Ordering by itself',
    says: 'Rules whose hour has come on a business day order what they cover.',
  },
  'repeat-templates': { name: 'Repeating requests', says: 'Templates with a rhythm are raised on their day.' },
  'daily-letters': { name: 'Daily letters', says: 'Who wants one letter a day gets it at their hour.' },
  'keep-suppliers': {
    name: 'Suppliers',
    says: 'Buyers and finance are told of papers that end soon, and standings end on their day.',
  },
  'keep-agreements': {
    name: 'Agreements and blanket orders',
    says:
      'Agreements come into force and end on their day, whoever looks after one is told of its renewal, and buyers ' +
      'that a blanket order ends.',
  },
  'tell-shares': {
    name: 'Budgets',
    says: 'Whoever holds a budget line is told when it reaches one of its shares.',
  },
  sweep: { name: 'What waits to leave', says: 'Mails and orders that lost their turn, as in a crash, are sent.' },
  'lay-chain': { name: 'Chain of events', says: 'Each event is sealed with the one before it.' },
  'check-integrity': {
    name: 'Integrity',
    says: 'What is kept twice is compared, and the chain of events looked at whole.',
  },
  purge: { name: 'Clearing', says: 'What nobody needs any more, and what is kept for some days only, goes.' },
}

const two = (n: number) => String(n).padStart(2, '0')

/** How often, in words. */
export function sayEvery(every: Every): string {
  switch (every.each) {
    case 'minute':
      return 'every minute'
    case 'hour':
      return `every hour, at minute ${every.minute}`
    case 'day':
      return `every day at ${two(every.hour)}:${two(every.minute)} UTC`
  }
}

/** How long something took, roughly. */
export const sayTook = (milliseconds: number): string =>
  milliseconds < 1000 ? `${milliseconds} ms` : `${(milliseconds / 1000).toFixed(1)} s`
