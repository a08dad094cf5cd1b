import { waysOf, type Ways } from '#shared/words/ways'
import { dayOf } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { documentSums } from '#core/base/document-sums'
import { sayOwnValues } from '#shared/words/own-field'
import { sayDiscount } from '#shared/words/requisition'
import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { maySee } from '../document/visible'
import { environment } from '../environment'
import { INK, makePdf, MARGIN, SECOND, WIDTH, type Pen } from '../files/pdf'
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
export async function readRequisitionPdf(
  ctx: Context,
  id: string,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
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
  const title = kept.draft.title === '' ? 'A request without a title' : kept.draft.title
  const bytes = await makePdf(
    {
      title,
      author: organisation.name,
      foot: kept.number ?? 'draft',
      at: new Date(`${today}T12:00:00Z`),
      root: environment().root,
    },
    (pen) => {
      pen.put('P', 'bold', 11, INK, organisation.name, 14)
      pen.put('H1', 'title', 22, INK, title, 2)
      pen.put(
        'P',
        'text',
        10,
        SECOND,
        [
          kept.number ?? 'not sent yet',
          kinds.find((k) => k.code === kept.draft.kind)?.name ?? kept.draft.kind,
          kept.state,
          ...(kept.sentAt === null
            ? []
            : [`sent ${ways.date(dayOf(new Date(kept.sentAt), organisation.timeZone), '')}`]),
        ].join(' · '),
        14,
      )
      drawHead(
        pen,
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
      )
      const currencies = [...new Set(kept.lines.map((l) => l.currency))]
      pen.table(
        [
          { name: 'What', x: 0, width: 220, align: 'left' },
          { name: 'How many', x: 220, width: 65, align: 'right' },
          { name: 'Price', x: 285, width: 70, align: 'right' },
          { name: 'Paid from', x: 365, width: 70, align: 'left' },
          { name: 'Amount', x: 435, width: WIDTH - 435, align: 'right' },
        ],
        kept.lines.map((l) => {
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
      )
      pen.y += 8
      for (const currency of currencies) {
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
        pen.sums([
          ['Without tax', ways.money(sums.net), 'text'],
          ['Tax', ways.money(sums.tax), 'text'],
          ['Total', ways.money(sums.total), 'bold'],
        ])
      }
      if (decisions.length > 0) {
        pen.y += 10
        pen.put('H2', 'bold', 10, SECOND, 'Decided', 2)
        for (const d of decisions)
          pen.put(
            'P',
            'text',
            10,
            INK,
            [
              decided[d.actorId] ?? '',
              d.outcome,
              ways.date(dayOf(new Date(d.at), organisation.timeZone), ''),
              ...(d.comment === '' ? [] : [`“${d.comment}”`]),
            ].join(' · '),
            2,
          )
      }
      if (attachments.length > 0) {
        pen.y += 10
        pen.put('H2', 'bold', 10, SECOND, 'Attached', 2)
        for (const a of attachments) pen.put('P', 'text', 10, INK, `${a.name} (${a.kind})`, 2)
      }
    },
  )
  return { bytes, mime: 'application/pdf', name: `${kept.number ?? 'draft'}.pdf` }
}

function drawHead(
  pen: Pen,
  { draft }: RequisitionRow,
  of: {
    readonly owner: string
    readonly department: string
    readonly shipTo: string
    readonly job: string
    readonly own: readonly string[]
  },
  ways: Ways,
): void {
  const half = WIDTH / 2 - 10
  const top = pen.y
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
  pen.labelled('For', [of.owner, of.department].filter((t) => t !== '').join(', '), MARGIN, half)
  pen.labelled('Why', draft.why === '' ? 'not said yet' : draft.why, MARGIN, half)
  if (draft.justification !== '') pen.labelled('Justification', draft.justification, MARGIN, half)
  if (draft.overBudgetReason !== '') pen.labelled('Why the budget may be passed', draft.overBudgetReason, MARGIN, half)
  const leftEnd = pen.y
  pen.y = top
  const x = MARGIN + half + 20
  pen.labelled(
    'Deliver to',
    [
      address,
      draft.shipToDetail,
      draft.attention === '' ? '' : `for the attention of ${draft.attention}`,
      draft.telephone,
      draft.instructions,
    ]
      .filter((t) => t.trim() !== '')
      .join('\n') || 'not said yet',
    x,
    half,
  )
  pen.labelled('Needed by', draft.needBy === null ? 'not said yet' : ways.date(draft.needBy, ''), x, half)
  if (of.job !== '') pen.labelled('Job', of.job, x, half)
  if (of.own.length > 0) pen.labelled('Besides', of.own.join('\n'), x, half)
  pen.y = Math.max(pen.y, leftEnd) + 6
  if (draft.noteToSupplier !== '') {
    pen.labelled('To the supplier', draft.noteToSupplier, MARGIN, WIDTH)
    pen.y += 2
  }
}
