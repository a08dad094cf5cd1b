/** The states of a requisition. */
export const REQUISITION_STATES = [
  'draft',
  'in approval',
  'approved',
  'part ordered',
  'ordered',
  'closed',
  'sent back',
  'rejected',
  'withdrawn',
  'cancelled',
] as const
export type RequisitionState = (typeof REQUISITION_STATES)[number]

/** Who may make a move, seen from the document. */
export type MoveBy = 'owner' | 'step holder' | 'buyer' | 'owner or buyer' | 'owner or asked'

export interface RequisitionMove {
  readonly from: readonly RequisitionState[]
  readonly by: MoveBy
  /** Where it leads; null where other facts decide (the route, the quantities). */
  readonly to: RequisitionState | null
}

/** All that may happen to a requisition: routes, buttons and tests read this one table. */
export const REQUISITION_MOVES = {
  edit: { from: ['draft', 'sent back', 'withdrawn'], by: 'owner', to: null },
  throwAway: { from: ['draft'], by: 'owner', to: null },
  send: { from: ['draft', 'sent back', 'withdrawn'], by: 'owner', to: null },
  approve: { from: ['in approval'], by: 'step holder', to: null },
  ask: { from: ['in approval'], by: 'step holder', to: 'in approval' },
  handOn: { from: ['in approval'], by: 'step holder', to: 'in approval' },
  sendBack: { from: ['in approval'], by: 'step holder', to: 'sent back' },
  reject: { from: ['in approval'], by: 'step holder', to: 'rejected' },
  /** What whoever decides asked, or once it is approved a buyer about a line. */
  answer: { from: ['in approval', 'approved', 'part ordered'], by: 'owner or asked', to: null },
  withdraw: { from: ['in approval'], by: 'owner', to: 'withdrawn' },
  order: { from: ['approved', 'part ordered'], by: 'buyer', to: null },
  cancelRest: { from: ['approved', 'part ordered', 'sent back', 'withdrawn'], by: 'owner', to: null },
  remind: { from: ['in approval', 'approved', 'part ordered'], by: 'owner', to: null },
  wish: { from: ['approved', 'part ordered', 'ordered'], by: 'owner', to: null },
  handOver: {
    from: ['draft', 'in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn'],
    by: 'owner or buyer',
    to: null,
  },
} as const satisfies Record<string, RequisitionMove>
export type RequisitionMoveName = keyof typeof REQUISITION_MOVES

export type MoveReason =
  | {
      readonly code: 'wrong-state'
      readonly stops: true
      readonly state: RequisitionState
      readonly move: RequisitionMoveName
    }
  | { readonly code: 'not-yours'; readonly stops: true; readonly by: MoveBy }

/** True for whoever acts as its owner: the owner, and while it is a draft also whoever raises it for them. */
export function actsAsOwner(
  requisition: { readonly state: RequisitionState; readonly ownerId: string; readonly raisedById: string },
  personId: string,
): boolean {
  return requisition.ownerId === personId || (requisition.state === 'draft' && requisition.raisedById === personId)
}

/** Says what stands in the way of a move; empty when nothing does. */
export function checkMove(
  move: RequisitionMoveName,
  requisition: { readonly state: RequisitionState },
  actor: {
    readonly isOwner: boolean
    readonly isStepHolder: boolean
    readonly isBuyer: boolean
    /** Somebody wants an answer from them. */
    readonly isAsked?: boolean
  },
): MoveReason[] {
  const row: RequisitionMove = REQUISITION_MOVES[move]
  const reasons: MoveReason[] = []
  const allowed = {
    owner: actor.isOwner,
    buyer: actor.isBuyer,
    'step holder': actor.isStepHolder,
    'owner or buyer': actor.isOwner || actor.isBuyer,
    'owner or asked': actor.isOwner || actor.isAsked === true,
  }[row.by]
  if (!allowed) reasons.push({ code: 'not-yours', stops: true, by: row.by })
  if (!row.from.includes(requisition.state))
    reasons.push({ code: 'wrong-state', stops: true, state: requisition.state, move })
  return reasons
}
