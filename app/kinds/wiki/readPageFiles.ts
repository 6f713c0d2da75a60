import { unzipSync } from 'fflate'

export interface PageFiles {
  readonly pages: ReadonlyArray<{ readonly name: string; readonly text: string }>
  /** Pictures that a page names, by their path beside the pages. */
  readonly pictures: ReadonlyArray<{ readonly path: string; readonly file: File }>
}
interface Part {
  readonly path: string
  readonly bytes: Uint8Array<ArrayBuffer>
}

const PAGE = /\.(md|markdown)$/i
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
}
const LARGEST = 25_000_000 // bytes of one part
const MOST_PARTS = 400

const extension = (path: string) => /\.([a-z\d]+)$/i.exec(path)?.[1]?.toLowerCase() ?? ''
const isWanted = (path: string) => PAGE.test(path) || extension(path) in TYPES

/**
 * Pages and their pictures in files somebody chose: Markdown, pictures, or a zip of both. Pictures that no page names are
 * left alone.
 *
 * @throws {Error} with a sentence, when there is no page in them or a zip cannot be unpacked
 */
export async function readPageFiles(files: readonly File[]): Promise<PageFiles> {
  const parts = (await Promise.all(files.map(partsOf))).flat()
  const pages = parts
    .filter(p => PAGE.test(p.path))
    .map(p => ({ name: p.path, text: new TextDecoder().decode(p.bytes) }))
  if (pages.length === 0)
    throw new Error('There is no page in what you chose. Choose Markdown files (.md), or a zip of them.')
  const words = pages.map(p => p.text).join('\n')
  const isNamed = (path: string) => {
    const name = path.split('/').at(-1)!
    return words.includes(name) || words.includes(encodeURI(name)) || words.includes(encodeURIComponent(name))
  }
  const pictures = parts
    .filter(p => !PAGE.test(p.path) && isNamed(p.path))
    .map(({ path, bytes }) => ({
      path,
      file: new File([bytes], path.split('/').at(-1)!, { type: TYPES[extension(path)] ?? '' }),
    }))
  return { pages, pictures }
}

async function partsOf(file: File): Promise<Part[]> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  if (!isZip) return isWanted(file.name) ? [{ path: file.name, bytes }] : []
  let count = 0
  try {
    const unpacked = unzipSync(bytes, {
      filter: part => isWanted(part.name) && part.originalSize <= LARGEST && ++count <= MOST_PARTS,
    })
    return Object.entries(unpacked).map(([path, part]) => ({ path, bytes: part }))
  } catch {
    throw new Error(`“${file.name}” could not be unpacked. Save it again, or choose the files in it.`)
  }
}
