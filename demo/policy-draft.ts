import type { PolicyForm } from '#core/approval/policy-form'
import { money } from '#core/base/money'
import { readApprovalPolicy } from '../server/decide/read-policy'
import { keepDraft } from '../server/decide/policy-draft'
import type { Context } from '../server/context'

/** The draft of the next policy as it lies there: small sums would be nobody's to decide, and what waits is noticed. */
export async function draftPolicy(
  as: <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>,
  now: Date,
): Promise<void> {
  await as('Harriet Voss', new Date(now.getTime() - 20 * 3_600_000), async (ctx) => {
    const { form, draft } = await readApprovalPolicy(ctx)
    const [spares, chain, ...rest] = form.rules
    if (spares === undefined || chain === undefined) throw new Error('the policy has other rules')
    const from = money('300.00 EUR')
    const next: PolicyForm = {
      ...form,
      name: 'Nothing below 300 is asked of managers; what waits is noticed',
      ending: 'passes',
      remindDays: 2,
      escalateDays: 5,
      rules: [spares, { ...chain, conditions: [{ on: 'amount', from }] }, ...rest],
    }
    await keepDraft(ctx, draft?.version ?? 0, next)
  })
}
