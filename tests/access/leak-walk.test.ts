import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { LIST_NAMES } from '#core/lists/list'
import { LINE_SOURCES } from '#core/requisition/line-source'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import type { RouteSpec } from '#shared/contract/route'
import {
  fiscalYear,
  freeLine,
  idOf,
  personId,
  raise,
  soundAgreement,
  soundDraft,
  startRekko,
  TODAY,
  until,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

/**
 * Every route that reads is walked with the ids of what one person has, by those who have nothing to do with it. Each
 * secret is a word that stands in one place only.
 */
const SECRETS = {
  title: 'zanderquill',
  why: 'mothraven',
  internal: 'duskpeel',
  telephone: '0199-443-8871',
  attention: 'Quillon Marrowby',
  line: 'gravelotte',
  file: 'ferrowick',
  question: 'ambertoll',
  answer: 'pellucine',
  draft: 'hollowbrant',
  regulars: 'wickermoss',
  template: 'larkenfold',
  view: 'thistlecrow',
  part: 'quarrelstone',
} as const
/** Where both requests go, so that they share an order. */
const PLACE = idOf('ship-to', 'Goods Yard')
type Secret = keyof typeof SECRETS

let rekko: Rekko
let owen: Client
const readers = new Map<string, Client>()
/** Addresses of each reading route, filled with what belongs to the one whose secrets they are. */
let addresses: Record<string, readonly string[]> = {}

const words = Object.values(SECRETS)
const query = (path: string, of: Record<string, string>) => `${path}?${new URLSearchParams(of).toString()}`

beforeAll(async () => {
  rekko = await startRekko()
  // Buys for one department, with which none of this has to do.
  await rekko.sql("insert into role_grant (person_id, role, department_id) values ($1, 'buyer', $2)", [
    personId('Wes Okafor'),
    idOf('department', 'Research Boat'),
  ])
  await rekko.sql('update budget_balance set budgeted = 1000000')
  owen = await rekko.as('Owen Marsh')
  const leonie = await rekko.as('Leonie Farrow')
  const { id, attachmentId } = await raiseWithSecrets()
  await leaveSecret(id)
  const line = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [id])
  await askAndDecide(id)
  const order = await orderWithPriya(leonie, String(line[0]?.id))
  const part = { id: randomUUID(), itemId: null, quantity: '1', unit: 'H87', estimate: null, description: SECRETS.part }
  const plan = { startsOn: null, endsOn: null, shipToId: null, budgetLineId: null, people: [], parts: [part] }
  await owen.call('PUT', `/api/jobs/${idOf('job', 'J-101')}`, { version: 0, body: plan })
  const kept = await keepForOneself()
  const signedOut = await rekko.as('Owen Marsh')
  await signedOut.call('DELETE', '/api/session')
  for (const name of ['Priya Lindqvist', 'Wes Okafor', 'Sorrel Quist']) readers.set(name, await rekko.as(name))
  readers.set('nobody', rekko.nobody).set('Owen, signed out', signedOut)
  const departmentId = idOf('department', 'Water Systems')
  const finds = words.map((w) => w.slice(0, 12))
  addresses = {
    readSession: ['/api/session'],
    readOrganisation: ['/api/organisation'],
    readProfile: ['/api/profile'],
    listTokens: ['/api/tokens'],
    readSecondFactor: ['/api/second-factor'],
    listSessions: ['/api/sessions'],
    listDemoPeople: ['/api/demo-people'],
    readHealth: ['/api/health'],
    readOpenApi: ['/api/openapi.json'],
    listNotices: ['/api/notices'],
    searchPeople: finds.map((w) => query('/api/people', { words: w })),
    listAbsences: ['/api/absences'],
    readAskedOrder: [`/api/order-answers/${'0'.repeat(64)}`],
    readCalendar: [`/api/calendars/${randomUUID()}`],
    listViews: ['mine', 'desk', 'orders'].map((place) => query('/api/views', { place })),
    browseCatalogue: [
      query('/api/catalogue', { words: SECRETS.line, departmentId }),
      query('/api/catalogue', { bought: 'me' }),
    ],
    readCatalogueChoices: ['/api/catalogue/choices'],
    readItem: [`/api/items/${idOf('item', 'CP-QS-25')}`],
    readItemPicture: [`/api/items/${idOf('item', 'CP-QS-25')}/pictures/${randomUUID()}`],
    searchItems: [query('/api/items', { words: SECRETS.line, departmentId })],
    searchSuppliers: finds.map((w) => query('/api/suppliers', { words: w })),
    findAlikeSuppliers: finds.map((name) => query('/api/suppliers/alike', { name })),
    readTaxForm: [`/api/suppliers/${kept.supplierId}/tax-form`],
    readSupplierPaper: [`/api/suppliers/${kept.supplierId}/papers/${randomUUID()}`],
    listAgreements: ['/api/agreements', ...finds.map((w) => query('/api/agreements', { words: w }))],
    exportAgreements: [query('/api/agreements/file', { as: 'csv' })],
    readAgreement: [`/api/agreements/${kept.agreementId}`],
    listOrderAgreements: [`/api/orders/${order}/agreements`],
    readBought: [`/api/suppliers/${kept.supplierId}/bought`],
    listDoubles: ['/api/suppliers/doubles'],
    reviewMerging: [query(`/api/suppliers/${kept.supplierId}/merging`, { into: kept.supplierId })],
    readSupplier: [`/api/suppliers/${kept.supplierId}`],
    readPersonPage: [`/api/people/${personId('Owen Marsh')}/page`],
    takePersonalData: [`/api/people/${personId('Owen Marsh')}/data`],
    takeOwnData: ['/api/profile/data'],
    readOpenFile: LIST_NAMES.map((list) => `/api/lists/${list}/files`),
    readLaidFile: [`/api/lists/items/files/${randomUUID()}`],
    listJobs: ['/api/jobs', ...finds.map((w) => query('/api/jobs', { words: w }))],
    readJob: [`/api/jobs/${idOf('job', 'J-101')}`],
    readChoices: ['/api/raise-choices'],
    readDraftFacts: [
      query('/api/draft-facts', { departmentId }),
      query('/api/draft-facts', { departmentId, requisitionId: id, ownerId: personId('Owen Marsh') }),
      query('/api/draft-facts', { departmentId, requisitionId: kept.draftId }),
    ],
    readRequisition: [`/api/requisitions/${id}`, `/api/requisitions/${kept.draftId}`],
    readRequisitionPdf: [`/api/requisitions/${id}/pdf`],
    readAttachment: ['', '?show=inline'].map((how) => `/api/requisitions/${id}/attachments/${attachmentId}${how}`),
    readMineFilters: ['/api/mine-filters'],
    exportMine: ['requests', 'lines'].map((of) => query('/api/requisitions/export', { of })),
    listMine: ['/api/requisitions', ...finds.map((w) => query('/api/requisitions', { words: w }))],
    readDecision: [`/api/documents/${id}/decision`],
    readRequestDecision: [`/api/requisitions/${id}/decision`],
    listWaiting: ['/api/waiting'],
    readTrail: [`/api/requisitions/${id}/trail`, `/api/requisitions/${kept.draftId}/trail`],
    listBudgets: ['/api/budgets'],
    planBudgetYear: ['/api/fiscal-years/2027/budget'],
    readYearEnd: [`/api/fiscal-years/${fiscalYear()}/end`],
    exportYearEnd: [`/api/fiscal-years/${fiscalYear()}/end/${id}/file?as=csv`],
    listBudgetEntries: (
      await rekko.sql<{ id: string }>('select distinct budget_line_id as id from budget_entry where document_id = $1', [
        id,
      ])
    ).map((l) => `/api/budgets/${l.id}/entries`),
    readDesk: ['/api/desk', '/api/desk?aside=yes', '/api/desk?supplier=several'],
    readOffers: [`/api/desk/lines/${String(line[0]?.id)}/offers`],
    proposeOrders: ['/api/proposed-orders', '/api/proposed-orders?mostRequests=3&by=department&within=7'],
    listRules: ['/api/ordering-rules'],
    listRuns: ['/api/ordering-runs', `/api/ordering-runs?rule=${RULE}`],
    readRun: [`/api/ordering-runs/${RUN}`],
    readTrayBuyers: [`/api/trays/${order}/buyers`],
    listOrders: ['/api/orders'],
    readOrder: [`/api/orders/${order}`],
    readOrderAttachment: [
      `/api/orders/${id}/attachments/${attachmentId}`,
      `/api/orders/${order}/attachments/${attachmentId}`,
    ],
    readOrderPdf: [`/api/orders/${order}/pdf`],
    exportOrders: ['/api/orders/file?as=csv', `/api/orders/file?as=csv&words=${encodeURIComponent('Corrigan')}`],
    readOrderUbl: [`/api/orders/${order}/ubl`],
    compareRevisions: [`/api/orders/${order}/differences?was=0&is=0`],
    readOwned: [`/api/people/${personId('Owen Marsh')}/owned`],
    readLineSource: LINE_SOURCES.flatMap((source) =>
      [...finds, ''].map((w) => query(`/api/line-sources/${source}`, { departmentId, words: w })),
    ),
    proposeAccount: [query('/api/account-proposal', { departmentId, words: SECRETS.line })],
    listRegulars: ['/api/regulars'],
    listTemplates: ['/api/templates'],
    beginFromTemplate: [`/api/templates/${kept.templateId}/copy`],
    beginFromRequisition: [`/api/requisitions/${id}/copy`, `/api/requisitions/${kept.draftId}/copy`],
    beginFromOrder: [`/api/orders/${order}/copy`],
    readRequestForm: ['/api/request-form'],
    readApprovalPolicy: ['/api/approval-policy'],
    readTriedRequest: finds.map((w) => `/api/approval-policy/requests/${encodeURIComponent(w)}`),
    readPolicyVersion: ['/api/approval-policy/versions/1'],
    readDecided: ['/api/decisions', ...finds.map((w) => query('/api/decisions', { words: w, whose: 'people' }))],
    listWaitingSteps: ['/api/waiting-steps', ...finds.map((w) => query('/api/waiting-steps', { words: w }))],
    listTransfers: ['/api/budget-transfers'],
    exportBudgets: ['/api/budgets/file?as=csv', '/api/budgets/file?as=xlsx'],
    listScheduled: ['/api/scheduled-work'],
    exportDecided: ['/api/decisions/file?as=csv'],
    readAuthority: ['/api/authority'],
    exportAuthority: [`/api/authority/file?as=csv&day=${TODAY}`],
    readEvents: ['/api/events', query('/api/events', { number: SECRETS.line })],
    exportEvents: ['/api/events/file'],
    readIntegrity: ['/api/integrity'],
    readFirstStart: ['/api/first-start'],
    readSetUp: ['/api/set-up'],
    readList: LIST_NAMES.map((list) => `/api/lists/${list}`),
    listChanges: LIST_NAMES.map((list) => `/api/lists/${list}/changes`),
    exportList: LIST_NAMES.map((list) => `/api/lists/${list}/file`),
    findAnything: finds.map((w) => query('/api/find', { words: w })),
  }
})
afterAll(() => rekko.stop())

