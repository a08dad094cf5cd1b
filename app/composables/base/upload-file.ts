import { ApiProblem, OFFLINE, problemOf } from './use-api'

/** Sends a file as the body of a request, and says how much of it is over there, 0 to 1. */
export function uploadFile<T>(
  path: string,
  file: Blob,
  query: Record<string, string>,
  onProgress: (share: number) => void,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', `${path}?${new URLSearchParams(query).toString()}`)
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.onprogress = (event) => {
      if (event.lengthComputable && event.total > 0) onProgress(event.loaded / event.total)
    }
    request.onerror = () => {
      reject(OFFLINE)
    }
    request.onload = () => {
      if (request.status >= 200 && request.status < 300)
        resolve((request.responseText === '' ? null : JSON.parse(request.responseText)) as T)
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
