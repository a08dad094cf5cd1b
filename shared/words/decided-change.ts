import type { LineChangeReason } from '#core/requisition/decided-change'

/** Why whoever approves cannot change a line so. */
export function sayLineChangeReason(r: LineChangeReason): string {
  switch (r.code) {
    case 'nothing-changed':
      return 'Nothing is changed; approve it as it is.'
    case 'unknown-line':
      return 'A line is not there any more.'
    case 'not-allowed':
      return `${r.what}: the approval policy does not let this be changed while approving; send it back.`
    case 'not-less':
      return `${r.what}: a quantity may be lowered, not raised.`
    case 'nothing-left':
      return `${r.what}: something has to be left of it; send it back to have it taken out.`
    case 'split-by-parts':
      return `${r.what}: it is divided by amounts or quantities; send it back to have it divided anew.`
    case 'payer-not-open':
      return `${r.what}: this budget line does not pay for its department in its year.`
  }
}