/** A rule and a run of it that left a line, and says why with the line's own words. */
const [RULE, RUN] = [randomUUID(), randomUUID()]
async function leaveSecret(requisitionId: string): Promise<void> {
  const form = {
    ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'any', upTo: null },
    ...{ time: { each: 'approval' }, mostRequests: null, windowDays: null, byDepartment: false },
    ...{ choose: 'cheapest', waitFor: null },
  }
  await rekko.sql(
    `insert into ordering_rule (id, name, buyer_id, form, state, written_by_id)
      values ($1, 'A rule', $2, $3, 'ended', $2)`,
    [RULE, personId('Leonie Farrow'), form],
  )
  await rekko.sql(
    `insert into ordering_run (id, rule_id, buyer_id, form, cause, began_at, ended_at, last_at, "left")
      select $1, $2, $3, $4, 'time', now(), now(), now(), json_agg(json_build_object('lineId', id, 'reason',
        json_build_object('code', 'refused', 'why', 'Of “' || description || '” none can be ordered.')))
      from requisition_line where requisition_id = $5`,
    [RUN, RULE, personId('Leonie Farrow'), form, requisitionId],
  )
}

/** A request of Owen's above his own limit, so that it is decided, and questions are asked. */
async function raiseWithSecrets(): Promise<{ id: string; attachmentId: string }> {
  const draft = soundDraft([], {
    title: `Pump ${SECRETS.title}`,
    why: `because ${SECRETS.why}`,
    noteInternal: SECRETS.internal,
    telephone: SECRETS.telephone,
    attention: SECRETS.attention,
    shipToId: PLACE,
    lines: [freeLine('900', { description: `Part ${SECRETS.line}` })],
  })
  const id = randomUUID()
  expect((await owen.call('POST', '/api/requisitions', { body: { id, draft } })).status).toBe(200)
  const file = await owen.call<{ id: string }>(
    'POST',
    `/api/requisitions/${id}/attachments?name=${SECRETS.file}.pdf&kind=quote`,
    { raw: '%PDF-1.4\n%%EOF', headers: { 'content-type': 'application/pdf' } },
  )
  expect(file.status).toBe(200)
  const version = await versionOf(rekko, id)
  expect((await owen.call('POST', `/api/requisitions/${id}/send`, { version })).status).toBe(200)
  return { id, attachmentId: file.body.id }
}

