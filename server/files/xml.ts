import { XMLParser } from 'fast-xml-parser'
import { invalid } from '../http/problem'

/** A piece of XML as it was read: texts, or pieces by their names without prefixes; attributes begin with `@`. */
export type Piece = string | { readonly [name: string]: Piece | readonly Piece[] | undefined }

const reader = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#text',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
})

/** Reads XML; refuses, with a sentence, what is broken or defines entities of its own. */
export function readXml(bytes: Buffer): Piece {
  const text = bytes.toString('utf8')
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) throw invalid('This file defines entities of its own, which are not read.')
  try {
    return reader.parse(text, true) as Piece
  } catch {
    throw invalid('This XML is broken: an element is not closed, or something stands where it may not.')
  }
}

const many = (p: Piece | readonly Piece[] | undefined): readonly Piece[] =>
  p === undefined ? [] : Array.isArray(p) ? (p as readonly Piece[]) : [p as Piece]
/** Every piece of a name directly in another. */
export const all = (of: Piece | undefined, name: string): readonly Piece[] =>
  of === undefined || typeof of === 'string' ? [] : many(of[name])
/** The first piece on a path of names. */
export const at = (of: Piece | undefined, ...path: readonly string[]): Piece | undefined =>
  path.reduce<Piece | undefined>((p, name) => all(p, name)[0], of)
/** The text of a piece, or of the first on a path of names; "" where there is none. */
export function textOf(of: Piece | undefined, ...path: readonly string[]): string {
  const found = at(of, ...path)
  const text = typeof found === 'string' ? found : typeof found?.['#text'] === 'string' ? found['#text'] : ''
  return text.trim()
}
