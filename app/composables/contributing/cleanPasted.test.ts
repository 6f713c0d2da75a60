import { expect, it } from 'vitest'
import { cleanPasted } from './cleanPasted'

it.each([
  [
    'office paragraphs',
    '<!--StartFragment--><p class=MsoNormal style=\'margin:0cm\'><span lang=EN-GB style="font-size:12pt">The toll roll<o:p></o:p></span></p><!--EndFragment-->',
    '<p>The toll roll</p>',
  ],
  ['conditional sections', '<!--[if !supportLists]--><p>a</p><!--[endif]-->', '<p>a</p>'],
  [
    'typed bullets',
    '<p class="MsoListParagraph"><span>·&nbsp;&nbsp; </span>nineteen lasts</p>',
    '<p>nineteen lasts</p>',
  ],
  ['style sheets and metadata', '<meta charset="utf-8"><style>p{color:red}</style><p>b</p>', '<p>b</p>'],
  ['handlers', '<p onclick="steal()">c</p>', '<p>c</p>'],
  [
    'what is meant stays',
    '<p><b>bold</b> and <i>slanted</i> <a href="https://example.org">link</a></p>',
    '<p><b>bold</b> and <i>slanted</i> <a href="https://example.org">link</a></p>',
  ],
])('cleans %s', (_, pasted, clean) => {
  expect(cleanPasted(pasted)).toBe(clean)
})
