// npm run bench -- scale: how pages open with twenty times the demo's contributions.
import { printScale } from './scale'

console.log('| what | measured |\n| --- | --- |')
await printScale((what, figure) => console.log(`| ${what} | ${figure} |`))
