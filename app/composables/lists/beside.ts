import type { ListName } from '#core/lists/list'

/** Lists that are looked at together, of which not all stand among the places of Set-up. */
const TOGETHER: readonly (readonly ListName[])[] = [
  ['people', 'roles', 'limits'],
  ['budget-lines', 'opening'],
  ['jobs', 'parts'],
]

/** The lists beside a list. */
export const besideOf = (name: ListName): readonly ListName[] =>
  TOGETHER.find((t) => t.includes(name))?.filter((n) => n !== name) ?? []
