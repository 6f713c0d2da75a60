/**
 * Text for a cell of a file that a spreadsheet will open: what would be taken for a formula is led by an apostrophe, so that
 * it is read as text. Numbers stay numbers. Source: OWASP, CSV injection.
 */
export function safeCell(text: string): string {
  if (/^[+-]?\d+(?:[.,]\d+)?%?$/.test(text)) return text
  return /^[\s\u0000-\u001F]*[=+\-@\t\r|]/u.test(text) || /^[=+\-@＝＋－＠]/u.test(text) ? `'${text}` : text
}
