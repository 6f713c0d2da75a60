// Warm servers for the tests: each on a database of its own that can be reset to the seeded state in a moment.
import pg from 'pg'
import { freePort } from './cluster.mjs'
import { startServer } from './serve.mjs'

/**
 * Opens servers on copies of the seeded database; each outlives the tests that use it.
 * `select seed.reset()` in one of the databases makes its tables what they were; its server need not be started again.
 *
 * @param {string} template address of the seeded database
 * @param {string} build the server's entry file
 * @param {number} count how many
 * @param {Record<string, string>} serverEnv for the servers
 * @returns {Promise<{ open: { url: string, address: string }[], close: () => Promise<void> }>}
 */
export async function openTestServers(template, build, count, serverEnv) {
  const admin = await connect(withDatabase(template, 'postgres'))
  const names = Array.from({ length: count }, (_, i) => `${new URL(template).pathname.slice(1)}_${i + 1}`)
  for (const name of names) {
    const known = await admin.query('select 1 from pg_database where datname = $1', [name])
    if (known.rows.length > 0) continue
    await admin.query(`create database "${name}" template "${new URL(template).pathname.slice(1)}"`)
    await keepSeed(withDatabase(template, name))
  }
  await admin.end()
  const servers = await Promise.all(
    names.map(async name => {
      const url = withDatabase(template, name)
      const env = { PORT: String(await freePort()), DATABASE_URL: url, JOVREL_DEMO: '1', ...serverEnv }
      return { url, server: await startServer(build, env, { quiet: true }) }
    }),
  )
  return {
    open: servers.map(({ url, server }) => ({ url, address: server.address })),
    close: async () => {
      await Promise.all(servers.map(({ server }) => server.stop()))
    },
  }
}

async function connect(url) {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  return client
}

const withDatabase = (url, name) => Object.assign(new URL(url), { pathname: `/${name}` }).href

/** Keeps every row in a schema beside the tables, out of the way of anything that lists what Jovrel keeps. */
async function keepSeed(url) {
  const client = await connect(url)
  const { rows: columns } = await client.query(`
    select table_name as table, string_agg(quote_ident(column_name), ', ' order by ordinal_position) as names
    from information_schema.columns join information_schema.tables using (table_schema, table_name)
    where table_schema = 'public' and table_type = 'BASE TABLE' and is_generated = 'NEVER' group by table_name`)
  const name = c => `"${c.table}"`
  const copies = columns.map(c => `create table seed.${name(c)} as select ${c.names} from public.${name(c)}`)
  const inserts = columns.map(
    c => `insert into public.${name(c)} (${c.names}) select ${c.names} from seed.${name(c)};`,
  )
  await client.query(['create schema seed', ...copies].join(';\n'))
  await client.query(`create function seed.reset() returns void
    language plpgsql set session_replication_role = replica as $$ begin
    truncate ${columns.map(c => `public.${name(c)}`).join(', ')};
    ${inserts.join('\n    ')}
    delete from pgboss.job;
  end $$`)
  await client.query('analyze')
  await client.end()
}
