import type { AnyRoute, Input, Reply, RouteAt } from '#shared/contract/all-routes'
import { ApiProblem, fillPath, OFFLINE, problemOf } from './use-api'

type UploadPath = Extract<AnyRoute, { method: 'POST'; bytes: 'upload' }>['path']

/** Sends a file as the body of a request, and says how much of it is over there, 0 to 1. */
export function uploadFile<P extends UploadPath>(
  path: P,
  to: {
    readonly params: Input<RouteAt<'POST', P>, 'params'>
    readonly query: Input<RouteAt<'POST', P>, 'query'>
  },
  file: Blob,
  onProgress: (share: number) => void,
): Promise<Reply<RouteAt<'POST', P>>> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    const query = new URLSearchParams(to.query as Record<string, string>)
    request.open('POST', `${fillPath(path, to.params as Record<string, string>)}?${query.toString()}`)
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.onprogress = (event) => {
      if (event.lengthComputable && event.total > 0) onProgress(event.loaded / event.total)
    }
    request.onerror = () => {
      reject(OFFLINE)
    }
    request.onload = () => {
      if (request.status >= 200 && request.status < 300)
        resolve((request.responseText === '' ? null : JSON.parse(request.responseText)) as never)
      else reject(readProblem(request))
    }
    request.send(file)
  })
}

function readProblem(request: XMLHttpRequest): ApiProblem {
  try {
    return problemOf(request.status, JSON.parse(request.responseText) as Parameters<typeof problemOf>[1])
  } catch {
    return problemOf(request.status, undefined)
  }
}
