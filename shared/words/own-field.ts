import type { OwnField } from '#core/requisition/own-field'
import type { OwnValues } from '#core/requisition/draft'
import type { Ways } from './ways'

/** The names of what own fields refer to, by id. */
export interface OwnNames {
  readonly people: ReadonlyMap<string, string>
  readonly jobs: ReadonlyMap<string, string>
}

/** What stands in an own field, as people say it. */
export function sayOwnValue(field: OwnField, value: string, names: OwnNames, ways: Ways): string {
  switch (field.type) {
    case 'number':
      return /^-?\d/.test(value) ? ways.decimal(value) : value
    case 'date':
      return /^\d{4}-\d\d-\d\d$/.test(value) ? ways.date(value, '') : value
    case 'person':
      return names.people.get(value) ?? 'somebody who is not known'
    case 'job':
      return names.jobs.get(value) ?? 'a job that is not known'
    case 'text':
    case 'choice':
      return value
  }
}

/** The own fields in which something stands, each with its name. */
export function sayOwnValues(fields: readonly OwnField[], own: OwnValues, names: OwnNames, ways: Ways): string[] {
  return fields.flatMap((f) => {
    const value = (own[f.id] ?? '').trim()
    return value === '' ? [] : [`${f.name}: ${sayOwnValue(f, value, names, ways)}`]
  })
}
