import { Parser } from 'htmlparser2'

const RUNS = new Set([
  'script',
  'style',
  'iframe',
  'frame',
  'frameset',
  'object',
  'embed',
  'applet',
  'link',
  'meta',
  'base',
  'form',
  'input',
  'button',
  'textarea',
  'select',
  'svg',
  'foreignobject',
  'portal',
  'template',
  'noscript',
  'animate',
  'set',
])
const SCHEME = /^[\s\u0000-\u001F]*([a-z][a-z0-9+.-]*)[\s\u0000-\u001F]*:/i
const ADDRESSES = new Set([
  'href',
  'src',
  'action',
  'formaction',
  'xlink:href',
  'poster',
  'srcset',
  'data',
  'cite',
])

/**
 * Whether HTML holds nothing that could run or reach elsewhere. Everything Jovrel renders holds to it; what
 * comes from outside is asked.
 */
export function runsNothing(html: string): boolean {
  let fine = true
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (RUNS.has(name)) fine = false
        for (const [key, value] of Object.entries(attributes)) {
          if (key.startsWith('on')) fine = false
          const scheme = ADDRESSES.has(key) ? SCHEME.exec(value)?.[1]?.toLowerCase() : undefined
          if (scheme !== undefined && !['http', 'https', 'mailto'].includes(scheme)) fine = false
        }
      },
    },
    { lowerCaseTags: true, lowerCaseAttributeNames: true, decodeEntities: true },
  )
  parser.write(html)
  parser.end()
  return fine
}
