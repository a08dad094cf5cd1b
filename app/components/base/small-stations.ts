import type { MineRow } from '#shared/contract/mine'
import type { SmallStation } from './StationRow.vue'

/** The five posts of a row of Mine, with a word each. */
export function stationsOfRow(r: MineRow): SmallStation[] {
  const draft = r.state === 'draft'
  const back = r.state === 'sent back' || r.state === 'withdrawn'
  const approved = ['approved', 'part ordered', 'ordered', 'closed'].includes(r.state)
  const stopped = r.state === 'rejected' || r.state === 'cancelled'
  const percent = Math.round(r.orderedShare * 100)
  const waiting = r.waitsFor.length > 0 ? `waits for ${r.waitsFor.join(', ')}` : 'not yet'
  return [
    {
      name: 'Need',
      look: draft || back ? 'dashed' : 'filled',
      share: 1,
      waits: r.state === 'sent back',
      word: draft ? 'draft' : back ? r.state : 'sent',
    },
    {
      name: 'Decision',
      look: r.state === 'rejected' ? 'stopped' : approved || r.decisionShare > 0 ? 'filled' : 'empty',
      share: approved ? 1 : r.decisionShare,
      waits: r.question !== null,
      word:
        r.question !== null
          ? 'a question waits for you'
          : approved
            ? 'approved'
            : r.state === 'rejected'
              ? 'rejected'
              : waiting,
    },
    {
      name: 'Order',
      look: stopped && r.state === 'cancelled' ? 'stopped' : 'filled',
      share: r.orderedShare,
      waits: false,
      word: percent > 0 ? `${percent} % ordered` : 'not yet',
    },
    { name: 'Delivery', look: 'empty', share: 0, waits: false, word: 'not yet' },
    { name: 'Bill', look: 'empty', share: 0, waits: false, word: 'not yet' },
  ]
}
