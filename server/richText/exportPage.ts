import { escapeHTML } from '@tiptap/static-renderer/json/html-string'

/**
 * A whole HTML document that needs nothing of ours: its style comes along, scripts do not run, and pictures
 * are its own or beside it.
 * @param title plain text
 * @param style CSS
 * @param body HTML
 */
export const exportPage = (title: string, style: string, body: string) => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="content-security-policy"
  content="default-src 'none'; style-src 'unsafe-inline'; img-src 'self' file:">
<title>${escapeHTML(title)}</title>
<style>
${style.trim()}
</style>
</head>
<body>
${body}
</body>
</html>
`
