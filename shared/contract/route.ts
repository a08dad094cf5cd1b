import { z } from 'zod'
import type { Right } from '#core/people/rights'

/** How one route of the API behaves: what it takes, who may call it, what it answers. */
export interface RouteSpec<
  P extends z.ZodType = z.ZodType,
  Q extends z.ZodType = z.ZodType,
  B extends z.ZodType = z.ZodType,
  R extends z.ZodType = z.ZodType,
> {
  readonly name: string
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE'
  /** As in OpenAPI: /api/requisitions/{id} */
  readonly path: string
  readonly summary: string
  /** Who may call it: anybody, or whoever holds a right of the table. What they see or change is decided besides. */
  readonly access: 'public' | Right
  readonly params: P
  readonly query: Q
  readonly body: B
  readonly reply: R
  /** Changes carry the version that was seen, in If-Match. */
  readonly ifMatch: boolean
  /** What creates or sends may be repeated with the same Idempotency-Key and happens once. */
  readonly idempotent: boolean
  /** Bytes instead of JSON: taken, given, or a stream of events. */
  readonly bytes: 'none' | 'upload' | 'download' | 'stream'
}

const nothing = z.object({})
type Part<S, K extends string, D> = S extends Record<K, infer T> ? T : D

/** Describes a route; what is left out is empty. */
export function defineRoute<
  const S extends {
    name: string
    method: RouteSpec['method']
    path: string
    summary: string
    access: RouteSpec['access']
    params?: z.ZodType
    query?: z.ZodType
    body?: z.ZodType
    reply?: z.ZodType
    ifMatch?: boolean
    idempotent?: boolean
    bytes?: RouteSpec['bytes']
  },
>(spec: S) {
  return {
    ifMatch: false,
    idempotent: false,
    bytes: 'none',
    params: nothing,
    query: nothing,
    body: nothing,
    reply: nothing,
    ...spec,
  } as unknown as RouteSpec<
    Part<S, 'params', typeof nothing> & z.ZodType,
    Part<S, 'query', typeof nothing> & z.ZodType,
    Part<S, 'body', typeof nothing> & z.ZodType,
    Part<S, 'reply', typeof nothing> & z.ZodType
  > & {
    // What tells a call apart stays as it is written.
    readonly method: S['method']
    readonly path: S['path']
    readonly ifMatch: Part<S, 'ifMatch', false>
    readonly idempotent: Part<S, 'idempotent', false>
    readonly bytes: Part<S, 'bytes', 'none'>
  }
}
