import { waysOf, type Ways } from '#shared/words/ways'
import { dayOf } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { documentSums } from '#core/base/document-sums'
import { sayOwnValues } from '#shared/words/own-field'
import { sayDiscount } from '#shared/words/requisition'
import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { maySee } from '../document/visible'
import {
  aside,
  head,
  labelled,
  sender,
  space,
  title as titleOf,
  WIDTH,
  words,
  type Block,
  type Paper,
} from '../files/paper'
import { notFound } from '../http/problem'
import { listDecisions } from '../approval/reads'
import { requireTerms } from '../settings/reads'
import { readForm } from './form-reads'
import { readOwnNames } from './own-names'
import { readNames, readLineSuppliers, readPayerNames, readPeopleNames } from './page-reads'
import { findRequisition, type RequisitionRow } from './reads'
import { frozenLine } from './reservation'
import { SEEN_REQUISITIONS } from './visible'

/**
 * A requisition on paper: what its sentence says, its lines with what pays, its sums, who decided, what is attached.
 */
export async function readRequisitionPaper(ctx: Context, id: string): Promise<{ paper: Paper; name: string }> {
  const { tx, actor, now } = ctx
  const ways = waysOf(actor.locale)
  const kept = await findRequisition(tx, id)
  if (kept === null || !(await maySee(ctx, SEEN_REQUISITIONS, id))) throw notFound('This requisition')
  const { organisation, taxCodes } = await requireTerms(tx, now, kept.draft.accountingDate)
  const today = dayOf(now, organisation.timeZone)
  const names = await readNames(tx, id)
  const suppliers = await readLineSuppliers(tx, id)
  const payers = await readPayerNames(tx, id)
  const { ownFields, kinds } = await readForm(tx, today)
  const named = await readOwnNames(tx, kept.draft, ownFields)
  const { jobs } = named
  const tax = new Map(taxCodes.map((t) => [t.code, t]))
  const decisions = (await listDecisions(tx, id)).filter((d) => !d.takenBack)
  const decided = await readPeopleNames(
    tx,
    decisions.map((d) => d.actorId),
  )
  const attachments = await listAttachments(tx, id)
  const currencies = [...new Set(kept.lines.map((l) => l.currency))]
  const title = kept.draft.title === '' ? 'A request without a title' : kept.draft.title
  const paper: Paper = {
    title,
    author: organisation.name,
    foot: kept.number ?? 'draft',
    at: new Date(`${today}T12:00:00Z`),
    blocks: [
      sender(organisation.name, 14),
      titleOf(title),
      aside(
        [
          kept.number ?? 'not sent yet',
          kinds.find((k) => k.code === kept.draft.kind)?.name ?? kept.draft.kind,
          kept.state,
          ...(kept.sentAt === null
            ? []
            : [`sent ${ways.date(dayOf(new Date(kept.sentAt), organisation.timeZone), '')}`]),
        ].join(' · '),
        10,
        14,
      ),
      ...headOf(
        kept,
        {
          owner: names?.owner ?? '',
          department: names?.department ?? '',
          shipTo: names?.shipTo ?? '',
          job: kept.draft.jobId === null ? '' : (jobs.get(kept.draft.jobId) ?? ''),
          own: sayOwnValues(
            ownFields.filter((f) => f.on === 'requisition'),
            kept.draft.own,
            named,
            ways,
          ),
        },
        ways,
      ),
      {
        is: 'table',
        columns: [
          { name: 'What', x: 0, width: 220, align: 'left' },
          { name: 'How many', x: 220, width: 65, align: 'right' },
          { name: 'Price', x: 285, width: 70, align: 'right' },
          { name: 'Paid from', x: 365, width: 70, align: 'left' },
          { name: 'Amount', x: 435, width: WIDTH - 435, align: 'right' },
        ],
        rows: kept.lines.map((l) => {
          const prefix = currencies.length > 1 || l.currency !== organisation.baseCurrency ? `${l.currency} ` : ''
          const off = sayDiscount(l.discount, l.currency, ways)
          return [
            [
              l.description,
              l.secondDescription,
              [l.supplierId === null ? 'buyer decides who' : (suppliers[l.supplierId] ?? ''), l.supplierPart ?? '']
                .filter((t) => t !== '')
                .join(' · '),
              l.needBy === null ? '' : `by ${ways.date(l.needBy, '')}`,
              ...off,
              ...(l.jobId === null ? [] : [`job ${jobs.get(l.jobId) ?? ''}`]),
              ...sayOwnValues(
                ownFields.filter((f) => f.on === 'line'),
                l.own,
                named,
                ways,
              ),
              l.noteToSupplier,
            ]
              .filter((t) => t.trim() !== '')
              .join('\n'),
            ways.quantity(l.quantity, l.unit),
            l.unitPrice === null
              ? 'not known'
              : `${ways.price(l.unitPrice, l.currency)}${l.priceBase === '1' ? '' : ` per ${l.priceBase}`}`,
            l.codings.map((c) => payers[c.budgetLineId] ?? '').join('\n'),
            l.unitPrice === null ? '–' : `${prefix}${ways.amount(lineNet(frozenLine(l, organisation.baseCurrency)))}`,
          ]
        }),
      },
      space(8),
      ...currencies.map((currency): Block => {
        const sums = documentSums(
          kept.lines
            .filter((l) => l.currency === currency && l.unitPrice !== null)
            .map((l) => ({
              net: lineNet(frozenLine(l, organisation.baseCurrency)),
              tax: {
                category: tax.get(l.taxCode)?.category ?? 'S',
                rate: l.taxRate ?? tax.get(l.taxCode)?.rate ?? '0',
              },
            })),
          currency,
        )
        return {
          is: 'sums',
          rows: [
            ['Without tax', ways.money(sums.net), 'text'],
            ['Tax', ways.money(sums.tax), 'text'],
            ['Total', ways.money(sums.total), 'bold'],
          ],
        }
      }),
      ...part(
        'Decided',
        decisions.map((d) =>
          [
            decided[d.actorId] ?? '',
            d.outcome,
            ways.date(dayOf(new Date(d.at), organisation.timeZone), ''),
            ...(d.comment === '' ? [] : [`“${d.comment}”`]),
          ].join(' · '),
        ),
      ),
      ...part(
        'Attached',
        attachments.map((a) => `${a.name} (${a.kind})`),
      ),
    ],
  }
  return { paper, name: `${kept.number ?? 'draft'}.pdf` }
}

