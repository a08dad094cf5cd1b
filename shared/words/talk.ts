import type { TalkWay } from '#core/order/talk'

/** How somebody was spoken with, after “spoke” or “noted”. */
export const TALK_WORDS: Readonly<Record<TalkWay, string>> = {
  telephone: 'by telephone',
  mail: 'by mail',
  'in person': 'in person',
}
