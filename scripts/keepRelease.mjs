// npm run db:keep -- 0.2.0: the demo's database as this release makes it, for the test that later releases bring it to theirs.
import { execFileSync } from 'node:child_process'
import { statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants } from 'node:zlib'
import pg from 'pg'
import { binary } from './cluster.mjs'
import { withDemoDatabase } from './demoDatabase.mjs'
import { ensurePackages } from './system.mjs'

const release = process.argv[2]
if (!/^\d+\.\d+\.\d+$/.test(release ?? '')) throw new Error('Name the release: npm run db:keep -- 0.2.0')
await ensurePackages()
await withDemoDatabase('release', async url => {
  await shortenFiles(url)
  const file = join('server/database/releases', `${release}.sql.br`)
  writeFileSync(file, packed(dumpOf(url)))
  console.log(`${file}: ${Math.round(statSync(file).size / 1000)} kB`)
})

/** A file of the repository should be small; what pictures and recordings hold is of no interest here. */
async function shortenFiles(url) {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  await client.query('update files set bytes = substring(bytes from 1 for 600)')
  await client.end()
}

/** Statements that any client can send: without what only psql understands, and without the queue's own tables. */
function dumpOf(url) {
  const options = ['--inserts', '--rows-per-insert=100', '--no-owner', '--no-privileges', '--no-comments']
  return execFileSync(binary('pg_dump'), [...options, '-N', 'pgboss', url], {
    maxBuffer: 2 ** 30,
  })
    .toString()
    .split('\n')
    .filter(line => !line.startsWith('\\'))
    .join('\n')
}

function packed(text) {
  const { BROTLI_PARAM_QUALITY, BROTLI_PARAM_LGWIN } = constants
  return brotliCompressSync(Buffer.from(text), {
    params: { [BROTLI_PARAM_QUALITY]: 11, [BROTLI_PARAM_LGWIN]: 24 },
  })
}
