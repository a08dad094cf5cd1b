import { rebaseRates } from '#core/base/reference-rates'
import type { Rate } from '#core/base/rate'
import { invalid } from '../http/problem'
import type { ReadFor, Sheet } from './sheet'
import { all, at, readXml, textOf, type Piece } from './xml'

/** True where a file begins as XML does. */
export const isXml = (bytes: Buffer): boolean =>
  /^(\uFEFF)?\s*<[?!a-zA-Z]/.test(bytes.subarray(0, 200).toString('utf8'))

/**
 * Reads a table from XML of one of two open forms: the reference rates of the European Central Bank, turned into rates
 * for the base currency; and a Catalogue of UBL 2.1 (OASIS), as rows of the list of items. Numbers are written with the
 * reader's mark. Refuses all else with a sentence.
 */
export function readXmlTable(bytes: Buffer, { base, mark }: ReadFor): Sheet {
  const document = readXml(bytes)
  const catalogue = at(document, 'Catalogue')
  if (catalogue !== undefined) return readCatalogue(catalogue, mark)
  const days = all(at(document, 'Envelope', 'Cube'), 'Cube').filter((d) => textOf(d, '@time') !== '')
  if (days.length > 0) return readRates(days, base, mark)
  throw invalid(
    'This XML is neither a Catalogue of UBL 2.1 nor reference rates as the European Central Bank publishes them.',
  )
}

/** Rates as “eurofxref” files have them: a cube for each day with its time, in it one for each currency. */
function readRates(days: readonly Piece[], base: string, mark: string): Sheet {
  const published = days.flatMap((d): Rate[] =>
    all(d, 'Cube').map((c) => ({
      day: textOf(d, '@time'),
      currency: textOf(c, '@currency'),
      perBase: textOf(c, '@rate'),
    })),
  )
  if (published.some((r) => !/^\d{4}-\d{2}-\d{2}$/.test(r.day) || !/^\d+(\.\d+)?$/.test(r.perBase)))
    throw invalid('A rate of this file has no day, or is no number.')
  const rates = rebaseRates(published, 'EUR', base)
  if (rates === null)
    throw invalid(`This file has no rate for ${base} on each of its days, so none can be turned into rates for it.`)
  return {
    rows: [['Day', 'Currency', 'Rate'], ...rates.map((r) => [r.day, r.currency, r.perBase.replace('.', mark)])],
    notes: base === 'EUR' ? [] : [`The file has rates for one EUR; they were turned into rates for one ${base}.`],
  }
}

const COLUMNS = [
  'Item number',
  'Their number',
  'Name',
  'Description',
  'Category',
  'Supplier',
  'Unit',
  'Prices',
  'Price per',
  'Currency',
  'Tax',
  'Lead days',
  'Pack size',
] as const

const NUMBERS: readonly (typeof COLUMNS)[number][] = ['Prices', 'Price per', 'Lead days', 'Pack size']

/** The lines of a catalogue: prices by least quantity, of which one price for all quantities is the plain case. */
function readCatalogue(catalogue: Piece, mark: string): Sheet {
  const lines = all(catalogue, 'CatalogueLine')
  if (lines.length === 0) throw invalid('This catalogue has no line.')
  const party = at(catalogue, 'SellerSupplierParty', 'Party') ?? at(catalogue, 'ProviderParty')
  const supplier = textOf(party, 'PartyName', 'Name') || textOf(party, 'PartyLegalEntity', 'RegistrationName')
  const rows = lines.map((line) => {
    const item = at(line, 'Item')
    const places = all(line, 'RequiredItemLocationQuantity')
    const price = at(places[0], 'Price')
    const steps = places.map((p) => {
      const least = textOf(p, 'MinimumQuantity') || '1'
      return `${least}: ${textOf(p, 'Price', 'PriceAmount')}`
    })
    const lead = at(places[0], 'LeadTimeMeasure')
    const unit = textOf(line, 'OrderableUnit') || textOf(price, 'BaseQuantity', '@unitCode')
    const values: Record<(typeof COLUMNS)[number], string> = {
      'Item number': textOf(item, 'BuyersItemIdentification', 'ID'),
      'Their number': textOf(item, 'SellersItemIdentification', 'ID'),
      Name: textOf(item, 'Name'),
      Description: all(item, 'Description')
        .map((d) => textOf(d))
        .join(' '),
      Category: textOf(item, 'CommodityClassification', 'ItemClassificationCode', '@name'),
      Supplier: supplier,
      Unit: unit,
      Prices: steps.join('; '),
      'Price per': textOf(price, 'BaseQuantity'),
      Currency: textOf(price, 'PriceAmount', '@currencyID'),
      Tax: textOf(item, 'ClassifiedTaxCategory', 'ID'),
      'Lead days': textOf(lead, '@unitCode') === 'DAY' ? textOf(lead) : '',
      'Pack size': textOf(line, 'OrderQuantityIncrementNumeric'),
    }
    return COLUMNS.map((c) => (NUMBERS.includes(c) ? values[c].replaceAll('.', mark) : values[c]))
  })
  // What no line says is no column: it would empty what is kept.
  const said = COLUMNS.filter((_, i) => rows.some((r) => r[i] !== ''))
  return {
    rows: [[...said], ...rows.map((r) => said.map((c) => r[COLUMNS.indexOf(c)] ?? ''))],
    notes: supplier === '' ? ['The catalogue names no supplier.'] : [`A catalogue of ${supplier}.`],
  }
}
