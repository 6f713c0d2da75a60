import { generateJSON } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { unzipSync } from 'fflate'
import type { RichNode } from '#core/contributing/richText'
import { cleanPasted } from '../contributing/cleanPasted'

export interface Topic {
  readonly title: string
  readonly brief: RichNode
}

// the namespaces of the open standard, version by version
const TOPIC = /^http:\/\/www\.imsglobal\.org\/xsd\/ims(ccv1p\d\/imsdt_v1p\d|dt_v1p\d)/
const LARGEST = 5_000_000 // bytes of one topic

/**
 * Discussion topics of a Common Cartridge: one topic's XML, or a whole cartridge (zip), of which everything else is left
 * alone. Texts come in as if they were pasted: marked up as we know it, and nothing that runs.
 * Source: 1EdTech Common Cartridge Profile 1.1 to 1.3, discussion topic.
 *
 * @throws {Error} with a sentence, when there is no topic in the file
 */
export async function readTopics(file: File): Promise<Topic[]> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const parts = isZip ? unpack(bytes) : [bytes]
  const topics = parts.flatMap(part => topicsIn(new TextDecoder().decode(part)))
  if (topics.length === 0)
    throw new Error(
      `There is no discussion topic in “${file.name}”. Choose a cartridge (.imscc), or the XML of one topic.`,
    )
  return topics
}

function unpack(bytes: Uint8Array): Uint8Array[] {
  try {
    return Object.values(
      unzipSync(bytes, { filter: part => /\.xml$/i.test(part.name) && part.originalSize <= LARGEST }),
    )
  } catch {
    return []
  }
}

function topicsIn(xml: string): Topic[] {
  const parsed = new DOMParser().parseFromString(xml, 'application/xml')
  if (parsed.querySelector('parsererror')) return []
  return [...parsed.getElementsByTagName('*')]
    .filter(e => e.localName === 'topic' && TOPIC.test(e.namespaceURI ?? ''))
    .map(topic => {
      const child = (name: string) => [...topic.children].find(c => c.localName === name)
      const text = child('text')
      const written = text?.textContent ?? ''
      const html =
        text?.getAttribute('texttype') === 'text/plain'
          ? written
              .split(/\n+/)
              .map(
                line =>
                  `<p>${line.replace(/[&<>]/g, c => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c]!)}</p>`,
              )
              .join('')
          : cleanPasted(written)
      return {
        title: (child('title')?.textContent ?? '').trim().slice(0, 200) || 'A topic without a title',
        brief: generateJSON(html, [
          StarterKit.configure({ heading: { levels: [3] }, codeBlock: false }),
        ]) as RichNode,
      }
    })
}
