import { addDays, dayOf, type Day } from '#core/base/day'
import { BLANK_DRAFT, type Draft } from '#core/requisition/draft'
import { asRegular } from '#core/requisition/line-source'
import type { Db } from '../server/db/client'
import { inTransaction } from '../server/db/transaction'
import type { Context } from '../server/context'
import { findActor } from '../server/people/actor-reads'
import { makeRegulars } from '../server/regulars/regular-lists'
import { makeTemplate, type AskedRhythm } from '../server/regulars/templates'
import { createDraft } from '../server/requisition/save-draft'
import { sendRequisition } from '../server/requisition/send-requisition'
import { loadRequestForm } from '../server/settings/load-organisation'
import { proposeSupplier } from '../server/supplier/propose-supplier'
import { enterAgreements } from './agreements'
import { draftOf } from './draft-of'
import { idOf } from './ids'
import { keepOrderingRules } from './ordering-rules'
import { planJobs } from './job-parts'
import { keepLists } from './kept-lists'
import { draftPolicy } from './policy-draft'
import { decideOneByMail, leaveOneHeld, putPolicyInForce } from './policy-in-force'
import { keepSupplierRecords } from './supplier-records'
import type { NeedLine } from './world/needs'
import { DEPARTMENT_ROWS, personId } from './world/people'
import { JOBS, OWN_FIELDS, RULES } from './world/request-form'

const part = (of: string, quantity: number, account?: string): NeedLine =>
  account === undefined ? { part: of, quantity } : { part: of, quantity, account }
const fieldId = (name: string): string => idOf('own field', name)
const departmentId = (name: string): string => DEPARTMENT_ROWS.find((d) => d.name === name)?.id ?? ''

interface Kept {
  readonly by: string
  readonly department: string
  readonly name: string
  readonly shared: boolean
  readonly lines: readonly NeedLine[]
}

const REGULARS: readonly Kept[] = [
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    name: 'Night-shift box',
    shared: false,
    lines: [part('CP-SSK-28', 2), part('CP-GS-25', 6), part('ST-HC-60', 10), part('NW-FB-50', 20)],
  },
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    name: 'Lamp change, one bank',
    shared: true,
    lines: [part('CP-UV-80A', 6), part('CP-QS-25', 6), part('CP-GS-25', 12), part('HW-LB-60', 1, '616')],
  },
  {
    by: 'Rosa Castell',
    department: 'Water Systems',
    name: 'Monthly water chemistry',
    shared: true,
    lines: [part('FL-SAL-500', 2), part('NW-TS-5', 1)],
  },
  {
    by: 'Priya Lindqvist',
    department: 'Animal Care',
    name: 'Quarantine, first day',
    shared: true,
    lines: [part('FL-GLM-100', 4), part('FL-SW-100', 2), part('LV-DI-5', 2), part('LV-SY-10', 1)],
  },
  {
    by: 'Bryn Tolliver',
    department: 'Rescue Centre',
    name: 'A seal pup comes in',
    shared: true,
    lines: [part('CF-SPF-5', 1), part('LV-FT-10', 1), part('LV-EL-1', 1), part('LV-FS-10', 1)],
  },
]

const TEMPLATES: readonly (Kept & {
  readonly why: string
  readonly every?: AskedRhythm['every']
  readonly inDays?: number
  readonly sends?: boolean
})[] = [
  {
    by: 'Priya Lindqvist',
    department: 'Animal Care',
    name: 'Reagents, monthly set',
    shared: true,
    why: 'the monthly set for the laboratory',
    every: 'month',
    inDays: 9,
    lines: [part('FL-SAL-500', 8), part('FL-NO3-100', 2), part('FL-NO2-100', 2), part('FL-ALK-1', 2)],
  },
  {
    by: 'Kaveh Dorani',
    department: 'Animal Care',
    name: 'Krill and herring',
    shared: false,
    why: 'the freezer is planned for four weeks',
    every: 'month',
    inDays: 16,
    sends: true,
    lines: [part('CF-KR-10', 12), part('CF-HE-20', 8)],
  },
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    name: 'Ozone generator, yearly service',
    shared: true,
    why: 'generator G40 is due after 8,000 hours',
    every: 'year',
    inDays: 70,
    lines: [part('NW-OK-40', 1), part('NW-OT-8', 25), part('NW-AD-2', 1)],
  },
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    name: 'Lamps of a filter bank',
    shared: false,
    why: 'the lamps of the bank have passed 9,000 hours',
    lines: [part('CP-UV-80A', 6), part('CP-QS-25', 2)],
  },
]

