/** A piece of a JSON schema, as far as the guide reads it. */
export interface Schema {
  readonly type?: string | readonly string[]
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly items?: Schema
  readonly enum?: readonly unknown[]
  readonly anyOf?: readonly Schema[]
  readonly additionalProperties?: boolean | Schema
  readonly description?: string
}
interface Operation {
  readonly operationId: string
  readonly summary: string
  readonly tags: readonly string[]
  readonly 'x-right': string
  readonly parameters: readonly {
    readonly name: string
    readonly in: string
    readonly required: boolean
    readonly schema: Schema
  }[]
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema?: Schema }>> }
  readonly responses: Readonly<
    Record<string, { readonly content?: Readonly<Record<string, { readonly schema?: Schema }>> }>
  >
}
export interface Described {
  readonly name: string
  readonly method: string
  readonly path: string
  readonly summary: string
  readonly area: string
  readonly right: string
  readonly needs: readonly {
    readonly name: string
    readonly where: string
    readonly type: string
    readonly required: boolean
  }[]
  readonly gives: string
  /** It reads JSON and needs nothing: it can be tried as it stands. */
  readonly runs: boolean
}

/** The routes of an OpenAPI document, by their area and path. */
export function readDescription(document: Record<string, unknown>): Described[] {
  const paths = document.paths as Readonly<Record<string, Readonly<Record<string, Operation>>>>
  return Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, o]): Described => {
      const body = o.requestBody?.content['application/json']?.schema
      const reply = o.responses['200']?.content
      const json = reply?.['application/json']?.schema
      const needs = [
        ...o.parameters.map((p) => ({ name: p.name, where: p.in, type: typeOf(p.schema), required: p.required })),
        ...Object.entries(body?.properties ?? {}).map(([name, s]) => ({
          name,
          where: 'body',
          type: typeOf(s),
          required: body?.required?.includes(name) === true,
        })),
        ...(o.requestBody !== undefined && body === undefined
          ? [{ name: 'the file', where: 'body', type: 'bytes', required: true }]
          : []),
      ]
      return {
        name: o.operationId,
        method: method.toUpperCase(),
        path,
        summary: o.summary,
        area: o.tags[0] ?? '',
        right: o['x-right'],
        needs,
        gives: json === undefined ? (Object.keys(reply ?? {})[0] ?? 'nothing') : typeOf(json),
        runs: method === 'get' && json !== undefined && needs.every((n) => !n.required),
      }
    }),
  )
}

/** A type in one line: "text", "one of a, b", "list of { id, name }". */
function typeOf(s: Schema, depth = 0): string {
  if (s.enum !== undefined) return `one of ${s.enum.map(String).join(', ')}`
  if (s.anyOf !== undefined) return s.anyOf.map((one) => typeOf(one, depth)).join(' or ')
  if (s.items !== undefined) return `list of ${typeOf(s.items, depth)}`
  if (s.properties !== undefined) {
    const names = Object.keys(s.properties)
    return depth > 1 || names.length === 0 ? 'an object' : `{ ${names.join(', ')} }`
  }
  const type = Array.isArray(s.type) ? s.type.join(' or ') : String(s.type ?? 'anything')
  return type === 'string' ? 'text' : type === 'null' ? 'nothing' : type
}

/** A call of a route from a shell, with a token. */
export function callOf(d: Described, origin: string): string {
  const fields = d.needs.filter((n) => n.where === 'body' && n.type !== 'bytes')
  const query = d.needs.filter((n) => n.where === 'query' && n.required).map((n) => `${n.name}=…`)
  const headers = d.needs.filter((n) => n.where === 'header' && n.required).map((n) => `  -H '${n.name}: …'`)
  return [
    `curl -X ${d.method} '${origin}${d.path}${query.length > 0 ? `?${query.join('&')}` : ''}'`,
    ...(d.right === 'public' ? [] : ["  -H 'Authorization: Bearer rekko_…'"]),
    ...headers,
    ...(fields.length > 0
      ? ["  -H 'Content-Type: application/json'", `  -d '{ ${fields.map((f) => `"${f.name}": …`).join(', ')} }'`]
      : []),
  ].join(' \\\n')
}
