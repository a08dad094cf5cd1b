import type { RequestLine } from '#shared/contract/request-view'

/** From whom a line comes, under which number, and who pays: "Corrigan Pumps · CP-QS-25 · Pumps and filters". */
export const sayLineSource = (l: Pick<RequestLine, 'supplier' | 'supplierPart' | 'paidFrom'>): string =>
  [l.supplier ?? 'buyer decides who', l.supplierPart ?? '', l.paidFrom.filter((p) => p !== '').join(', ')]
    .filter((t) => t !== '')
    .join(' · ')
