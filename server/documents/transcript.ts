import { NotWebVtt, readWebVtt, type Cue } from '#core/files/webVtt'
import { refusedField } from '#server/http/problem'

/**
 * The lines of a transcript.
 * @throws {Problem} at the field `transcript`, with what is wrong in it
 */
export function readTranscript(source: string): Cue[] {
  try {
    return readWebVtt(source)
  } catch (error) {
    if (!(error instanceof NotWebVtt)) throw error
    throw refusedField(
      'transcript',
      error.reason,
      {
        noHeader: 'This is no WebVTT: its first line is not WEBVTT.',
        noCues: 'There is not a line in this transcript.',
        badTime: `The times in line ${error.line} of this transcript cannot be read, or run backwards. They look like 00:01:02.500 --> 00:01:06.000.`,
      }[error.reason],
    )
  }
}
