import { Node } from '@tiptap/core'
import Image from '@tiptap/extension-image'

/** A recording or video uploaded to the seminar, played in its place. */
const Recording = Node.create({
  name: 'recording',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes: () => ({ src: { default: '' }, name: { default: '' }, type: { default: '' } }),
  parseHTML: () => [],
  renderHTML: ({ HTMLAttributes: { src, type } }) => [
    String(type).startsWith('audio/') ? 'audio' : 'video',
    { src: String(src), controls: 'true', preload: 'metadata' },
  ],
})

/** A paper or other file, offered by its name. */
const Paper = Node.create({
  name: 'paper',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes: () => ({ src: { default: '' }, name: { default: '' }, type: { default: '' } }),
  parseHTML: () => [],
  renderHTML: ({ HTMLAttributes: { src, name } }) => [
    'p',
    { class: 'paper' },
    ['a', { href: String(src), target: '_blank' }, String(name)],
  ],
})

/** What a brief can hold beyond the text of a post. */
export const briefNodes = [Image, Recording, Paper]
