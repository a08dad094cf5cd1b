import { requisitionRoutes } from '#shared/contract/requisition'
import { waysOf } from '#shared/words/ways'
import { inWorkshop } from '../files/workshop'
import { route } from '../http/route'
import { requireOrganisation } from '../settings/reads'

export default route(
  requisitionRoutes.readLineFile,
  async ({ ctx, bytes }) => {
    const { baseCurrency: base } = await requireOrganisation(ctx.tx)
    const { rows, notes } = await inWorkshop('read-sheet', bytes, { base, mark: waysOf(ctx.actor.locale).decimalMark })
    return { rows: rows.map((r) => [...r]), notes: [...notes] }
  },
  { changesNothing: true },
)
