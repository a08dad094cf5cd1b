/**
 * Who may do what, by role. Everything is refused unless a row allows it. Routes, buttons and tests
 * read this one table; what a person may do with one document is decided besides by the document's
 * own tables of moves and by who owns it.
 */
export const ROLES = ['buyer', 'receiver', 'finance', 'auditor', 'administrator'] as const
export type Role = (typeof ROLES)[number]

/** A role held for one department or one place, or for the organisation (both null). */
export interface RoleGrant {
  /** `bound` gives nothing: it says what is left of everything else that is held. */
  readonly role: Role | 'bound'
  readonly departmentId: string | null
  readonly placeId?: string | null
  /** Of a bound grant: the rights that are left, whatever gives them; all others are refused. */
  readonly only?: readonly Right[]
}

/** What is held, bound to some rights: a token never does more than its owner, nor more than it was given. */
export const boundTo = (grants: readonly RoleGrant[], only: readonly Right[]): RoleGrant[] => [
  ...grants,
  { role: 'bound', departmentId: null, only },
]
const isLeft = (grants: readonly RoleGrant[], right: Right) =>
  grants.every((g) => g.only === undefined || g.only.includes(right))

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
  'see ordering rules': ['administrator', 'buyer', 'finance', 'auditor'],
  'keep suppliers': ['buyer', 'finance'],
  'approve suppliers': ['finance'],
  'see all budgets': ['finance', 'auditor'],
  'set absences of others': ['administrator'],
  'keep settings': ['administrator'],
  'keep budgets': ['finance'],
  // Which list needs which right besides stands in core/lists/definitions.ts.
  'keep lists': ['administrator', 'finance', 'buyer'],
  'keep catalogue': ['buyer', 'administrator'],
  // What happened, whoever did it, signing in too; administrators see documents by another role only.
  'look back': ['auditor'],
  'see integrity': ['administrator', 'auditor'],
  // What waits anywhere, and for whom; of what one may not see besides, its number and no more.
  'see what waits': ['administrator', 'finance', 'auditor'],
  'move what waits': ['administrator'],
  'see policy': ['administrator', 'finance', 'auditor'],
  // The second person; who may be it stands in server/people/second-person.ts.
  'confirm changes': ['administrator', 'finance'],
} as const satisfies Record<string, readonly (Role | 'everyone')[]>
export type Right = keyof typeof RIGHTS

/** What no token is ever given: one's own account, and being the second person. */
const NEVER_BY_TOKEN: readonly Right[] = ['keep own account', 'confirm changes']
/** What somebody may give a token. */
export const TOKEN_RIGHTS = (Object.keys(RIGHTS) as Right[]).filter((r) => !NEVER_BY_TOKEN.includes(r))
/** What is left of somebody's rights until they have the second factor that is asked of them. */
export const WITHOUT_FACTOR: readonly Right[] = ['keep own account', 'see own']

/** True when a role gives the right, anywhere: for the organisation or for a department. */
export function may(grants: readonly RoleGrant[], right: Right): boolean {
  if (!isLeft(grants, right)) return false
  const roles: readonly string[] = RIGHTS[right]
  return roles.includes('everyone') || grants.some((g) => roles.includes(g.role))
}

/** The roles that may be held for a department or a place alone; the others see all that there is. */
export const ROLES_BY_PART = ['buyer', 'receiver'] as const satisfies readonly Role[]

/** The part of the organisation a right is held for: all, or what is of these departments or goes to these places. */
export type Part = 'all' | { readonly departments: readonly string[]; readonly places: readonly string[] }

export function partOf(grants: readonly RoleGrant[], right: Right): Part {
  if (!isLeft(grants, right)) return { departments: [], places: [] }
  const roles: readonly string[] = RIGHTS[right]
  if (roles.includes('everyone')) return 'all'
  const held = grants.filter((g) => roles.includes(g.role))
  if (held.some((g) => g.departmentId === null && (g.placeId ?? null) === null)) return 'all'
  return { departments: held.flatMap((g) => g.departmentId ?? []), places: held.flatMap((g) => g.placeId ?? []) }
}

/** Whether a part holds what is of a department and goes to a place. */
export const isInPart = (part: Part, of: { readonly departmentId: string | null; readonly shipToId: string | null }) =>
  part === 'all' || part.departments.includes(of.departmentId ?? '') || part.places.includes(of.shipToId ?? '')
