/** How a buyer and a supplier spoke about an order, besides its papers and answers. */
export const TALK_WAYS = ['telephone', 'mail', 'in person'] as const
export type TalkWay = (typeof TALK_WAYS)[number]

/** The longest name of whom it was with, and the longest text. */
export const LONGEST_TALKER = 120
export const LONGEST_TALK = 1000
