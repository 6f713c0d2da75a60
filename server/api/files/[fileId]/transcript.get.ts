import { fileRoute } from '#server/http/fileRoute'
import * as filesEndpoints from '#shared/files/endpoints'

export default fileRoute(filesEndpoints.readFileTranscript, file => ({
  bytes: Buffer.from(file.transcript ?? 'WEBVTT\n'),
  type: 'text/vtt; charset=utf-8',
  name: 'transcript.vtt',
}))
