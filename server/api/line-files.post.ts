import { requisitionRoutes } from '#shared/contract/requisition'
import { inWorkshop } from '../files/workshop'
import { route } from '../http/route'

export default route(
  requisitionRoutes.readLineFile,
  async ({ bytes }) => {
    const { rows, notes } = await inWorkshop('read-sheet', bytes)
    return { rows: rows.map((r) => [...r]), notes: [...notes] }
  },
  { changesNothing: true },
)