/** A head with a line for each; nothing where there is none. */
const part = (name: string, lines: readonly string[]): Block[] =>
  lines.length === 0 ? [] : [space(10), head(name), ...lines.map((l) => words(l, 2))]

function headOf(
  { draft }: RequisitionRow,
  of: {
    readonly owner: string
    readonly department: string
    readonly shipTo: string
    readonly job: string
    readonly own: readonly string[]
  },
  ways: Ways,
): Block[] {
  const address =
    draft.address === null
      ? of.shipTo
      : [
          draft.address.name,
          draft.address.street,
          `${draft.address.postcode} ${draft.address.town}`.trim(),
          draft.address.country,
        ]
          .filter((t) => t !== '')
          .join('\n')
  const place = [
    address,
    draft.shipToDetail,
    draft.attention === '' ? '' : `for the attention of ${draft.attention}`,
    draft.telephone,
    draft.instructions,
  ]
    .filter((t) => t.trim() !== '')
    .join('\n')
  const given = (label: string, value: string) => (value === '' ? [] : [labelled(label, value)])
  return [
    {
      is: 'sides',
      left: [
        labelled('For', [of.owner, of.department].filter((t) => t !== '').join(', ')),
        labelled('Why', draft.why === '' ? 'not said yet' : draft.why),
        ...given('Justification', draft.justification),
        ...given('Why the budget may be passed', draft.overBudgetReason),
      ],
      right: [
        labelled('Deliver to', place || 'not said yet'),
        labelled('Needed by', draft.needBy === null ? 'not said yet' : ways.date(draft.needBy, '')),
        ...given('Job', of.job),
        ...given('Besides', of.own.join('\n')),
      ],
    },
    space(6),
    ...given('To the supplier', draft.noteToSupplier).flatMap((what): Block[] => [{ is: 'labelled', what }, space(2)]),
  ]
}
