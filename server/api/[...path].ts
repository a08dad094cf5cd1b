import { defineEventHandler, setHeader, setResponseStatus } from 'h3'

/** Any other address below /api. */
export default defineEventHandler((event) => {
  setResponseStatus(event, 404)
  setHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify({
    type: 'urn:rekko:not-found',
    title: 'not found',
    status: 404,
    detail: 'There is nothing at this address; /api/openapi.json lists what there is.',
  })
})
