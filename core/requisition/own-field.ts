import { isDecimalText } from '#core/base/decimal'
import { isDay } from '#core/base/day'
import { isId } from '#core/base/id'
import type { OwnValues } from './draft'

/** An extra field that an administrator defined for requisitions or their lines. */
export interface OwnField {
  readonly id: string
  readonly name: string
  readonly help: string
  readonly on: 'requisition' | 'line'
  readonly type: OwnFieldType
  readonly required: boolean
  /** Where it is asked for; an empty list is everywhere. */
  readonly kinds: readonly string[]
  readonly departmentIds: readonly string[]
  readonly categoryIds: readonly string[]
  /** What a choice chooses from. */
  readonly choices: readonly string[]
}

/** What an own field may refer to. */
interface OwnFieldFacts {
  readonly jobs: ReadonlyMap<string, unknown>
}

/** Every type of own field: whether a value (never empty) can be one. A new type begins with a line here. */
export const OWN_FIELD_TYPES = {
  text: (value) => value.length <= 1000,
  number: (value) => isDecimalText(value) && value.length <= 30,
  date: (value) => isDay(value),
  choice: (value, field) => field.choices.includes(value),
  person: (value) => isId(value),
  job: (value, _field, facts) => facts.jobs.has(value),
} as const satisfies Record<string, (value: string, field: OwnField, facts: OwnFieldFacts) => boolean>

export type OwnFieldType = keyof typeof OWN_FIELD_TYPES

/** Whether a field is asked for on a document, or a line of a category on it. */
export function isAsked(
  field: OwnField,
  on: { readonly kind: string; readonly departmentId: string | null; readonly categoryId: string | null },
): boolean {
  const fits = (list: readonly string[], value: string | null) =>
    list.length === 0 || (value !== null && list.includes(value))
  return (
    fits(field.kinds, on.kind) &&
    fits(field.departmentIds, on.departmentId) &&
    (field.on === 'requisition' || fits(field.categoryIds, on.categoryId))
  )
}

interface WrongField {
  readonly field: OwnField
  readonly wrong: 'missing' | 'unreadable'
}

/** What is wrong with the values of the fields that are asked for; those of other fields are let be. */
export function checkOwnFields(fields: readonly OwnField[], values: OwnValues, facts: OwnFieldFacts): WrongField[] {
  return fields.flatMap((field): WrongField[] => {
    const value = (values[field.id] ?? '').trim()
    if (value === '') return field.required ? [{ field, wrong: 'missing' }] : []
    const fits: (value: string, field: OwnField, facts: OwnFieldFacts) => boolean = OWN_FIELD_TYPES[field.type]
    return fits(value, field, facts) ? [] : [{ field, wrong: 'unreadable' }]
  })
}
