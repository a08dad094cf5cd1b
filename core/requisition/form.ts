import { entryChanges, mergeEntries } from '#core/base/entries'
import { compare, zero } from '#core/base/money'
import { OWN_FIELD_TYPES, type OwnField } from './own-field'
import type { RequestKind, RequestRule } from './rules'

/** Whether somebody who raises may name a supplier that is not there yet. */
export const NEW_SUPPLIER_POLICIES = ['nobody', 'propose', 'create'] as const
export type NewSupplierPolicy = (typeof NEW_SUPPLIER_POLICIES)[number]

/** All that an administrator sets about how requisitions are written; it is kept as a whole. */
export interface RequestForm {
  readonly newSuppliers: NewSupplierPolicy
  /** In the order in which they are offered; the first is what a new request begins with. */
  readonly kinds: readonly RequestKind[]
  readonly ownFields: readonly OwnField[]
  readonly rules: readonly RequestRule[]
}

export type FormPart = 'kinds' | 'ownFields' | 'rules'

/** What is wrong with a form: in which part, at which entry (null: the whole part). */
export type FormReason = { readonly part: FormPart; readonly at: number | null } & (
  | {
      readonly code:
        | 'no-kinds'
        | 'name-missing'
        | 'series-unreadable'
        | 'choices-few'
        | 'choice-comma'
        | 'choice-twice'
        | 'categories-of-request'
        | 'amount-not-positive'
        | 'quotes-few'
        | 'reading-missing'
        | 'type-unknown'
    }
  | { readonly code: 'name-twice'; readonly name: string }
  | { readonly code: 'series-taken'; readonly series: string }
  | { readonly code: 'type-changed'; readonly name: string }
  | { readonly code: 'amount-currency'; readonly currency: string }
  | { readonly code: 'unknown'; readonly what: 'kind' | 'department' | 'category' }
)

/** What a form is checked against. */
export interface FormFacts {
  readonly baseCurrency: string
  readonly departmentIds: ReadonlySet<string>
  readonly categoryIds: ReadonlySet<string>
  /** Every own field that was ever defined: what was written into them stands on documents. */
  readonly everFields: ReadonlyMap<string, Pick<OwnField, 'on' | 'type' | 'name'>>
}

/** The series of other documents. */
const TAKEN_SERIES = ['A', 'P', 'SUP']
/** The most quotes a rule may ask for. */
export const MOST_QUOTES = 9

/** Everything that is wrong with a form, not only the first thing; nothing when it may be kept. */
export function checkForm(form: RequestForm, facts: FormFacts): FormReason[] {
  return [...checkKinds(form), ...checkFields(form, facts), ...checkRules(form, facts)]
}

function checkKinds(form: RequestForm): FormReason[] {
  if (form.kinds.length === 0) return [{ part: 'kinds', at: null, code: 'no-kinds' }]
  return form.kinds.flatMap((kind, at): FormReason[] => {
    const here = { part: 'kinds', at } as const
    return [
      ...checkName(
        here,
        kind.name,
        form.kinds.slice(0, at).map((k) => k.name),
      ),
      ...(!/^[A-Z]{1,3}$/.test(kind.series)
        ? [{ ...here, code: 'series-unreadable' } as const]
        : TAKEN_SERIES.includes(kind.series)
          ? [{ ...here, code: 'series-taken', series: kind.series } as const]
          : []),
    ]
  })
}

function checkFields(form: RequestForm, facts: FormFacts): FormReason[] {
  return form.ownFields.flatMap((field, at): FormReason[] => {
    const here = { part: 'ownFields', at } as const
    const reasons = checkName(
      here,
      field.name,
      form.ownFields
        .slice(0, at)
        .filter((f) => f.on === field.on)
        .map((f) => f.name),
    )
    const ever = facts.everFields.get(field.id)
    if (!(field.type in OWN_FIELD_TYPES)) reasons.push({ ...here, code: 'type-unknown' })
    else if (ever !== undefined && (ever.on !== field.on || ever.type !== field.type))
      reasons.push({ ...here, code: 'type-changed', name: ever.name })
    if (field.type === 'choice') {
      const choices = field.choices.map((c) => c.trim())
      if (choices.filter((c) => c !== '').length < 2) reasons.push({ ...here, code: 'choices-few' })
      if (choices.some((c) => c.includes(','))) reasons.push({ ...here, code: 'choice-comma' })
      if (new Set(choices).size < choices.length) reasons.push({ ...here, code: 'choice-twice' })
    }
    if (field.on === 'requisition' && field.categoryIds.length > 0)
      reasons.push({ ...here, code: 'categories-of-request' })
    return [...reasons, ...checkNamed(here, field, form, facts)]
  })
}

