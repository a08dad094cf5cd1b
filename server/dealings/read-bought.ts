import type { Context } from '../context'
import { notFound } from '../http/problem'
import { listLastOrders, listMostBought, sumByYear } from './bought-reads'
import { findRecord } from '../supplier/record-reads'

/** What was ordered of a supplier: by year, what most, and the last orders. */
export async function readBought({ tx }: Context, id: string) {
  if ((await findRecord(tx, id)) === null) throw notFound('This supplier')
  return {
    years: await sumByYear(tx, id),
    most: await listMostBought(tx, id, 15),
    orders: await listLastOrders(tx, id, 10),
  }
}
