// @vitest-environment happy-dom
import { expect, it } from 'vitest'
import { cleanPasted } from './cleanPasted'

/** A line of a list as a word processor writes it: a paragraph with its marker typed. */
const line = (level: number, marker: string, words: string) =>
  `<p class=MsoListParagraph style='mso-list:l0 level${level} lfo1'><![if !supportLists]><span style='mso-list:Ignore'>${marker}<span style='font:7.0pt "Times"'>&nbsp;&nbsp; </span></span><![endif]>${words}<o:p></o:p></p>`

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
    '<ul><li><p>nineteen lasts</p></li></ul>',
  ],
  [
    'lists within lists, and numbers',
    `${line(1, '·', 'salt')}${line(2, 'o', 'white')}${line(2, 'o', 'grey')}${line(1, '·', 'grain')}<p>then</p>${line(1, '1.', 'weigh')}${line(1, '2.', 'write')}`,
    '<ul><li><p>salt</p><ul><li><p>white</p></li><li><p>grey</p></li></ul></li><li><p>grain</p></li></ul><p>then</p><ol><li><p>weigh</p></li><li><p>write</p></li></ol>',
  ],
  [
    'bullets beside numbers',
    `${line(1, '·', 'salt')}${line(1, '1.', 'weigh')}`,
    '<ul><li><p>salt</p></li></ul><ol><li><p>weigh</p></li></ol>',
  ],
  [
    'headings from the highest there is',
    '<h1>Tolls</h1><h2>Of salt</h2><h4>White</h4><p>a</p>',
    '<h3>Tolls</h3><h4>Of salt</h4><h4>White</h4><p>a</p>',
  ],
  [
    'what styles mean',
    '<b style="font-weight:normal"><p><span style="font-weight:700">b</span><span style="font-style:italic;vertical-align:super">i</span><span style="vertical-align:sub">2</span><span style="color:red">r</span></p></b>',
    '<p><strong>b</strong><em><sup>i</sup></em><sub>2</sub>r</p>',
  ],
  [
    'raised and lowered letters',
    '<p>m<sup>2</sup>, H<sub>2</sub>O</p>',
    '<p>m<sup>2</sup>, H<sub>2</sub>O</p>',
  ],
  [
    'tables',
    '<table width=90 border=1><tbody><tr><td width=45 colspan=2 style="x"><p class=MsoNormal>a</p></td></tr></tbody></table>',
    '<table><tbody><tr><td><p>a</p></td></tr></tbody></table>',
  ],
  ['style sheets and metadata', '<meta charset="utf-8"><style>p{color:red}</style><p>b</p>', '<p>b</p>'],
  ['handlers', '<p onclick="steal()">c</p>', '<p>c</p>'],
  ['a dash that is no marker', '<p>-5 degrees</p>', '<p>-5 degrees</p>'],
  [
    'what is meant stays',
    '<p><b>bold</b> and <i>slanted</i> <a href="https://example.org">link</a></p>',
    '<p><b>bold</b> and <i>slanted</i> <a href="https://example.org">link</a></p>',
  ],
])('cleans %s', (_, pasted, clean) => {
  expect(cleanPasted(pasted)).toBe(clean)
})