function checkRules(form: RequestForm, facts: FormFacts): FormReason[] {
  return form.rules.flatMap((rule, at): FormReason[] => {
    const here = { part: 'rules', at } as const
    const { from } = rule.when
    // Two rules may be explained by the same sentence; each has to have one.
    const reasons = checkName(here, rule.name, [])
    if (from !== null && from.currency !== facts.baseCurrency)
      reasons.push({ ...here, code: 'amount-currency', currency: facts.baseCurrency })
    else if (from !== null && compare(from, zero(from.currency)) <= 0)
      reasons.push({ ...here, code: 'amount-not-positive' })
    if (
      rule.asks.what === 'quotes' &&
      !(Number.isInteger(rule.asks.count) && rule.asks.count >= 1 && rule.asks.count <= MOST_QUOTES)
    )
      reasons.push({ ...here, code: 'quotes-few' })
    if (rule.asks.what === 'reading' && rule.asks.text.trim() === '') reasons.push({ ...here, code: 'reading-missing' })
    return [...reasons, ...checkNamed(here, rule.when, form, facts)]
  })
}

type Here = { readonly part: FormPart; readonly at: number }

function checkName(here: Here, name: string, before: readonly string[]): FormReason[] {
  const said = name.trim().toLowerCase()
  if (said === '') return [{ ...here, code: 'name-missing' }]
  return before.some((b) => b.trim().toLowerCase() === said) ? [{ ...here, code: 'name-twice', name: name.trim() }] : []
}

function checkNamed(
  here: Here,
  named: Pick<OwnField, 'kinds' | 'departmentIds' | 'categoryIds'>,
  form: RequestForm,
  facts: FormFacts,
): FormReason[] {
  const kinds = new Set(form.kinds.map((k) => k.code))
  const unknown = (
    what: 'kind' | 'department' | 'category',
    ids: readonly string[],
    known: ReadonlySet<string>,
  ): FormReason[] => (ids.every((id) => known.has(id)) ? [] : [{ ...here, code: 'unknown', what }])
  return [
    ...unknown('kind', named.kinds, kinds),
    ...unknown('department', named.departmentIds, facts.departmentIds),
    ...unknown('category', named.categoryIds, facts.categoryIds),
  ]
}

/**
 * A form without one of its kinds, fields or rules. What named only the kind that went goes with it: it
 * would else be asked for everywhere, as an empty list is all.
 */
export function without(form: RequestForm, part: FormPart, at: number): RequestForm {
  const left = <T>(list: readonly T[]) => list.filter((_, i) => i !== at)
  if (part === 'ownFields') return { ...form, ownFields: left(form.ownFields) }
  if (part === 'rules') return { ...form, rules: left(form.rules) }
  const code = form.kinds[at]?.code
  const kept = (kinds: readonly string[]) => kinds.filter((k) => k !== code)
  const goes = (kinds: readonly string[]) => kinds.length > 0 && kept(kinds).length === 0
  return {
    ...form,
    kinds: left(form.kinds),
    ownFields: form.ownFields.flatMap((f) => (goes(f.kinds) ? [] : [{ ...f, kinds: kept(f.kinds) }])),
    rules: form.rules.flatMap((r) =>
      goes(r.when.kinds) ? [] : [{ ...r, when: { ...r.when, kinds: kept(r.when.kinds) } }],
    ),
  }
}

/** One difference between two forms; `moved` is of a whole part whose order is another. */
export type FormChange =
  | { readonly part: FormPart; readonly what: 'added' | 'changed' | 'gone'; readonly name: string }
  | { readonly part: FormPart; readonly what: 'moved' }
  | { readonly part: 'newSuppliers'; readonly what: 'changed' }

type Entry = RequestKind | OwnField | RequestRule
const idOf = (entry: Entry) => ('code' in entry ? entry.code : entry.id)
const FORM_PARTS = ['kinds', 'ownFields', 'rules'] as const satisfies readonly FormPart[]

/** Every difference between what holds and what is to hold, in the order of the parts. */
export function changesOf(before: RequestForm, after: RequestForm): FormChange[] {
  return [
    ...(before.newSuppliers === after.newSuppliers ? [] : [{ part: 'newSuppliers', what: 'changed' } as const]),
    ...FORM_PARTS.flatMap((part) =>
      entryChanges<Entry>(before[part], after[part], idOf).map((c): FormChange =>
        c.what === 'moved' ? { part, what: c.what } : { part, what: c.what, name: c.entry.name },
      ),
    ),
  ]
}

/**
 * What somebody wrote over one version of a form, carried over to a newer one: their changes, additions
 * and removals on top of what others changed meanwhile, in the newer one's order. Of an entry that both
 * changed, what they wrote stands: it is put in force last.
 */
export function mergeForm(base: RequestForm, mine: RequestForm, newest: RequestForm): RequestForm {
  return {
    newSuppliers: mine.newSuppliers === base.newSuppliers ? newest.newSuppliers : mine.newSuppliers,
    kinds: mergeEntries(base.kinds, mine.kinds, newest.kinds, idOf),
    ownFields: mergeEntries(base.ownFields, mine.ownFields, newest.ownFields, idOf),
    rules: mergeEntries(base.rules, mine.rules, newest.rules, idOf),
  }
}