/** Drafts in every stage of being written, for whoever wants to go on with one. */
const DRAFTS: readonly {
  readonly by: string
  readonly department: string
  readonly draft: Partial<Draft>
  readonly lines: readonly NeedLine[]
}[] = [
  { by: 'Owen Marsh', department: 'Water Systems', draft: { needBy: null, why: '' }, lines: [] },
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    draft: {
      title: 'Flow meter for the ring tank',
      why: 'nobody knows what the ring tank really turns over',
      needBy: null,
      jobId: JOBS[0]?.id ?? null,
    },
    lines: [part('NW-FM-20', 2, '610')],
  },
  {
    by: 'Owen Marsh',
    department: 'Water Systems',
    draft: {
      kind: 'service',
      title: 'Lining of the sump',
      why: 'the sump sweats through the north wall',
      noteInternal: 'Two firms were here last week, their quotes come by post.',
    },
    lines: [
      {
        text: 'Resin lining of sump 2, 18 m²',
        quantity: 1,
        price: '2400',
        unit: 'E48',
        account: '616',
        supplier: null,
      },
    ],
  },
  {
    by: 'Sorrel Quist',
    department: 'Research Boat',
    draft: {
      kind: 'travel',
      title: 'Survey meeting, Tidewell',
      why: 'the transects of next year are shared out',
      needBy: null,
    },
    lines: [{ text: 'Rail, return', quantity: 1, price: '86', unit: 'E48', account: '630', supplier: null }],
  },
  {
    by: 'Priya Lindqvist',
    department: 'Animal Care',
    draft: {
      title: 'Fixing solution',
      why: 'the collection of the winter survey is fixed in January',
      attention: 'Priya Lindqvist',
      shipToDetail: 'Laboratory, first floor',
    },
    lines: [part('FL-FO-5', 2), part('FL-SB-250', 1)],
  },
]

/**
 * The first that were sent since a service and a journey are told apart from goods, with what is asked for with them.
 */
const sentOfKinds = (today: Day): typeof DRAFTS => [
  {
    by: 'Sorrel Quist',
    department: 'Research Boat',
    draft: {
      kind: 'travel',
      title: 'Slipway inspection, Graven',
      why: 'the slip has to be seen before the refit is booked there',
      own: {
        [fieldId('Who travels')]: personId('Sorrel Quist'),
        [fieldId('Comes back on')]: addDays(today, 21),
        [fieldId('Funded by')]: 'own budget',
      },
      readWarnings: [idOf('rule', 'travel')],
    },
    lines: [
      { text: 'Rail and ferry, return', quantity: 1, price: '148', unit: 'E48', account: '630', supplier: null },
      { text: 'Lodging, two nights', quantity: 2, price: '92', unit: 'E48', account: '630', supplier: null },
    ],
  },
  {
    by: 'Bryn Tolliver',
    department: 'Rescue Centre',
    draft: {
      kind: 'service',
      title: 'Yearly test of the lifting harness',
      why: 'the certificate runs out in December',
      own: { [fieldId('Hours expected')]: '3' },
    },
    lines: [
      { text: 'Load test with certificate', quantity: 1, price: '180', unit: 'E48', account: '640', supplier: null },
    ],
  },
  // Each within what the veterinary lead may approve, and together more.
  ...(['first', 'second'] as const).map((half) => ({
    by: 'Priya Lindqvist',
    department: 'Rescue Centre',
    draft: {
      kind: 'goods',
      title: `Quarantine nets, ${half} half`,
      why: 'the old ones are torn, and the pups come in February',
    },
    lines: [
      {
        text: `Quarantine net, ${half} half`,
        quantity: 2,
        price: '390',
        unit: 'EA',
        account: '640',
        supplier: 'Mistral Chandlery',
      },
    ],
  })),
]