async function askAndDecide(id: string): Promise<void> {
  const ines = await rekko.as('Ines Adeyemi')
  const at = () => versionOf(rekko, id)
  const ask = { body: { text: `How so, ${SECRETS.question}?` }, version: await at() }
  expect((await ines.call('POST', `/api/documents/${id}/questions`, ask)).status).toBe(200)
  const answer = { body: { text: `Since ${SECRETS.answer}` }, version: await at() }
  expect((await owen.call('POST', `/api/documents/${id}/answers`, answer)).status).toBe(200)
  const approve = { body: { outcome: 'approve', comment: '' }, version: await at() }
  expect((await ines.call('POST', `/api/documents/${id}/decisions`, approve)).status).toBe(200)
}

/** His line goes onto one order with a line of somebody else's. */
async function orderWithPriya(leonie: Client, lineId: string): Promise<string> {
  const priya = await rekko.as('Priya Lindqvist')
  const part = { part: 'FL-GLM-100', quantity: 1, account: '620' }
  const paid = soundDraft([part], { shipToId: PLACE }, 'Animal Care')
  const other = { ...paid, lines: paid.lines.map((l) => ({ ...freeLine('30'), id: l.id, codings: l.codings })) }
  const raised = await raise(priya, other)
  expect(raised.body.state).toBe('approved')
  const lines = other.lines.map((l) => l.id)
  const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: [lineId, ...lines].map((l) => ({ lineId: l, quantity: null })) },
  })
  expect([tray.status, tray.body]).toEqual([200, { orderId: expect.any(String) as string }])
  const { orderId } = tray.body
  expect((await leonie.call('POST', `/api/orders/${orderId}/issue`, { version: 1 })).status).toBe(200)
  await until(
    'its PDF',
    async () => (await rekko.sql('select 1 from order_revision where pdf_hash is not null')).length,
  )
  return orderId
}

