import { defineEventHandler } from 'h3'
import { refuseOtherMethods } from '../http/nothing-here'

export default defineEventHandler(refuseOtherMethods)
