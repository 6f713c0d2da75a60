/**
 * What a word processor puts on the clipboard, before the editor reads it: comments, conditional sections, style sheets
 * and office markup go; lists that come as numbered paragraphs lose their typed bullets. The editor's own schema then
 * keeps only what it knows.
 */
export function cleanPasted(html: string): string {
  return html
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/<(style|script|xml|title|meta|link|o:p|w:[a-z]+)\b[^>]*>[\s\S]*?<\/\1>/gi, '')
    .replace(/<\/?(meta|link|o:[a-z]+|w:[a-z]+|v:[a-z]+|st1:[a-z]+|font|span)\b[^>]*>/gi, '')
    .replace(
      /\s(class|style|lang|dir|id|align|width|height|face|color|data-[a-z-]+|on[a-z]+)=("[^"]*"|'[^']*'|[^\s>]+)/gi,
      '',
    )
    .replace(/<p>(?:&nbsp;|\s)*[·•o§](?:&nbsp;|\s)+/g, '<p>')
    .replace(/<p>(?:&nbsp;|\s)*<\/p>/g, '')
    .replace(/&nbsp;/g, ' ')
}
