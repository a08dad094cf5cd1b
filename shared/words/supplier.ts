import type { AlikeReason } from '#core/supplier/alike'
import type { BankTrouble } from '#core/supplier/bank'
import type { Reach, ReachPart, Standing } from '#core/supplier/record'
import type { Warning } from '#core/supplier/warning'

const ALIKE: Record<AlikeReason, string> = {
  'same tax number': 'the same tax number',
  'same mail domain': 'the same mail domain',
  'same name': 'the same name',
  'like name': 'a name like this',
}

/** Why a supplier may be the one that is meant. */
export function sayAlike(why: readonly AlikeReason[]): string {
  return why.map((w) => ALIKE[w]).join(', ')
}

/** What is to be known of what a line names. */
export function sayWarning(w: Pick<Warning, 'text' | 'successor'>): string {
  if (w.text !== null) return w.text
  return `No longer in the catalogue${w.successor == null ? '' : `: ${w.successor} takes its place`}.`
}

const BANK: Record<BankTrouble, string> = {
  'holder-missing': 'Whose account it is is missing.',
  'number-missing': 'The number of the account is missing.',
  'iban-wrong': 'This IBAN is not possible: one of its characters is mistyped, or it is too long or too short.',
  'bic-wrong': 'This BIC is not possible: it has 8 or 11 characters, like HALLGB2LXXX.',
  'bank-missing': 'An account number that is no IBAN needs the code of its bank.',
}
export const sayBankTrouble = (t: BankTrouble): string => BANK[t]

/** How a supplier stands, behind its name. */
export const STANDING_WORDS: Record<Standing, string> = {
  active: 'can be ordered from',
  'on hold': 'is on hold and cannot be asked for',
  blocked: 'is blocked and cannot be asked for',
  proposed: 'is proposed; finance has to approve it before anything is ordered',
  refused: 'was refused',
  merged: 'was merged into another',
}
/** How it stands, in a column; nothing where it is as usual. */
export const STANDING_SHORT: Record<Standing, string> = {
  active: '',
  'on hold': 'on hold',
  blocked: 'blocked',
  proposed: 'waits for finance',
  refused: 'refused',
  merged: 'merged',
}

const REACH: Record<ReachPart, { readonly there: string; readonly not: string }> = {
  standing: { there: 'it can be ordered from', not: 'nothing is ordered from it as it stands' },
  channel: { there: 'orders reach it by e-mail', not: 'no e-mail for orders is known: an order cannot leave' },
  address: { there: 'its address is known', not: 'its address is missing on the order' },
  terms: { there: 'days to pay are agreed', not: 'it is to be paid at once: is that so?' },
  'tax number': {
    there: 'its tax number is known',
    not: 'its tax number is missing; its bills are checked against it',
  },
  bank: { there: 'it is known where it is paid to', not: 'no account is confirmed that it is paid to' },
  papers: { there: 'its papers are in force', not: 'one of its papers has ended' },
}
/** One part of what an order needs to arrive, in words. */
export const sayReach = (r: Reach): string => REACH[r.part][r.is === 'there' ? 'there' : 'not']

/** Whether a first order is going to arrive, in a sentence. */
export function sayArrives(reach: readonly Reach[]): string {
  if (reach.some((r) => r.is === 'missing')) return 'An order would not arrive.'
  return reach.some((r) => r.is === 'look')
    ? 'An order would arrive; look at the rest.'
    : 'An order is going to arrive.'
}
