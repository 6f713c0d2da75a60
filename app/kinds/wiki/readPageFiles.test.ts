import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readPageFiles } from './readPageFiles'

const file = (name: string, content: string | Uint8Array) => new File([content as BlobPart], name)

describe('files that pages are imported from', () => {
  it('are pages and the pictures they name, chosen one by one', async () => {
    const { pages, pictures } = await readPageFiles([
      file('The moles.md', '![a](pictures/two%20moles.PNG)'),
      file('two moles.PNG', 'x'),
      file('unrelated.png', 'x'),
      file('notes.docx', 'x'),
    ])
    expect(pages).toEqual([{ name: 'The moles.md', text: '![a](pictures/two%20moles.PNG)' }])
    expect(pictures.map(p => [p.path, p.file.type])).toEqual([['two moles.PNG', 'image/png']])
  })

  it('are found in a zip, with their folders', async () => {
    const zip = zipSync({
      'wiki/Port.md': strToU8('![a](../pictures/1.jpg) ميناء'),
      'pictures/1.jpg': strToU8('x'),
      'index.html': strToU8('<p>no'),
    })
    const { pages, pictures } = await readPageFiles([file('wiki.zip', zip)])
    expect(pages).toEqual([{ name: 'wiki/Port.md', text: '![a](../pictures/1.jpg) ميناء' }])
    expect(pictures.map(p => p.path)).toEqual(['pictures/1.jpg'])
  })

  it('say what is wrong with them where there is no page, or a zip is damaged', async () => {
    await expect(readPageFiles([file('x.png', 'x')])).rejects.toThrow('There is no page in what you chose.')
    await expect(readPageFiles([file('x.zip', 'PK nothing')])).rejects.toThrow(
      '“x.zip” could not be unpacked.',
    )
  })
})
