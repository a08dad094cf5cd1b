/**
 * Who may do what, by role. Everything is refused unless a row allows it. Routes, buttons and tests
 * read this one table; what a person may do with one document is decided besides by the document's
 * own tables of moves and by who owns it.
 */
export type Role = 'buyer' | 'receiver' | 'finance' | 'auditor' | 'administrator'

/** A role held for the organisation (null) or for one department. */
export interface RoleGrant {
  readonly role: Role
  readonly departmentId: string | null
}

/** `everyone` is whoever signs in: the requester, the manager and the budget holder come from there. */
export const RIGHTS = {
  raise: ['everyone'],
  'see own': ['everyone'],
  'keep own account': ['everyone'],
  decide: ['everyone'],
  'be away': ['everyone'],
  'see catalogue': ['everyone'],
  'name suppliers': ['everyone'],
  'see people': ['everyone'],
  'see budgets': ['everyone'],
  'see all documents': ['finance', 'auditor'],
  'see approved lines': ['buyer'],
  'see orders': ['buyer', 'finance', 'auditor'],
  order: ['buyer'],
  'change owners': ['buyer'],
  'approve suppliers': ['finance'],
  'see all budgets': ['finance', 'auditor'],
  'set absences of others': ['administrator'],
  'keep settings': ['administrator'],
  'keep budgets': ['finance'],
  // Which list needs which right besides stands in core/lists/definitions.ts.
  'keep lists': ['administrator', 'finance', 'buyer'],
  'keep catalogue': ['buyer', 'administrator'],
  // The second person; who may be it stands in server/lists/confirm-held.ts.
  'confirm changes': ['administrator', 'finance'],
} as const satisfies Record<string, readonly (Role | 'everyone')[]>
export type Right = keyof typeof RIGHTS

/** True when a role gives the right, anywhere: for the organisation or for a department. */
export function may(grants: readonly RoleGrant[], right: Right): boolean {
  const roles: readonly string[] = RIGHTS[right]
  return roles.includes('everyone') || grants.some((g) => roles.includes(g.role))
}

/** The departments a right is held for: 'all', or the list of them. */
export function departmentsOf(grants: readonly RoleGrant[], right: Right): 'all' | readonly string[] {
  const roles: readonly string[] = RIGHTS[right]
  if (roles.includes('everyone')) return 'all'
  const held = grants.filter((g) => roles.includes(g.role))
  return held.some((g) => g.departmentId === null) ? 'all' : held.map((g) => g.departmentId ?? '')
}
