import type { AnyRoute, Input, Reply, RouteAt } from '#shared/contract/all-routes'
import { useExpired } from './use-expired'

/** A refusal of the API, as its problem details say it. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    readonly detail: string,
    readonly fields: readonly { field: string; message: string }[] = [],
  ) {
    super(detail)
  }
}

type Method = AnyRoute['method']
type PathOf<M extends Method> = Extract<AnyRoute, { method: M }>['path']

/** What a call has to bring, by the route's own description: a part without required values may be left out. */
type Part<Name extends string, T> = string extends keyof T
  ? unknown
  : Partial<T> extends T
    ? { readonly [K in Name]?: Loose<T> }
    : { readonly [K in Name]: Loose<T> }
/** What is not asked for may be said as not asked for, and lists may be read-only. */
type Loose<T> = T extends (infer E)[]
  ? readonly Loose<E>[]
  : T extends object
    ? { readonly [K in keyof T]: Loose<T[K]> | Extract<T[K], undefined> }
    : T
type Options<S extends AnyRoute> = Part<'params', Input<S, 'params'>> &
  Part<'query', Input<S, 'query'>> &
  Part<'body', Input<S, 'body'>> &
  (S['ifMatch'] extends true ? { readonly version: number } : unknown) &
  (S['idempotent'] extends true ? { readonly key?: string } : unknown) &
  (S['bytes'] extends 'upload' ? { readonly raw: Blob } : unknown)
// Route by route: of all of them at once the intersection would be endless.
type Rest<S> = S extends AnyRoute
  ? Record<never, never> extends Options<S>
    ? [options?: Options<S>]
    : [options: Options<S>]
  : never

/** A call by a path of its method; the types follow from the route there. */
type Verb<M extends Method> = <P extends PathOf<M>>(
  path: P,
  ...rest: Rest<RouteAt<M, P>>
) => Promise<Reply<RouteAt<M, P>>>

/** What of any call reaches the wire. */
interface Sent {
  readonly params?: Record<string, string>
  readonly query?: Record<string, unknown>
  readonly body?: unknown
  readonly version?: number
  readonly key?: string
  readonly raw?: Blob
}

export const OFFLINE = new ApiProblem(
  0,
  'offline',
  'Rekko cannot be reached just now. What you typed is kept here, and goes on by itself.',
)

/**
 * Calls the API by a route's method and path: what it takes and what it answers follow from the contract. Refusals come
 * as ApiProblem; an expired sign-in is told to the session.
 */
export function useApi() {
  const request = useRequestFetch() as unknown as (path: string, options: object) => Promise<unknown>
  const expired = useExpired()

  /** Tells the session of a refusal that means that the sign-in has expired. */
  function noticed(problem: ApiProblem): void {
    if (problem.status === 401 && import.meta.client) expired.value = true
  }
  async function call(method: Method, path: string, options: Sent = {}): Promise<unknown> {
    const headers: Record<string, string> = {}
    if (options.version !== undefined) headers['if-match'] = `"${options.version}"`
    if (options.key !== undefined) headers['idempotency-key'] = options.key
    if (options.raw !== undefined) headers['content-type'] = 'application/octet-stream'
    const body = options.raw ?? options.body ?? (method === 'POST' ? {} : undefined)
    try {
      return await request(fillPath(path, options.params), {
        method,
        headers,
        retry: 0,
        ...(options.query === undefined ? {} : { query: options.query }),
        ...(body === undefined ? {} : { body }),
      })
    } catch (error) {
      const problem = asProblem(error)
      // Coming in and asking who is in say it themselves.
      if (path !== '/api/session' && path !== '/api/session/demo') noticed(problem)
      throw problem
    }
  }
  const verb =
    (method: Method): unknown =>
    (path: string, options?: Sent) =>
      call(method, path, options)
  return {
    noticed,
    get: verb('GET') as Verb<'GET'>,
    post: verb('POST') as Verb<'POST'>,
    put: verb('PUT') as Verb<'PUT'>,
    remove: verb('DELETE') as Verb<'DELETE'>,
  }
}

/** A path with its parts filled in: /api/orders/{id} */
export function fillPath(path: string, params: Readonly<Record<string, string>> = {}): string {
  return path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(params[name] ?? ''))
}

interface ProblemBody {
  readonly type?: string
  readonly detail?: string
  readonly fields?: { field: string; message: string }[]
}

/** A refusal by its status and body, whatever is missing of it. */
export function problemOf(status: number, data: ProblemBody | undefined): ApiProblem {
  return new ApiProblem(
    status,
    (data?.type ?? '').replace('urn:rekko:', ''),
    data?.detail ?? 'Rekko did not answer as expected; nothing was changed.',
    data?.fields ?? [],
  )
}

function asProblem(error: unknown): ApiProblem {
  const e = error as { statusCode?: number; status?: number; data?: ProblemBody | string }
  const status = e.statusCode ?? e.status
  if (status === undefined || status === 0) return OFFLINE
  return problemOf(status, typeof e.data === 'string' ? (JSON.parse(e.data) as ProblemBody) : e.data)
}

/** The sentence of an error, whatever it is. */
export function sayError(error: unknown): string {
  return error instanceof ApiProblem ? error.detail : error instanceof Error ? error.message : String(error)
}
