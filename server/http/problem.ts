/** Where in a request something is wrong, and what. */
export interface ProblemField {
  readonly field: string
  readonly message: string
}

/**
 * A refusal that a person can act on; it leaves the API as RFC 9457 problem details. `type` is stable,
 * `detail` is the sentence. The cause, if any, is logged and never sent.
 */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly detail: string,
    readonly fields: readonly ProblemField[] = [],
    options?: { cause?: unknown; readonly more?: Readonly<Record<string, unknown>> },
  ) {
    super(detail, options?.cause === undefined ? undefined : { cause: options.cause })
    this.more = options?.more ?? {}
  }

  readonly more: Readonly<Record<string, unknown>>
}

export const notFound = (what = 'This') =>
  new Problem(404, 'not-found', `${what} does not exist, or is not for you to see.`)
export const stale = (changed: string) =>
  new Problem(412, 'stale', `Somebody changed this meanwhile: ${changed}. Look at it again before you go on.`)
export const refused = (sentences: readonly string[], more: Record<string, unknown> = {}, type = 'refused') =>
  new Problem(409, type, sentences.join(' '), [], { more })
export const forbidden = (detail: string) => new Problem(403, 'forbidden', detail)
export const invalid = (detail: string, fields: readonly ProblemField[] = []) =>
  new Problem(422, 'invalid', detail, fields)
export const notSetUp = () =>
  new Problem(503, 'not-set-up', 'No organisation is set up yet: open the address that the start of Rekko printed.')
