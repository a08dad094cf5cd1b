import { randomUUID } from 'node:crypto'
import type { H3Event } from 'h3'
import { startingRules } from '#core/approval/starting'
import { dayOf, fiscalPeriod, periodsOf } from '#core/base/day'
import { dec } from '#core/base/decimal'
import type { Beginning } from '#shared/contract/first-start'
import type { Me } from '#shared/contract/session'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, Problem, refused } from '../http/problem'
import { takeOneTimeKey } from '../people/one-time-store'
import { hashPassword } from '../people/password'
import { requireSoundPassword } from '../people/sound-password'
import { holidaysOf, regionsOf } from './holidays-of'
import { beginSession } from '../session/sign-in'
import { loadOrganisation } from '../settings/load-organisation'
import { isSetUp } from '../settings/reads'

/**
 * Enters the organisation whole: who it is, its periods, holidays and taxes, one department and place, whoever begins
 * as administrator, finance and buyer, and the policy that approval begins with. It happens once, by the key that the
 * start printed; whoever begins is signed in.
 */
export async function beginOrganisation(ctx: Context, event: H3Event, b: Beginning): Promise<Me> {
  if ((await takeOneTimeKey(ctx.tx, 'first start', b.key, ctx.now)) === null)
    throw new Problem(404, 'not-found', 'This address opens nothing any more; each start of Rekko prints a new one.')
  if (await isSetUp(ctx.tx)) throw refused(['An organisation is set up already.'])
  await check(b)
  const today = dayOf(ctx.now, b.timeZone)
  const [personId, departmentId, shipToId] = [randomUUID(), randomUUID(), randomUUID()]
  const { year } = fiscalPeriod(today, b.fiscalStartMonth)
  await loadOrganisation(ctx.tx, {
    organisation: {
      name: b.name,
      address: `${b.street}, ${`${b.postcode} ${b.town}`.trim()}`,
      timeZone: b.timeZone,
      baseCurrency: b.currency,
      fiscalStartMonth: b.fiscalStartMonth,
      orderTolerancePercent: '0',
      orderToleranceAmount: '0',
      mailFrom: b.mailFrom,
    },
    shipTos: [{ id: shipToId, name: b.town, street: b.street, postcode: b.postcode, town: b.town, country: b.country }],
    departments: [{ id: departmentId, name: b.department, costCentre: b.costCentre, usualShipToId: shipToId }],
    people: [
      {
        id: personId,
        name: b.person,
        email: b.email.toLowerCase(),
        passwordHash: await hashPassword(b.password),
        departmentId,
        decidingLimit: b.limit,
        orderingLimit: b.limit,
        roles: ['buyer', 'finance', 'administrator'],
      },
    ],
    absences: [],
    holidays: holidaysOf(b.country, b.region, today),
    taxCodes: [
      ...(b.taxRate === null ? [] : [{ code: 'S', name: 'Standard', category: 'S', rate: b.taxRate }]),
      ...(b.reducedRate === null ? [] : [{ code: 'R', name: 'Reduced', category: 'S', rate: b.reducedRate }]),
      { code: 'Z', name: 'No tax', category: 'Z', rate: '0' },
    ],
    rates: [],
    periods: [year, year + 1].flatMap((y) => periodsOf(y, b.fiscalStartMonth).map((p) => ({ year: y, ...p }))),
    accounts: [],
    budgetLines: [],
    suppliers: [],
    categories: [],
    items: [],
    kinds: [],
    jobs: [],
    policy: {
      id: randomUUID(),
      name: 'The policy of the first day',
      inForceAt: ctx.now,
      ending: 'fallback',
      ownLimitDays: null,
      fallbackId: personId,
      rules: startingRules(b.policy),
    },
  })
  const { key: _, password: __, ...after } = b
  await appendEvent(ctx, { type: 'organisation begun', subjectKind: 'settings', subjectId: personId, after })
  return beginSession(ctx, event, personId)
}

async function check(b: Beginning): Promise<void> {
  const wrong = (field: string, message: string, sentence: string) => invalid(sentence, [{ field, message }])
  if (!Intl.supportedValuesOf('timeZone').includes(b.timeZone))
    throw wrong('timeZone', 'is not known', 'Choose a time zone from the list.')
  if (!Intl.supportedValuesOf('currency').includes(b.currency))
    throw wrong('currency', 'is not known', 'Choose a currency from the list.')
  for (const [field, rate] of [
    ['taxRate', b.taxRate],
    ['reducedRate', b.reducedRate],
  ] as const)
    if (rate !== null && (dec(rate).isNegative() || dec(rate).gt(dec('100')) || dec(rate).places() > 3))
      throw wrong(
        field,
        'lies between 0 and 100',
        'A rate of tax lies between 0 and 100 %, with at most three decimals.',
      )
  if (dec(b.limit).isNegative() || dec(b.limit).places() > 4)
    throw wrong('limit', 'is no amount', 'A limit is an amount of nothing or more.')
  if (b.region !== '' && !regionsOf(b.country).some((r) => r.id === b.region))
    throw wrong('region', 'is not of this country', 'Choose a region of the country from the list.')
  await requireSoundPassword(b.password, null, [b.person, b.email, b.name], 'password')
}