/** What people of Hallamere keep for another time, what purchasing asks for since this month, and who proposed whom. */
export async function layKeepsakes(db: Db, now: Date, timeZone: string): Promise<void> {
  const today = dayOf(now, timeZone)
  const as = <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>): Promise<T> =>
    inTransaction(db, async (tx) => {
      const actor = await findActor(tx, personId(name), at)
      if (actor === null) throw new Error(`${name} is gone`)
      return work({ tx, now: at, actor })
    })
  const draft = (k: { department: string; lines: readonly NeedLine[] }, key: string, at = now): Draft =>
    draftOf({ department: k.department, by: [], title: '', why: '', lines: k.lines }, dayOf(at, timeZone), key)
  for (const r of REGULARS) {
    await as(r.by, now, (ctx) =>
      makeRegulars(
        ctx,
        r.name,
        r.shared ? departmentId(r.department) : null,
        draft(r, `regulars ${r.name}`).lines.map(asRegular),
      ),
    )
  }
  for (const t of TEMPLATES) {
    const rhythm =
      t.every === undefined
        ? null
        : { every: t.every, startsOn: addDays(today, t.inDays ?? 20), sendsItself: t.sends ?? false, neededAfter: 8 }
    await as(t.by, now, (ctx) =>
      makeTemplate(ctx, {
        name: t.name,
        departmentId: t.shared ? departmentId(t.department) : null,
        draft: { ...draft(t, `template ${t.name}`), title: t.name, why: t.why },
        rhythm,
      }),
    )
  }
  await keepSupplierRecords(as, now, timeZone)
  await enterAgreements(as, now, timeZone)
  await keepOrderingRules(db, as, now, timeZone)
  await planJobs(as, now, timeZone)
  await keepLists(as, now, timeZone)
  await putPolicyInForce(as, now)
  await draftPolicy(as, now)
  await leaveOneHeld(as, now, {
    ...draft(
      {
        department: 'Purchasing and Finance',
        lines: [
          { text: 'Two-day course, contracts', quantity: 1, price: '620', unit: 'E48', account: '650', supplier: null },
        ],
      },
      'held course',
      new Date(now.getTime() - 3 * 86_400_000),
    ),
    ...{ title: 'A course about contracts', why: 'three framework agreements end this winter' },
  })
  await decideOneByMail(as, now, 'Rosa Castell', {
    ...draft(
      {
        department: 'Water Systems',
        lines: [
          { text: 'Calibration of two probes', quantity: 2, price: '168', unit: 'E48', account: '620', supplier: null },
        ],
      },
      'by mail',
      new Date(now.getTime() - 30 * 3_600_000),
    ),
    ...{ title: 'Calibration of the probes', why: 'their certificates end this month' },
  })
  await as('Priya Lindqvist', new Date(now.getTime() - 26 * 3_600_000), (ctx) =>
    proposeSupplier(ctx, {
      name: 'Cold Harbour Optics',
      town: 'Cold Harbour',
      address: 'Lens Lane 4, Cold Harbour',
      email: 'hello@coldharbour.example',
      telephone: '0100 44 812',
      taxNumber: 'HL7733120',
      currency: 'EUR',
      note: 'They repair the old microscopes that Elmhurst no longer takes.',
    }),
  )
  await inTransaction(db, (tx) => loadRequestForm(tx, { ownFields: OWN_FIELDS, rules: RULES }))
  for (const [i, d] of DRAFTS.entries()) {
    const at = new Date(now.getTime() - (i + 1) * 5_400_000)
    await as(d.by, at, (ctx) =>
      createDraft(ctx, idOf('requisition', `kept draft ${i}`), {
        ...BLANK_DRAFT,
        ...draft(d, `kept draft ${i}`, at),
        ...d.draft,
      }),
    )
  }
  for (const [i, d] of sentOfKinds(today).entries()) {
    const at = new Date(now.getTime() - (i + 1) * 11_000_000)
    const id = idOf('requisition', `sent of a kind ${i}`)
    await as(d.by, at, async (ctx) => {
      await createDraft(ctx, id, { ...draft(d, `sent of a kind ${i}`, at), needBy: addDays(today, 19), ...d.draft })
      await sendRequisition(ctx, id, 1)
    })
  }
}
