import type { AttachedAs } from '#core/requisition/rules'
import type { AttachmentView } from '#shared/contract/document'
import { uploadFile } from '~/composables/base/upload-file'
import { ApiProblem, problemOf, sayError, type useApi } from '~/composables/base/use-api'
import type { useDraft } from './use-draft'

/** The files of a draft: attaching, saying what they are, taking off. A new draft is kept before its first file. */
export function useAttachments(
  d: ReturnType<typeof useDraft>,
  api: ReturnType<typeof useApi>,
  complain: (sentence: string) => void,
  progress: (now: { name: string; share: number } | null) => void,
) {
  async function attach(files: readonly File[]): Promise<void> {
    d.state.value = d.id.value === '' ? 'changed' : d.state.value
    if (!(await d.save())) {
      complain(d.trouble.value)
      return
    }
    for (const file of files) {
      progress({ name: file.name, share: 0 })
      try {
        d.attachments.value.push(
          await uploadFile(
            '/api/requisitions/{id}/attachments',
            {
              params: { id: d.id.value },
              query: { name: file.name.slice(0, 300) },
            },
            file,
            (share) => {
              progress({ name: file.name, share })
            },
          ),
        )
      } catch (e) {
        if (e instanceof ApiProblem) api.noticed(e)
        complain(`${file.name}: ${sayError(e)}`)
      }
    }
    progress(null)
  }

  async function describe(a: AttachmentView, as: { kind: AttachedAs; forSupplier: boolean }): Promise<void> {
    try {
      const now = await api.put('/api/requisitions/{id}/attachments/{attachmentId}', {
        params: { id: d.id.value, attachmentId: a.id },
        body: as,
      })
      d.attachments.value = d.attachments.value.map((x) => (x.id === a.id ? now : x))
    } catch (e) {
      complain(sayError(e))
    }
  }

  async function detach(id: string): Promise<void> {
    try {
      await api.remove('/api/requisitions/{id}/attachments/{attachmentId}', {
        params: { id: d.id.value, attachmentId: id },
      })
      d.attachments.value = d.attachments.value.filter((a) => a.id !== id)
    } catch (e) {
      complain(sayError(e))
    }
  }

  /** Fetches the files into the page, and returns what attaches them to the same draft once it is there again. */
  async function takeAside(): Promise<() => Promise<void>> {
    const id = d.id.value
    const kept: { as: AttachmentView; bytes: Blob }[] = []
    for (const as of d.attachments.value) {
      const file = await fetch(`/api/requisitions/${id}/attachments/${as.id}`)
      // What was not fetched could not be brought back: then nothing is thrown away.
      if (!file.ok) throw problemOf(file.status, undefined)
      kept.push({ as, bytes: await file.blob() })
    }
    return async () => {
      for (const { as, bytes } of kept) {
        const query = { name: as.name, kind: as.kind, forSupplier: String(as.forSupplier) }
        await uploadFile('/api/requisitions/{id}/attachments', { params: { id }, query }, bytes, () => undefined)
      }
    }
  }
  return { attach, describe, detach, takeAside }
}
