import { defineEventHandler } from 'h3'
import { nothingHere } from '../http/nothing-here'

/** Any other address below /api. */
export default defineEventHandler(nothingHere)
