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

interface Options {
  readonly body?: unknown
  readonly version?: number
  readonly query?: Record<string, string | number | undefined>
  readonly raw?: Blob
  readonly key?: string
}

export const OFFLINE = new ApiProblem(
  0,
  'offline',
  'Rekko cannot be reached just now. What you typed is kept here, and goes on by itself.',
)

/** Calls the API: typed replies, refusals as ApiProblem, an expired sign-in told to the session. */
export function useApi() {
  const request = useRequestFetch() as unknown as (path: string, options: object) => Promise<unknown>
  const expired = useExpired()

  /** Tells the session of a refusal that means that the sign-in has expired. */
  function noticed(problem: ApiProblem): void {
    if (problem.status === 401 && import.meta.client) expired.value = true
  }
  async function call<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, options: Options = {}): Promise<T> {
    const headers: Record<string, string> = {}
    if (options.version !== undefined) headers['if-match'] = `"${options.version}"`
    if (options.key !== undefined) headers['idempotency-key'] = options.key
    if (options.raw !== undefined) headers['content-type'] = 'application/octet-stream'
    try {
      return (await request(path, {
        method,
        headers,
        retry: 0,
        ...(options.query === undefined ? {} : { query: options.query }),
        ...(options.raw !== undefined
          ? { body: options.raw }
          : options.body !== undefined
            ? { body: options.body as Record<string, unknown> }
            : {}),
      })) as T
    } catch (error) {
      const problem = asProblem(error)
      if (!path.startsWith('/api/session')) noticed(problem)
      throw problem
    }
  }

  return {
    noticed,
    get: <T>(path: string, query?: Options['query']) => call<T>('GET', path, query === undefined ? {} : { query }),
    post: <T>(path: string, options?: Options) => call<T>('POST', path, { body: {}, ...options }),
    put: <T>(path: string, options?: Options) => call<T>('PUT', path, options),
    remove: <T = null>(path: string, options?: Options) => call<T>('DELETE', path, options),
  }
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
