import type { Language } from '#core/supplier/language'
import type { OwnFace } from './faces'

/** In points: what a page leaves free at each side, and how wide what is written on it is. */
export const MARGIN = 50
export const WIDTH = 595.28 - 2 * MARGIN
export const INK = '#14231f'
export const SECOND = '#44554f'

export interface PaperColumn {
  readonly name: string
  /** From the left margin, in points. */
  readonly x: number
  readonly width: number
  readonly align: 'left' | 'right'
}

/** A text with a small label above it. */
export interface Labelled {
  readonly label: string
  readonly value: string
}

/** A sum below a table: words on the left, the amount at the right edge. */
export type SumRow = readonly [label: string, value: string, face: OwnFace]

/** A part of a paper, from its top to its end. */
export type Block =
  | {
      readonly is: 'text'
      readonly tag: 'P' | 'H1' | 'H2'
      readonly face: OwnFace
      readonly size: number
      readonly color: string
      readonly text: string
      readonly below: number
    }
  | { readonly is: 'labelled'; readonly what: Labelled }
  /** Two columns of labelled texts, side by side. */
  | { readonly is: 'sides'; readonly left: readonly Labelled[]; readonly right: readonly Labelled[] }
  | { readonly is: 'space'; readonly height: number }
  | {
      readonly is: 'table'
      readonly columns: readonly PaperColumn[]
      readonly rows: readonly (readonly string[])[]
    }
  | { readonly is: 'sums'; readonly rows: readonly SumRow[] }
  /** An address that a camera reads (QR code, ISO/IEC 18004), with words beside it. */
  | { readonly is: 'code'; readonly address: string; readonly text: string }

/** What a PDF says: facts alone, so that another process can make it. */
export interface Paper {
  readonly title: string
  readonly author: string
  /** ISO 639-1. */
  readonly language?: Language
  /** At the foot of every page, before its number. */
  readonly foot: string
  /** Before the number of a page, and before how many there are; English where it does not say. */
  readonly numbering?: readonly [page: string, of: string]
  /** The moment that the file itself names, so that the same paper is the same bytes. */
  readonly at: Date
  readonly blocks: readonly Block[]
  /** What lies inside the file: the same for machines. */
  readonly files?: readonly PaperFile[]
}

/** A file inside a PDF. */
export interface PaperFile {
  readonly name: string
  readonly mime: string
  readonly description: string
  readonly text: string
}

type Text = Extract<Block, { is: 'text' }>
const text = (of: string, how: Partial<Text>): Block => ({
  is: 'text',
  tag: 'P',
  face: 'text',
  size: 10,
  color: INK,
  below: 0,
  text: of,
  ...how,
})

export const words = (of: string, below = 0): Block => text(of, { below })
/** Words in the second ink. */
export const aside = (of: string, size: number, below: number): Block => text(of, { size, below, color: SECOND })
/** The organisation that a paper is from. */
export const sender = (of: string, below = 0): Block => text(of, { face: 'bold', size: 11, below })
/** What a paper is. */
export const title = (of: string): Block => text(of, { tag: 'H1', face: 'title', size: 22, below: 2 })
/** The head of a part. */
export const head = (of: string): Block => text(of, { tag: 'H2', face: 'bold', color: SECOND, below: 2 })
export const space = (height: number): Block => ({ is: 'space', height })
export const labelled = (label: string, value: string): Labelled => ({ label, value })
export const code = (address: string, says: string): Block => ({ is: 'code', address, text: says })
