import { isNegative, negate, type Money } from '#core/base/money'
import type { Day } from '#core/base/day'
import type { RequestDecision } from '#shared/contract/decide'
import { sayAnswers, answerLanguage } from '#shared/words/answer'
import { sayRemark } from '#shared/words/document'
import { sayMarks } from '#shared/words/marks'
import { sayBesideLast } from '#shared/words/price-memory'
import { sayLineSource } from '#shared/words/request-line'
import type { Ways } from '#shared/words/ways'
import { ANSWER_ABOVE } from '../mail/read-letter'

/** What a letter that asks for a decision is made of. */
export interface LetterFacts {
  readonly doc: RequestDecision
  /** What happened that it is asked now: "Ines Adeyemi approved it …"; null where the request itself says it. */
  readonly sentence: string | null
  /** Where it is decided in Rekko. */
  readonly address: string
  /** Whether it may be decided by answering. */
  readonly answerable: boolean
  readonly today: Day
}

interface Row {
  readonly what: string
  readonly small: readonly string[]
  readonly quantity: string
  readonly price: string
  readonly beside: string
  readonly amount: string
}

/**
 * The letter that asks somebody for a decision, as text and as a page: the request in a sentence, its lines beside what
 * was paid last, what is left of each budget, what was said, and how it is answered. Both say the same.
 */
export function writeDecisionLetter(facts: LetterFacts, ways: Ways): { readonly text: string; readonly html: string } {
  const { doc, address, answerable } = facts
  const says = sentencesOf(facts, ways)
  const rows = doc.lines.map((l) => rowOf(l, ways, facts.today))
  const answers = answerable ? sayAnswers(answerLanguage(ways.locale), doc.owner) : []
  const text = [
    ...(answerable ? [ANSWER_ABOVE, ''] : []),
    ...(facts.sentence === null ? [] : [facts.sentence, '']),
    says.request,
    ...says.more,
    '',
    ...rows.flatMap((r) => [
      `- ${r.what}: ${r.quantity} at ${r.price}, ${r.amount} (${r.beside})`,
      ...r.small.map((s) => `  ${s}`),
    ]),
    '',
    ...says.budget,
    ...says.said,
    ...(answers.length === 0
      ? []
      : [
          '',
          'Answer this mail with one of these as its first line:',
          ...answers.map(([w, does]) => `  ${w}  (${does})`),
        ]),
    '',
    `In Rekko: ${address}`,
    '',
  ].join('\n')
  return { text, html: page(facts, says, rows, answers) }
}

function sentencesOf({ doc, today }: LetterFacts, ways: Ways) {
  const marks = sayMarks(doc.marks)
  return {
    request:
      `${doc.number}: ${doc.owner} asks for ${ways.money(doc.amount)} for ${doc.department}, by ` +
      `${doc.needBy === null ? 'no day' : ways.day(doc.needBy, today)}, because ${doc.why.replace(/\.$/, '')}.`,
    more: [
      `To ${doc.delivery.join(', ')}.`,
      ...(doc.forName === null ? [] : [`You decide for ${doc.forName}.`]),
      ...(doc.justification === '' ? [] : [`Justification: ${doc.justification}`]),
      ...(marks === '' ? [] : [`Look twice: ${marks}.`]),
      ...(doc.overBudgetReason === '' ? [] : [`It passes the budget, because ${doc.overBudgetReason}`]),
      ...(doc.split === null ? [] : [doc.split.sentence]),
      ...(doc.changes.length === 0 ? [] : [`Changed since it was last sent: ${doc.changes.join('; ')}.`]),
    ],
    budget: doc.budget.map((b) => {
      const left = (amount: Money) =>
        isNegative(amount) ? `${ways.money(negate(amount))} too much` : `${ways.money(amount)} left`
      return (
        `${b.name}, with it: ${left(b.leftAfter.period)} for the month, ${left(b.leftAfter.toDate)} to date, ` +
        `${left(b.leftAfter.year)} for the year${b.passed ? '. It passes the budget' : ''}.`
      )
    }),
    said: doc.remarks.map((r) => `${r.name}: ${sayRemark(r)}`),
  }
}

