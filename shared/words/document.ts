import type { RemarkView } from '#shared/contract/document'

/** What was said about a document, as its reader sees it. */
export function sayRemark(r: Pick<RemarkView, 'kind' | 'text'>): string {
  switch (r.kind) {
    case 'change wished':
      return `Please change it: ${r.text}`
    case 'cancellation wished':
      return `Please cancel it: ${r.text}`
    default:
      return r.text
  }
}
