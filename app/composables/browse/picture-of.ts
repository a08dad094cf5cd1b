import type { CatalogueItem } from '#shared/contract/catalogue'

/** Where the picture lies that stands for an item; null where it has none. */
export const pictureOf = (item: Pick<CatalogueItem, 'id' | 'pictureId'>): string | null =>
  item.pictureId === null ? null : `/api/items/${item.id}/pictures/${item.pictureId}`
