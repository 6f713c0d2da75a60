// Warm servers for the tests: each on a database of its own that can be put back to the seeded state in a moment.
import postgres from 'postgres'
import { freePort } from './cluster.mjs'
import { startServer } from './serve.mjs'

/**
 * Opens houses: copies of the seeded database, each with a server on it that outlives the tests.
 * `select seed.put_back()` in one of them makes its tables what they were; the server on it need not be started again.
 * @returns {Promise<{ open: { url: string, address: string }[], close: () => Promise<void> }>}
 */
export async function openHouses(template, build, count, env) {
  const servers = []
  const open = []
  const admin = postgres(withDatabase(template, 'postgres'), { max: 1, onnotice: () => {} })
  for (let i = 1; i <= count; i++) {
    await admin.unsafe(`create database house_${i} template "${new URL(template).pathname.slice(1)}"`)
    const url = withDatabase(template, `house_${i}`)
    await keepSeed(url)
    const server = await startServer(
      build,
      { PORT: await freePort(), DATABASE_URL: url, JOVREL_DEMO: '1', ...env },
      { quiet: true },
    )
    servers.push(server)
    open.push({ url, address: server.address })
  }
  await admin.end()
  return {
    open,
    close: async () => {
      for (const server of servers) await server.stop()
    },
  }
}

const withDatabase = (url, name) => Object.assign(new URL(url), { pathname: `/${name}` }).href

/** Keeps every row beside the tables, out of the way of anything that lists what Jovrel keeps. */
async function keepSeed(url) {
  const sql = postgres(url, { max: 1, onnotice: () => {} })
  const columns =
    await sql`select table_name as table, string_agg(quote_ident(column_name), ', ' order by ordinal_position) as names from information_schema.columns join information_schema.tables using (table_schema, table_name)
    where table_schema = 'public' and table_type = 'BASE TABLE' and is_generated = 'NEVER' group by table_name`
  const name = c => `"${c.table}"`
  await sql.unsafe(
    [
      'create schema seed',
      ...columns.map(c => `create table seed.${name(c)} as select ${c.names} from public.${name(c)}`),
    ].join(';\n'),
  )
  await sql.unsafe(`create function seed.put_back() returns void language plpgsql set session_replication_role = replica as $$ begin
    truncate ${columns.map(c => `public.${name(c)}`).join(', ')};
    ${columns.map(c => `insert into public.${name(c)} (${c.names}) select ${c.names} from seed.${name(c)};`).join('\n    ')}
    delete from pgboss.job;
  end $$`)
  await sql`analyze`
  await sql.end()
}
