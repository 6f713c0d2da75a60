import type { RichNode } from '#core/contributing/richText'
import { changedText, type ChangedBlock } from '#core/kinds/wiki/changedText'
import { comparePages } from '#core/kinds/wiki/comparePages'
import { PageReader } from '#core/kinds/wiki/pageText'
import type { ChangeBlock } from '#shared/marking/desk'

export interface TwoVersions {
  readonly before: RichNode | null // null: it is the first
  readonly after: RichNode
}
export interface VersionChange {
  readonly blocks: readonly ChangeBlock[]
  readonly text: string // the words it added, a passage a line
}

/** What a version changed against the one before. */
export function versionChange({ before, after }: TwoVersions): VersionChange {
  const reader = new PageReader()
  const [a, b] = [reader.read(before ?? { type: 'doc' }), reader.read(after)]
  const blocks = changedText(a, b, comparePages(a, b))
    .filter(block => block.as !== 'kept' || block.moved !== null)
    .map(asBlock)
  const added = blocks.flatMap(block =>
    block.as === 'movedAway' ? [] : block.parts.filter(p => p.as === 'added').map(p => p.text),
  )
  return { blocks, text: added.join('\n') }
}

const asBlock = (block: ChangedBlock): ChangeBlock => ({
  as: block.as,
  moved: block.moved,
  heading: block.node.type === 'heading',
  parts: block.parts
    .map(p => ({
      as: p.as,
      text: p.nodes
        .map(n => n.text ?? SIGNS[n.type] ?? '')
        .join('')
        .replace(/\n/g, ' '),
    }))
    .filter(p => p.text !== ''),
})
const SIGNS: Readonly<Record<string, string>> = {
  footnote: '[note]',
  inlineMath: '[formula]',
  hardBreak: ' ',
}
