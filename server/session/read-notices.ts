import type { Notice } from '#shared/contract/session'
import { sayTold } from '#shared/words/told'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { KINDS } from '../kinds'
import { listNotices } from '../people/notice-reads'

/** The pages of what is told and is no document. */
const OTHER_PAGES: Readonly<Record<string, (id: string) => string>> = {
  supplier: (id) => `/suppliers/${id}`,
  agreement: (id) => `/agreements/${id}`,
  session: () => '/account',
}

/** What a person was told, newest first, worded in their ways, each with the page of what it is about. */
export async function readNotices({ tx, actor }: Context): Promise<{ notices: Notice[] }> {
  const found = await listNotices(tx, actor.id)
  return {
    notices: found.map(({ told, aboutKind, aboutId, ...n }) => ({
      ...n,
      sentence: sayTold(told, waysOf(actor.locale)).sentence,
      link: KINDS[aboutKind]?.path(aboutId) ?? OTHER_PAGES[aboutKind]?.(aboutId) ?? null,
    })),
  }
}
