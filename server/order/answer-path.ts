import { environment } from '../environment'
import { answerKeyOf } from './answer-key'

/** Where a supplier answers an order, below the address of the application. */
export const pathOf = (order: { readonly id: string }): string =>
  `/answer?key=${answerKeyOf(environment().sessionSecret, order.id)}`
