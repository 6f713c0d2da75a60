// npm run bench -- others: how long one person waits while another has the server do what costs it most.
import { printOthers } from './others'

console.log('| what | measured |\n| --- | --- |')
await printOthers((what, figure) => console.log(`| ${what} | ${figure} |`))
