// The build takes these files into the server: nothing is looked for on disk while it runs.
import text from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-400-normal.woff'
import textFurther from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-ext-400-normal.woff'
import strong from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-600-normal.woff'
import strongFurther from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-ext-600-normal.woff'
import slant from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-400-italic.woff'
import slantFurther from 'raw:../../node_modules/@fontsource/literata/files/literata-latin-ext-400-italic.woff'
import ui from 'raw:../../node_modules/@fontsource/instrument-sans/files/instrument-sans-latin-400-normal.woff'
import uiFurther from 'raw:../../node_modules/@fontsource/instrument-sans/files/instrument-sans-latin-ext-400-normal.woff'
import uiStrong from 'raw:../../node_modules/@fontsource/instrument-sans/files/instrument-sans-latin-600-normal.woff'
import uiStrongFurther from 'raw:../../node_modules/@fontsource/instrument-sans/files/instrument-sans-latin-ext-600-normal.woff'

const bytes = (file: unknown) => Buffer.from(file as Uint8Array)

/** Fonts of what we print: each cut with what it holds of Latin, and an extension for further letters. */
export const PDF_FONTS: ReadonlyArray<readonly [name: string, latin: Buffer, further: Buffer]> = [
  ['text', bytes(text), bytes(textFurther)],
  ['strong', bytes(strong), bytes(strongFurther)],
  ['slant', bytes(slant), bytes(slantFurther)],
  ['ui', bytes(ui), bytes(uiFurther)],
  ['uiStrong', bytes(uiStrong), bytes(uiStrongFurther)],
]
