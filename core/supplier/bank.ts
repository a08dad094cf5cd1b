import { electronicFormatIBAN, isValidBIC, isValidIBAN } from 'ibantools'

/** Where a supplier is paid to: whose account, its number (an IBAN, or as its country writes it), and its bank. */
export interface BankDetails {
  readonly holder: string
  readonly number: string
  /** The BIC (ISO 9362) or the bank's own code; "" where the IBAN says it. */
  readonly bank: string
}
export type BankTrouble = 'holder-missing' | 'number-missing' | 'iban-wrong' | 'bic-wrong' | 'bank-missing'

const plain = (text: string) => text.toUpperCase().replace(/[^A-Z0-9]/g, '')
/** Two letters and two digits begin an IBAN (ISO 13616); account numbers of their own kind begin otherwise. */
const isIban = (number: string) => /^[A-Z]{2}\d{2}/.test(number)

/** Bank details in their plain form: an IBAN in capitals without blanks. */
export function plainBank(d: BankDetails): BankDetails {
  const number = plain(d.number)
  return {
    holder: d.holder.trim(),
    number: isIban(number) ? (electronicFormatIBAN(number) ?? number) : d.number.trim(),
    bank: plain(d.bank),
  }
}

/**
 * What is wrong with bank details: an IBAN by its check digits and its country's form (ISO 13616), a BIC by its form
 * (ISO 9362). An account number that is no IBAN is not checked, but needs its bank.
 */
export function checkBank(details: BankDetails): BankTrouble[] {
  const d = plainBank(details)
  const iban = isIban(d.number)
  const wrong: BankTrouble[] = []
  if (d.holder === '') wrong.push('holder-missing')
  if (d.number === '') wrong.push('number-missing')
  else if (iban && !isValidIBAN(d.number)) wrong.push('iban-wrong')
  if (!iban && d.number !== '' && d.bank === '') wrong.push('bank-missing')
  if (iban && d.bank !== '' && !isValidBIC(d.bank)) wrong.push('bic-wrong')
  return wrong
}

/** The number as people read it: an IBAN in groups of four. */
export const sayBankNumber = (number: string): string =>
  isIban(number) ? (number.match(/.{1,4}/g)?.join(' ') ?? number) : number

/** The days in which the address of before is told of a new account as well as the one of now; ours. */
const OLD_ADDRESS_DAYS = 90

/**
 * Who at the supplier hears that its account is to change: the address of now, and the one of before where it was
 * changed lately, since whoever wants money sent elsewhere changes the address first.
 */
export function addressesToTell(
  known: { readonly email: string | null; readonly emailBefore: string | null; readonly emailChangedAt: Date | null },
  now: Date,
): string[] {
  const isLate =
    known.emailChangedAt !== null && now.getTime() - known.emailChangedAt.getTime() <= OLD_ADDRESS_DAYS * 86_400_000
  return [...new Set([isLate ? known.emailBefore : null, known.email].flatMap((a) => (a === null ? [] : [a])))]
}
