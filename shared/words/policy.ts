import type { Example, Finding } from '#core/approval/findings'
import type { Condition, Policy, PolicyStep, Rule, RuleDocuments, Subject, SupplierSort } from '#core/approval/policy'
import { capital, formatCount, listWords } from './format'
import type { Ways } from './ways'

/** How what a policy names is called. */
export interface PolicyNames {
  readonly person: (id: string) => string
  readonly department: (id: string) => string
  readonly category: (id: string) => string
  readonly account: (code: string) => string
  readonly kind: (code: string) => string
  readonly field: (id: string) => string
}

/** How suppliers stand, after “Requests”. */
export const SUPPLIER_SORT_WORDS: Record<SupplierSort, string> = {
  undecided: 'with a supplier left to the buyers',
  proposed: 'to a supplier that is not approved yet',
  known: 'to a supplier that is ordered from',
}

/** A condition, said after “Requests”. */
function sayCondition(c: Condition, names: PolicyNames, ways: Ways): string {
  const some = (ids: readonly string[], nameOf: (id: string) => string) => listWords(ids.map(nameOf), 'or')
  switch (c.on) {
    case 'amount': {
      const from = c.from === undefined ? '' : `from ${ways.amount(c.from)}`
      const below = c.below === undefined ? '' : `below ${ways.amount(c.below)}`
      return [from, below].filter((t) => t !== '').join(' and ')
    }
    case 'department':
      return `of ${some(c.ids, names.department)}${c.branch ? ', or what is part of it,' : ''}`
    case 'category':
      return `with something of ${some(c.ids, names.category)}`
    case 'account':
      return `paid from ${some(c.codes, names.account)}`
    case 'project':
      return `paid from project ${listWords(c.codes, 'or')}`
    case 'supplier':
      return `${listWords(
        c.sorts.map((s) => SUPPLIER_SORT_WORDS[s]),
        'or',
      )}`
    case 'currency':
      return `priced in ${listWords(c.codes, 'or')}`
    case 'agreement':
      return c.is ? 'with something that an agreement covers' : 'with something that no agreement covers'
    case 'own field':
      return `whose ${names.field(c.fieldId)} is ${listWords(c.values, 'or')}`
    case 'kind':
      return `for ${some(c.kinds, names.kind)}`
    case 'over budget':
      return c.is ? 'that pass a budget' : 'inside every budget'
    case 'owner':
      return `of ${some(c.ids, names.person)}`
  }
}

function sayStep({ who, mustCover }: PolicyStep, names: PolicyNames): string {
  const covering = mustCover ? ', whoever’s limit covers it' : ''
  switch (who.by) {
    case 'person':
      return `to ${names.person(who.personId)}${covering}`
    case 'role':
      return (
        `to any one ${who.role}${who.departmentId === null ? '' : ` of ${names.department(who.departmentId)}`}` +
        covering
      )
    case 'budget holders':
      return `to the holder of each budget line${covering}`
    case 'group':
      return `to ${who.mode === 'all' ? 'all' : 'any one'} of ${who.name}${covering}`
    case 'chain':
      return who.until === 'covered'
        ? 'up the chain of managers, to the first whose limit covers it'
        : 'up the chain of managers, to the top'
  }
}

/** What the documents of a rule are called. */
const RULE_DOCUMENT_WORDS: Record<RuleDocuments, { readonly one: string; readonly many: string }> = {
  requests: { one: 'request', many: 'requests' },
  orders: { one: 'order', many: 'orders' },
  both: { one: 'request and order', many: 'requests and orders' },
}

/** What a rule does, derived from what it is and not from what it is called. */
export function sayRule(rule: Rule, names: PolicyNames, ways: Ways): string {
  const which = rule.conditions.map((c) => sayCondition(c, names, ways)).join(' ')
  const { one: single, many } = RULE_DOCUMENT_WORDS[rule.documents ?? 'requests']
  const subject = which === '' ? `Every ${single}` : capital(`${many} ${which}`)
  const one = which === ''
  const parts = [
    ...(rule.steps.length === 0
      ? []
      : [`${one ? 'goes' : 'go'} ${listWords(rule.steps.map((s) => sayStep(s, names)))}`]),
    ...(rule.sparesManagers
      ? [`${one ? 'spares' : 'spare'} the managers where the own limit of whoever raises covers it`]
      : []),
  ]
  return `${subject} ${parts.length === 0 ? `${one ? 'adds' : 'add'} nobody` : listWords(parts)}.`
}

