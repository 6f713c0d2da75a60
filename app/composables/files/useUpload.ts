import { v7 } from 'uuid'
import type { AttachLimits } from '#core/contributing/talkSettings'
import type { FileView } from '#shared/files/file'
import * as filesEndpoints from '#shared/files/endpoints'
import { useApi } from '../shell/useApi'
import { useSending } from '../shell/useSending'
import { toBase64 } from './readFile'

const MEGABYTE = 1_000_000 // bytes

/** Sends files to an activity one by one; what cannot be taken is said before it is sent. */
export function useUpload(activityId: string, limits: () => Pick<AttachLimits, 'megabytes'> | null) {
  const api = useApi()
  const { busy, problem, send } = useSending()
  const params = { activityId }
  async function upload(file: File): Promise<FileView | null> {
    const most = limits()?.megabytes
    if (most !== undefined && file.size > most * MEGABYTE) {
      problem.value = `“${file.name}” has ${(file.size / MEGABYTE).toFixed(1)} MB; up to ${most} MB are taken here.`
      return null
    }
    return send(async () =>
      api.call(filesEndpoints.addActivityFile, {
        params,
        body: { id: v7(), name: file.name, base64: await toBase64(file), transcript: null },
      }),
    )
  }
  return { busy, problem, upload }
}
