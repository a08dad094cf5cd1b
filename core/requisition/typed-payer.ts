import { HUNDRED, dec } from '#core/base/decimal'
import type { SplitMethod } from '#core/base/split'
import { readTypedNumber } from '#core/base/typed-number'
import { matchCode, type CodedBudgetLine } from '#core/budget/code'
import type { DraftCoding } from './draft'

/** Who pays, as it was typed: one budget line, or several with their parts. */
export interface TypedPayer {
  readonly splitMethod: SplitMethod
  readonly codings: readonly DraftCoding[]
}

/** A budget line that may pay, by its code and its plain name. */
export type Payer = CodedBudgetLine & { readonly name: string }

/**
 * Who pays, written so that `readTypedPayer` reads it back: by code, with percents where several do. Nothing where a
 * payer is not known, or the parts are amounts or quantities of this one line.
 */
export function writePayer(payer: TypedPayer, payers: readonly Payer[]): string {
  const codes = payer.codings.map((c) => payers.find((p) => p.id === c.budgetLineId)?.code)
  if (codes.some((c) => c === undefined)) return ''
  if (codes.length < 2 || payer.splitMethod === 'share') return codes.join('; ')
  if (payer.splitMethod !== 'percent') return ''
  return codes.map((c, i) => `${c ?? ''} ${payer.codings[i]?.value ?? '0'}%`).join('; ')
}

/**
 * Reads who pays for a line: a budget line by its code, in whole or in part, or by its name ("610", "filters"), or
 * several with their percent ("610 60, 620 40", "filters 60 % + salt"), where the last may leave its part out; without
 * any part they pay in equal shares. Null where a name means none or several, or the parts are not 100 together.
 */
export function readTypedPayer(
  text: string,
  payers: readonly Payer[],
  mark: '.' | ',',
  categoryAccount: string | null = null,
): TypedPayer | null {
  const one = onePayer(text, payers, categoryAccount)
  if (one !== null) return { splitMethod: 'percent', codings: [{ budgetLineId: one.id, value: null }] }
  // A name may hold an "and" of its own.
  return SEPARATORS.reduce<TypedPayer | null>((found, separator) => {
    if (found !== null) return found
    const pieces = text.split(separator).filter((p) => p.trim() !== '')
    const parts = pieces.flatMap((p) => partOf(p, payers, mark, categoryAccount) ?? [])
    const isSound = pieces.length > 1 && new Set(parts.map((p) => p.budgetLineId)).size === pieces.length
    return isSound ? divided(parts) : null
  }, null)
}

const SEPARATORS = [/[;+\n]|,(?!\d)/, /[;+&\n]|\band\b|,(?!\d)/i]

/** Percents that add up to 100, of which the last may be left to be worked out; or equal shares where none is given. */
function divided(codings: readonly DraftCoding[]): TypedPayer | null {
  if (codings.every((c) => c.value === null)) return { splitMethod: 'share', codings }
  const before = codings.slice(0, -1)
  if (before.some((c) => c.value === null)) return null
  const left = before.reduce((rest, c) => rest.minus(dec(c.value ?? '0')), HUNDRED)
  const last = codings.at(-1)
  if (last === undefined || !left.isPositive() || (last.value !== null && !left.eq(dec(last.value)))) return null
  return { splitMethod: 'percent', codings: [...before, { ...last, value: left.toFixed() }] }
}

/** "filters 60 %", "60 % filters", or a payer alone. */
function partOf(
  text: string,
  payers: readonly Payer[],
  mark: '.' | ',',
  categoryAccount: string | null,
): DraftCoding | null {
  const alone = onePayer(text, payers, categoryAccount)
  if (alone !== null) return { budgetLineId: alone.id, value: null }
  const after = /^(.+?)[\s:]+([\d.,]+)\s*%?$/.exec(text.trim())
  const before = /^([\d.,]+)\s*%\s*(.+)$/.exec(text.trim())
  const [words, figure] = after !== null ? [after[1], after[2]] : [before?.[2], before?.[1]]
  const payer = onePayer(words ?? '', payers, categoryAccount)
  const value = readTypedNumber(figure ?? '', mark)
  return payer === null || value === null || !dec(value).isPositive() ? null : { budgetLineId: payer.id, value }
}

/** The one budget line that is meant; null where it is none or could be several. */
function onePayer(text: string, payers: readonly Payer[], categoryAccount: string | null): Payer | null {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ')
  if (words === '') return null
  const whole = payers.filter((p) => p.name.toLowerCase() === words || p.code.toLowerCase() === words)
  if (whole.length === 1) return whole[0] ?? null
  const byCode = matchCode(words, payers, categoryAccount)
  if (byCode.length > 0) return byCode.length === 1 ? (byCode[0] ?? null) : null
  const byName = payers.filter((p) => p.name.toLowerCase().includes(words))
  return byName.length === 1 ? (byName[0] ?? null) : null
}
