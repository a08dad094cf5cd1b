import { getResponseHeader, setHeader, setResponseStatus, type H3Event } from 'h3'
import type { Problem } from './problem'

/** Answers with problem details (RFC 9457): whatever is refused leaves Rekko in this form. */
export function replyProblem(event: H3Event, problem: Problem): string {
  setResponseStatus(event, problem.status)
  setHeader(event, 'content-type', 'application/problem+json')
  if (problem.status === 429 && getResponseHeader(event, 'retry-after') === undefined)
    setHeader(event, 'retry-after', 60)
  return JSON.stringify({
    type: `urn:rekko:${problem.type}`,
    title: problem.type.replaceAll('-', ' '),
    status: problem.status,
    detail: problem.detail,
    ...(problem.fields.length > 0 ? { fields: problem.fields } : {}),
    ...problem.more,
  })
}
