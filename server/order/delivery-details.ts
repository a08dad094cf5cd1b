import type { DeliveryRow } from './page-reads'

/** Texts without blanks around them, each once, those that say nothing left out. */
export const distinct = (texts: readonly string[]): string[] => [
  ...new Set(texts.map((t) => t.trim()).filter((t) => t !== '')),
]

/** Room, attention, telephone and instructions of every request that is served, each once. */
export function deliveryDetails(requests: readonly DeliveryRow[]): string[] {
  return distinct(
    requests.flatMap((r) => [
      r.shipToDetail,
      r.attention === '' ? '' : `for the attention of ${r.attention}`,
      r.telephone === '' ? '' : `telephone ${r.telephone}`,
      r.instructions,
    ]),
  )
}