function rowOf(l: RequestDecision['lines'][number], ways: Ways, today: Day): Row {
  const [last] = l.paid
  const before =
    last === undefined ? '' : `, ${ways.price(last.unitPrice, last.currency)} on ${ways.shortDate(last.day, today)}`
  return {
    what: l.description,
    small: [...l.more, sayLineSource(l)],
    quantity: ways.quantity(l.quantity, l.unit),
    price:
      `${l.currency} ${ways.price(l.unitPrice ?? '0', l.currency)}` +
      (l.priceBase === '1' ? '' : ` per ${l.priceBase}`),
    beside: `${sayBesideLast(l.unitPrice ?? '0', last?.unitPrice ?? null)}${before}`,
    amount: l.net === null ? '–' : ways.money(l.net),
  }
}

const MARKS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }
const safe = (text: string) => text.replace(/[&<>"']/g, (c) => MARKS[c] ?? c)

const INK = '#14231f'
const SECOND = '#5c6b65'
const RULE = '#d6ddd6'
const GREEN = '#0e5a4f'
const AMBER = '#fdf1d3'
const cell = (style = '') => `padding:8px 12px 8px 0;border-bottom:1px solid ${RULE};vertical-align:top;${style}`
const small = (text: string) => `<div style="color:${SECOND};font-size:13px">${safe(text)}</div>`

const HEAD = `white-space:nowrap;font-weight:600;color:${SECOND}`
const COLUMNS = [
  ['What', `${HEAD};text-align:left`],
  ['How many', `${HEAD};text-align:right`],
  ['Price, beside the last', `${HEAD};text-align:right`],
  ['Amount', `${HEAD};text-align:right;padding-right:0`],
] as const

/** The page: tables and styles in place, since programs that show mail know little else; light, as paper is. */
function page(
  { sentence, address, answerable, doc }: LetterFacts,
  says: ReturnType<typeof sentencesOf>,
  rows: readonly Row[],
  answers: ReturnType<typeof sayAnswers>,
): string {
  const isOver = doc.budget.some((b) => b.passed)
  const line = (r: Row) => `<tr>
<td style="${cell()}"><b>${safe(r.what)}</b>${r.small.map(small).join('')}</td>
<td style="${cell('text-align:right;white-space:nowrap')}">${safe(r.quantity)}</td>
<td style="${cell('text-align:right;white-space:nowrap')}">${safe(r.price)}${small(r.beside)}</td>
<td style="${cell('text-align:right;white-space:nowrap;padding-right:0')}">${safe(r.amount)}</td></tr>`
  const head = COLUMNS.map(([name, style]) => `<th scope="col" style="${cell(style)}">${name}</th>`).join('')
  const paragraphs = (list: readonly string[]) => list.map((t) => `<p style="margin:6px 0">${safe(t)}</p>`).join('')
  const answer = ([word, does]: readonly [string, string]) => `<tr>
<td style="padding:2px 16px 2px 0"><b>${safe(word)}</b></td><td style="color:${SECOND}">${safe(does)}</td></tr>`
  const how =
    answers.length === 0
      ? ''
      : `<div style="margin:20px 0 0;padding:12px 16px;border:1px solid ${RULE}">
<p style="margin:0 0 6px">Answer this mail with one of these as its first line:</p>
<table role="presentation" style="border-collapse:collapse">${answers.map(answer).join('')}</table></div>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${safe(doc.title)}</title></head>
<body style="margin:0;padding:16px;background:#fcfcf9;color:${INK};font:15px/1.5 system-ui,sans-serif">
<div style="max-width:720px">
${answerable ? `<p style="margin:0 0 12px;color:${SECOND};font-size:13px">${ANSWER_ABOVE}</p>` : ''}
${sentence === null ? '' : `<p style="margin:0 0 8px">${safe(sentence)}</p>`}
<p style="margin:0 0 8px;font:20px/1.4 Georgia,serif">${safe(says.request)}</p>
${paragraphs(says.more)}
<table style="border-collapse:collapse;width:100%;margin:14px 0">
<thead><tr>${head}</tr></thead><tbody>${rows.map(line).join('')}</tbody></table>
<div style="${isOver ? `background:${AMBER};padding:6px 12px` : ''}">${paragraphs(says.budget)}</div>
${paragraphs(says.said)}
${how}
<p style="margin:20px 0 0"><a href="${safe(address)}" style="color:${GREEN};font-weight:600">Decide in Rekko</a></p>
</div></body></html>`
}