/** What one keeps for oneself: a draft, regulars, a template, a view, a supplier that was proposed. */
async function keepForOneself() {
  const draftId = randomUUID()
  const draft = soundDraft([], { title: SECRETS.draft })
  expect((await owen.call('POST', '/api/requisitions', { body: { id: draftId, draft } })).status).toBe(200)
  const regulars = { name: SECRETS.regulars, departmentId: null, entries: [] }
  expect((await owen.call('POST', '/api/regulars', { body: regulars })).status).toBe(200)
  const template = await owen.call<{ id: string }>('POST', '/api/templates', {
    body: { name: SECRETS.template, departmentId: null, draft, rhythm: null },
  })
  expect(template.status).toBe(200)
  const view = { place: 'mine', name: SECRETS.view, query: 'view=open' }
  expect((await owen.call('POST', '/api/views', { body: view })).status).toBe(200)
  const [supplier] = await rekko.sql<{ id: string }>('select id from supplier order by number limit 1')
  // What of theirs would draw on it stands on its page.
  const greta = await rekko.as('Greta Molin')
  const agreed = await greta.call<{ id: string }>('POST', '/api/agreements', {
    body: soundAgreement(idOf('supplier', 'Harbour Waste')),
  })
  expect(agreed.status).toBe(200)
  return { draftId, templateId: template.body.id, supplierId: String(supplier?.id), agreementId: agreed.body.id }
}

/** What an address says to somebody, as text; of a file, only whether it is given tells something. */
async function said(reader: Client, path: string): Promise<{ status: number; text: string }> {
  const reply = await fetch(rekko.url + path, { headers: reader.cookie === '' ? {} : { cookie: reader.cookie } })
  return { status: reply.status, text: await reply.text() }
}

const READING = (ALL_ROUTES as readonly RouteSpec[]).filter((r) => r.method === 'GET' && r.bytes !== 'stream')

test('the walk has an address for every route that reads', () => {
  expect(Object.keys(addresses).sort()).toEqual(READING.map((r) => r.name).sort())
})

test('the one whose secrets they are meets each of them on the way', async () => {
  const met = new Set<Secret>()
  for (const { name } of READING)
    for (const path of addresses[name] ?? []) {
      const { text } = await said(owen, path)
      for (const secret of Object.keys(SECRETS) as Secret[]) if (text.includes(SECRETS[secret])) met.add(secret)
    }
  expect([...met].sort()).toEqual(Object.keys(SECRETS).sort())
})

test.each(['Priya Lindqvist', 'Wes Okafor', 'Sorrel Quist', 'nobody', 'Owen, signed out'])(
  '%s meets none of them anywhere',
  async (name) => {
    const reader = readers.get(name) ?? rekko.nobody
    const leaks: string[] = []
    for (const route of READING)
      for (const path of addresses[route.name] ?? []) {
        const { status, text } = await said(reader, path)
        expect([path, status < 500]).toEqual([path, true])
        // What an order asks of its supplier is read by everybody it serves; nothing else of the others'.
        const isShared = name === 'Priya Lindqvist' && path.includes('/orders')
        for (const word of words)
          if (text.includes(word) && !(isShared && word === SECRETS.line)) leaks.push(`${path}: ${word}`)
        const isTheirs = /\/(requisitions|templates)\/[0-9a-f-]{36}/.test(path)
        if (isTheirs) expect([path, status === 200]).toEqual([path, false])
        if (route.access !== 'public' && reader.cookie === '') expect([path, status]).toEqual([path, 401])
        if (route.access !== 'public' && name === 'Owen, signed out') expect([path, status]).toEqual([path, 401])
      }
    expect(leaks).toEqual([])
  },
)
