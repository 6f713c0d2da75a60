import { fileRoute } from '#server/http/fileRoute'

export default fileRoute(file => ({
  bytes: Buffer.from(file.transcript ?? 'WEBVTT\n'),
  type: 'text/vtt; charset=utf-8',
  name: 'transcript.vtt',
}))