/** What becomes of what no rule fits, and who decides in the end. */
export function sayEnding(policy: Pick<Policy, 'ending' | 'fallbackId'>, names: PolicyNames): string {
  const last = policy.fallbackId === null ? null : names.person(policy.fallbackId)
  const unfit =
    policy.ending === 'passes'
      ? 'What no rule fits passes, and nobody is asked'
      : last === null
        ? 'What no rule fits is held, since nobody decides in the end'
        : `What no rule fits goes to ${last}`
  const rest =
    last === null || policy.ending === 'fallback'
      ? ''
      : `; where a step comes to nobody, or no rule fits an order, ${last} decides`
  return `${unfit}${rest}.`
}

/** Where a finding holds: “from 100.01”, “from 50.00 and below 80.00”; "" where it holds whatever the amount. */
function sayStretch(example: Example, ways: Ways): string {
  const from = /[1-9]/.test(example.from.amount) ? `from ${ways.amount(example.from)}` : ''
  const below = example.below === null ? '' : `below ${ways.amount(example.below)}`
  return [from, below].filter((t) => t !== '').join(' and ')
}

/** What was found, as a sentence. */
export function sayFinding(f: Finding, policy: Policy, names: PolicyNames, ways: Ways): string {
  const last = policy.fallbackId === null ? 'nobody' : names.person(policy.fallbackId)
  const isOrder = 'example' in f && f.document === 'order'
  const where = [isOrder ? 'an order' : '', 'example' in f ? sayStretch(f.example, ways) : '']
    .filter((t) => t !== '')
    .join(' ')
  const at = where === '' ? '' : `${where}: `
  switch (f.code) {
    case 'held': {
      const why =
        f.because === 'no-fallback'
          ? 'nobody decides in the end'
          : f.because === 'fallback-barred'
            ? `${last}, who decides in the end, may not decide on their own`
            : `${last}, who decides in the end, is away or gone`
      return capital(`${at}it is held, because nobody is found who may decide and ${why}.`)
    }
    case 'falls-to-fallback':
      return capital(
        f.cause === 'nobody covers'
          ? `${at}nobody who is asked has a limit that covers it, and ${last} decides.`
          : `${at}nobody is there to be asked, and ${last} decides.`,
      )
    case 'no-rule-fits':
      return capital(
        f.ending === 'passes'
          ? `${at}no rule fits, and it passes with nobody asked.`
          : `${at}no rule fits, and ${last} decides.`,
      )
    case 'own':
      return sayOwn([f], names)
    case 'never-fits':
      return 'No document can meet all of this.'
    case 'circle':
      return `${listWords(f.personIds.map(names.person))} stand above each other in a circle.`
    case 'limit-of-leaver':
      return `${names.person(f.personId)} has left and still has a limit.`
  }
}

/** Whom a step would ask of their own, together: they are left out of it. */
export function sayOwn(own: readonly Extract<Finding, { code: 'own' }>[], names: PolicyNames): string {
  const who = [...new Set(own.map((f) => names.person(f.personId)))]
  return `${listWords(who)} would decide on their own, and ${who.length === 1 ? 'is' : 'are'} left out of that.`
}

/** The document that proves a finding, and how many may raise such a one. */
export function sayExample(f: Finding, names: PolicyNames, ways: Ways): string {
  if (!('example' in f)) return ''
  const { subject } = f.example
  const paid = [...new Set(subject.codings.map((c) => c.account))].map(names.account)
  const projects = [...new Set(subject.codings.flatMap((c) => c.project ?? []))]
  const of = [...new Set(subject.codings.flatMap((c) => c.category ?? []))].map(names.category)
  return (
    `For example ${sayWhose(subject, names)}` +
    `${sayWorth(f.example, ways)}${paid.length === 0 ? '' : `, paid from ${listWords(paid)}`}` +
    `${projects.length === 0 ? '' : `, project ${listWords(projects)}`}` +
    `${of.length === 0 ? '' : `, with something of ${listWords(of)}`}` +
    `${subject.codings.some((c) => c.hasAgreement) ? ', under an agreement' : ''}` +
    `${subject.overBudget ? ', past a budget' : ''}` +
    `. ${capital(formatCount(f.people, 'person', 'people'))} may ${
      subject.document === 'order' ? 'have' : 'raise'
    } one like it.`
  )
}

const sayWhose = ({ document, ownerId, departmentId }: Subject, names: PolicyNames): string =>
  document === 'order'
    ? `an order of ${names.person(ownerId)}`
    : `a request of ${names.person(ownerId)} for ${names.department(departmentId)}`

/** What the example is worth: the lowest amount that proves it, where one is needed. */
function sayWorth({ from, below }: Example, ways: Ways): string {
  if (/[1-9]/.test(from.amount)) return ` over ${ways.money(from)}`
  return below === null ? ', whatever it costs' : ` below ${ways.money(below)}`
}
