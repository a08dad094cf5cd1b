import {
  MOST_QUOTES,
  type FormChange,
  type FormReason,
  type NewSupplierPolicy,
  type RequestForm,
} from '#core/requisition/form'
import type { OwnFieldType } from '#core/requisition/own-field'
import type { AttachmentKind, RequestRule } from '#core/requisition/rules'
import { capital, formatCount } from './format'

/** What may be done about a supplier that is not there yet, after "A supplier that is not there yet". */
export const NEW_SUPPLIER_WORDS: Record<NewSupplierPolicy, string> = {
  nobody: 'can be entered by finance only',
  propose: 'may be proposed by anybody; finance approves it before anything is ordered',
  create: 'may be entered by anybody, and ordered from at once',
}

/** The types of own fields, after "ask for". */
export const TYPE_WORDS: Record<OwnFieldType, string> = {
  text: 'a text',
  number: 'a number',
  date: 'a day',
  choice: 'a choice',
  person: 'a person',
  job: 'a job',
}

/** What kind of file is asked for, with its article. */
export const ATTACHMENT_WORDS: Record<AttachmentKind, string> = {
  quote: 'a quote',
  specification: 'a specification',
  drawing: 'a drawing',
  other: 'a file',
}

const NAMES = { kinds: 'kind', ownFields: 'own field', rules: 'rule' } as const
const A_NAME = { kinds: 'a kind', ownFields: 'an own field', rules: 'a rule' } as const

/** The sentence for something that is wrong with a form. */
export function sayFormReason(reason: FormReason, form: RequestForm): string {
  const entry = reason.at === null ? undefined : form[reason.part][reason.at]
  const called = entry?.name.trim() ?? ''
  const it = called === '' ? capital(A_NAME[reason.part]) : `“${called}”`
  switch (reason.code) {
    case 'no-kinds':
      return 'There has to be at least one kind of request.'
    case 'name-missing':
      return reason.part === 'rules'
        ? 'A rule needs a sentence that says why.'
        : `${capital(A_NAME[reason.part])} needs a name.`
    case 'name-twice':
      return `There are two of the name “${reason.name}”.`
    case 'series-unreadable':
      return `The numbers of ${it} have to begin with one to three capital letters.`
    case 'series-taken':
      return `${reason.series} begins the numbers of other documents; choose other letters for ${it}.`
    case 'choices-few':
      return `${it} needs at least two things to choose from.`
    case 'choice-comma':
      return `What is chosen from in ${it} cannot have a comma in it.`
    case 'choice-twice':
      return `${it} offers the same thing twice.`
    case 'categories-of-request':
      return `${it} is asked once for the whole request; only fields of lines go by category.`
    case 'type-unknown':
      return `${it} is of a type that Rekko does not know.`
    case 'type-changed':
      return `“${reason.name}” stands on documents as it was; take it away and define a new one instead.`
    case 'amount-not-positive':
      return `The amount of ${it} has to be above nothing; leave it out for any amount.`
    case 'amount-currency':
      return `The amount of ${it} has to be in ${reason.currency}.`
    case 'quotes-few':
      return `${it} has to ask for one to ${MOST_QUOTES} quotes.`
    case 'reading-missing':
      return `${it} does not say what has to be read.`
    case 'unknown':
      return `${it} names a ${reason.what} that is not there any more.`
  }
}

/** A difference between two forms, as a line of a list. */
export function sayChange(change: FormChange): string {
  if (change.part === 'newSuppliers') return 'New suppliers: another rule'
  if (change.what === 'moved') return `The order of ${NAMES[change.part]}s`
  const name = change.name.trim()
  const it = `${capital(NAMES[change.part])}${name === '' ? ' without a name' : ` “${name}”`}`
  return change.what === 'added' ? `${it}: new` : change.what === 'gone' ? `${it}: no longer` : `${it}: changed`
}

/** What is asked for: "two quotes", "a specification". */
export function sayAsked(asks: RequestRule['asks']): string {
  switch (asks.what) {
    case 'quotes':
      return formatCount(asks.count, 'quote', 'quotes')
    case 'attachment':
      return ATTACHMENT_WORDS[asks.kind]
    case 'justification':
      return 'a justification'
    case 'reading':
      return `reading “${asks.text}”`
  }
}

/** What a rule would have done with the requests sent last. */
export function sayReplay(
  { asked, lacking }: { readonly asked: number; readonly lacking: number },
  sent: number,
): string {
  if (sent === 0) return ''
  if (asked === 0) return `would have held for none of the ${sent} requests sent last`
  const has =
    asked === 1
      ? lacking === 0
        ? 'it has what is needed'
        : 'it lacks what is needed'
      : lacking === 0
        ? 'all have what is needed'
        : `${lacking === asked ? 'all' : lacking} ${lacking === 1 ? 'lacks' : 'lack'} what is needed`
  return `would have held for ${asked} of the ${sent} requests sent last; ${has}`
}
