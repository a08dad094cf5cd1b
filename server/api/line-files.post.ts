import { requisitionRoutes } from '#shared/contract/requisition'
import { readSheet } from '../files/read-sheet'
import { route } from '../http/route'

export default route(requisitionRoutes.readLineFile, async ({ bytes }) => {
  const { rows, notes } = await readSheet(bytes)
  return { rows: rows.map((r) => [...r]), notes: [...notes] }
})
