import { codedLine } from '#core/requisition/compute'
import type { Draft } from '#core/requisition/draft'
import type { DraftFacts } from '#core/requisition/draft-facts'
import type { Context } from '../context'
import { freezeLines } from './store'

/** Freezes on the lines of a draft that leaves its author what each is worth by: rates, tax, reclaimable shares. */
export async function freezeDraft({ tx }: Context, id: string, draft: Draft, facts: DraftFacts): Promise<void> {
  const frozen = draft.lines.flatMap((line) => {
    const coded = codedLine(line, facts)
    return coded === null
      ? []
      : [
          {
            id: line.id,
            perBase: coded.perBase,
            taxRate: coded.taxRate,
            reclaimables: coded.codings.map((c) => c.reclaimable),
          },
        ]
  })
  await freezeLines(tx, id, frozen)
}
