/**
 * What whoever is asked has somebody else do: decide in their place, before them, or as well as them. Passing on is
 * the only one that takes the decision from them.
 */
export const HANDED_HOW = ['on', 'first', 'as well'] as const
export type HandedHow = (typeof HANDED_HOW)[number]

/** One such wish, which holds for the sending of a document that it was made on. */
export interface Handing {
  /** `skip`: whoever kept an eye on what waits gave the place to whoever decides in the end, who needs no limit. */
  readonly how: HandedHow | 'skip'
  /** Whose place it is: of whoever acts, or of whom they stand in for. */
  readonly byId: string
  readonly toId: string
}

/**
 * Who has the place of a person after it was passed on, perhaps by several, one after the other. `handed` are in the
 * order in which they were made: whoever passes it back has it no more.
 */
export function inHandsOf(personId: string, handed: readonly Handing[]): InHands {
  let holder = personId
  let isSkipped = false
  for (const h of handed)
    if ((h.how === 'on' || h.how === 'skip') && h.byId === holder) {
      holder = h.toId
      isSkipped = h.how === 'skip'
    }
  return { holder, isSkipped }
}

export interface InHands {
  readonly holder: string
  readonly isSkipped: boolean
}
