import { sql, type SQL } from 'drizzle-orm'
import { rowsOf, type Database } from '#server/database/client'

/** What is counted: activities, a span, and the seminar whose students are meant. */
export interface Span {
  readonly seminarId: string
  readonly timeZone: string
  readonly activityIds: readonly string[]
  readonly from: string
  readonly to: string
}

const WORD = "[[:alnum:]_]+(?:(?:['’.:·]|,(?=[0-9]))[[:alnum:]_]+)*"
// after a full stop a small letter goes on with the sentence, whatever figures and marks lie between; after ! and ? it does not
const BETWEEN_SENTENCES = '(\\.[])"’”»\']*\\s(?![^[:alpha:].!?]*[[:lower:]])|[!?]+[])"’”»\']*\\s)(?![,;:–—-])'
const VOWELS = '[aeiouyà-åæè-ïò-öøù-ýÿœ]+'

const listOf = (ids: readonly string[]) =>
  sql.join(
    ids.map(id => sql`${id}::uuid`),
    sql`, `,
  )

/** What was said, by whom and to whom: tables `said`, `students`, `staff` and `meant` to begin a query with. */
const scope = ({ seminarId, activityIds, from, to }: Span): SQL => sql`
  said as (select c.id, c.author_id, c.activity_id, c.parent_id, c.shown_at, c.words, c.doc, p.author_id as answers,
    p.shown_at as answered_at from contributions c left join contributions p on p.id = c.parent_id
    where c.activity_id in (${listOf(activityIds)}) and c.state = 'shown' and c.type not in ('pageVersion', 'review')
      and c.shown_at >= ${from}::timestamptz and c.shown_at < ${to}::timestamptz),
  students as (select e.id from enrolments e where e.seminar_id = ${seminarId} and e.role = 'student' and e.state = 'active'),
  staff as (select e.id from enrolments e where e.seminar_id = ${seminarId} and e.role in ('instructor', 'assistant')),
  meant as (select id from students union select id from staff),
  edges as (select s.author_id as a, s.answers as b, count(*)::int as times from said s
    where s.answers <> s.author_id and s.author_id in (select id from meant) and s.answers in (select id from meant) group by 1, 2),
  heard as (select a.id from said a
    where exists (select 1 from contributions r
    where r.parent_id = a.id and r.state = 'shown' and r.type not in ('pageVersion', 'review')
    and r.author_id <> a.author_id and r.author_id in (select id from meant)))`

export interface PersonRecounted {
  readonly id: string
  readonly contributions: number
  readonly words: number
  readonly ownWords: number
  readonly sentences: number
  readonly syllables: number
  readonly days: number
  readonly depth: number | null
  readonly lead: number | null
  readonly wait: number | null
  readonly answered: number
  readonly answeredBy: number
  readonly got: number
  readonly heard: number
  readonly mutual: number
}

/** Each student's figures, counted by the database from the rows and documents as they stand; times in milliseconds. */
export const recountPeople = (db: Database, span: Span) =>
  rowsOf<PersonRecounted & Record<string, unknown>>(
    db,
    sql`
  with recursive ${scope(span)},
  -- words of one's own, line by line: documents are walked down to their texts, quotations left out
  walk as (
    select s.id, s.doc as node, '{}'::int[] as path, '{}'::int[] as block from said s
    union all
    select w.id, child.value, w.path || child.ordinality::int, case
      when child.value ->> 'type' in ('text', 'inlineMath', 'hardBreak', 'image') then w.block else w.path || child.ordinality::int end
    from walk w cross join lateral jsonb_array_elements(case when jsonb_typeof(w.node -> 'content') = 'array'
      and w.node ->> 'type' <> 'blockquote' then w.node -> 'content' else '[]' end) with ordinality child(value, ordinality)),
  pieces as (select id, path, block,
    coalesce(case when node ->> 'type' in ('inlineMath', 'blockMath') then node -> 'attrs' ->> 'latex' end,
    node ->> 'text') as piece, sum((node ->> 'type' = 'hardBreak')::int) over (partition by id order by path) as broken from walk),
  lines as (select id, btrim(regexp_replace(string_agg(piece, '' order by path), ${'[\\s\u00a0]+'}, ' ', 'g')) as line
    from pieces where piece is not null group by id, block, broken),
  counted as (select id,
    (case when line ~ '[[:alnum:]]' then 1 + (select count(*) from regexp_matches(line, ${BETWEEN_SENTENCES}, 'g'))
    else 0 end)::int as sentences,
    (select count(*) from regexp_matches(line, ${WORD}, 'g'))::int as words,
    (select coalesce(sum(greatest(1, n - case when n <= 1 then 0
      when word ~ '[^aeiouy]e$' then (word !~ '[^aeiouyl]le$')::int else (word ~ '[^aeiouytd]ed$|[^aeiouyscxzg]es$')::int end)), 0)
      from (select lower(m[1]) as word, (select count(*)::int from regexp_matches(lower(m[1]), ${VOWELS}, 'g')) as n
        from regexp_matches(line, ${`(${WORD})`}, 'g') m) x)::int as syllables from lines),
  texts as (select s.author_id, sum(c.sentences)::int as sentences, sum(c.words)::int as words,
    sum(c.syllables)::int as syllables from said s join counted c on c.id = s.id group by 1),
  -- how far down its thread each stands: up from it to what answers nothing
  up as (select s.id, s.author_id, s.parent_id, 0 as steps from said s union all
    select u.id, u.author_id, p.parent_id, u.steps + 1 from up u join contributions p on p.id = u.parent_id),
  -- what was due first: of what is asked, the earliest end of its phase, or of the activity; each moved by one's own extension
  ends as (select a.id as activity_id, x.id as expectation_id,
    coalesce((select p.ends_at from phases p where p.activity_id = a.id and p.name = x.rule ->> 'due'),
    (select max(p.ends_at) from phases p where p.activity_id = a.id), a.opens_at) as at
    from activities a join expectations x on x.activity_id = a.id where a.id in (${listOf(span.activityIds)})),
  dues as (select e.activity_id, s.id,
    min(greatest(e.at, (select x.due_at from extensions x
    where x.activity_id = e.activity_id and x.enrolment_id = s.id))) as at from ends e cross join students s group by 1, 2),
  leads as (select f.author_id, extract(epoch from f.at - d.at) * 1000 as lead
    from (select author_id, activity_id, min(shown_at) as at from said group by 1, 2) f
    join dues d on d.activity_id = f.activity_id and d.id = f.author_id)
  select s.id, (select count(*)::int from said where author_id = s.id) as contributions,
    (select coalesce(sum(words), 0)::int from said where author_id = s.id) as words,
    coalesce(t.words, 0) as "ownWords", coalesce(t.sentences, 0) as sentences, coalesce(t.syllables, 0) as syllables,
    (select count(distinct (shown_at at time zone ${span.timeZone})::date)::int from said where author_id = s.id) as days,
    (select max(steps)::int from up where author_id = s.id) as depth,
    (select percentile_cont(0.5) within group (order by lead)::float8 from leads where author_id = s.id) as lead,
    (select percentile_cont(0.5) within group (order by extract(epoch from shown_at - answered_at) * 1000)::float8
      from said where author_id = s.id and answers <> s.id) as wait,
    (select count(*)::int from edges where a = s.id and b in (select id from students)) as answered,
    (select count(*)::int from edges where b = s.id and a in (select id from students)) as "answeredBy",
    (select coalesce(sum(times), 0)::int from edges where b = s.id and a in (select id from students)) as got,
    (select count(*)::int from said join heard using (id) where author_id = s.id) as heard,
    (select count(*)::int from edges one join edges back on back.a = one.b and back.b = one.a
      where one.a = s.id and one.b in (select id from students)) as mutual
  from students s left join texts t on t.author_id = s.id`,
  )

/** What all said together: words of staff, pairs who answered, and how few have half of the words. */
export async function recountAll(db: Database, span: Span) {
  const [row] = await rowsOf<{
    contributions: number
    words: number
    staffWords: number
    heard: number
    linked: number
    mutual: number
    half: number
  }>(
    db,
    sql`
    with ${scope(span)},
    each_ as (select s.id, coalesce(sum(x.words), 0)::int as words from students s left join said x on x.author_id = s.id group by 1),
    falling as (select words, sum(words) over (order by words desc, id rows unbounded preceding) as so, row_number()
      over (order by words desc, id) as n, sum(words) over () as total from each_),
    pairs as (select least(a, b) as one, greatest(a, b) as other, count(*) as ways from edges
      where a in (select id from students) and b in (select id from students) group by 1, 2)
    select (select count(*)::int from said where author_id in (select id from students)) as contributions,
      (select sum(words)::int from each_) as words,
      (select coalesce(sum(words), 0)::int from said where author_id in (select id from staff)) as "staffWords",
        (select count(*)::int from said join heard using (id) where author_id in (select id from students)) as heard,
      (select count(*)::int from pairs) as linked, (select count(*)::int from pairs where ways = 2) as mutual,
        coalesce((select min(n)::int from falling where total > 0 and so * 2 >= total), 0) as half`,
  )
  return row!
}

/** Who answered whom, and who stands between others: all shortest ways, walked one by one. */
export async function recountNetwork(db: Database, span: Span) {
  const edges = await rowsOf<{ from: string; to: string; times: number }>(
    db,
    sql`with ${scope(span)} select a as "from", b as "to", times from edges`,
  )
  const between = await rowsOf<{ id: string; between: number }>(
    db,
    sql`
    with recursive ${scope(span)},
    nodes as (select id from students union select id from staff),
    reached as (select id as start, id as at, 0 as steps from nodes union select r.start, e.b, r.steps + 1
      from reached r join edges e on e.a = r.at where r.steps < 14),
    far as (select start, at, min(steps) as steps from reached group by 1, 2),
    ways as (select id as start, id as at, 0 as steps from nodes union all select w.start, e.b, w.steps + 1 from ways w
      join edges e on e.a = w.at join far f on f.start = w.start and f.at = e.b and f.steps = w.steps + 1),
    counts as (select start, at, steps, count(*)::float8 as n from ways group by 1, 2, 3)
    select v.id, coalesce((select sum(one.n * two.n / whole.n) from counts one join counts two on two.start = v.id
      join counts whole on whole.start = one.start and whole.at = two.at and whole.steps = one.steps + two.steps
      where one.at = v.id and one.start <> v.id and two.at <> v.id and one.start <> two.at),
        0)::float8 / ((select count(*) from nodes) - 1) / ((select count(*) from nodes) - 2) as between
    from nodes v`,
  )
  return { edges: [...edges], between: new Map(between.map(r => [r.id, r.between])) }
}

/** Contributions of students by local day and hour. */
export const recountRhythm = (db: Database, span: Span) =>
  rowsOf<{ day: string; hour: number; n: number }>(
    db,
    sql`
  with ${scope(span)} select ((shown_at at time zone ${span.timeZone})::date)::text as day,
    extract(hour from shown_at at time zone ${span.timeZone})::int as hour, count(*)::int as n from said
    where author_id in (select id from students) group by 1, 2`,
  )

/** Students' contributions with how many others' answers they got within the span, and whether any at all. */
export const recountEchoes = (db: Database, span: Span) =>
  rowsOf<{ id: string; answers: number; people: number; heard: boolean }>(
    db,
    sql`
  with ${scope(span)} select x.id, count(r.id)::int as answers, count(distinct r.author_id)::int as people,
    x.id in (select id from heard) as heard
  from said x left join said r on r.parent_id = x.id and r.author_id <> x.author_id
    and r.author_id in (select id from meant) where x.author_id in (select id from students) group by x.id, x.shown_at
    order by x.shown_at, x.id`,
  )

/** Of what a discussion asks, how much each student has done. */
export const recountChecks = (
  db: Database,
  { seminarId, timeZone }: Pick<Span, 'seminarId' | 'timeZone'>,
  activityId: string,
) =>
  rowsOf<{ id: string; asked: number; met: number; known: boolean }>(
    db,
    sql`
  with students as (select e.id from enrolments e where e.seminar_id = ${seminarId} and e.role = 'student' and e.state = 'active'),
  said as (select c.*, p.author_id as answers from contributions c left join contributions p on p.id = c.parent_id
    where c.activity_id = ${activityId} and c.state = 'shown'),
  asked as (select x.rule ->> 'kind' as kind, (x.rule ->> 'need')::int as need,
    coalesce((x.rule ->> 'minWords')::int, 0) as least, x.rule ->> 'what' as what from expectations x where x.activity_id = ${activityId})
  select s.id, (select count(*)::int from asked) as asked,
    (select bool_and(kind in ('entries', 'replies', 'activeDays', 'holds')) from asked) as known,
    (select count(*)::int from asked a where a.need <= case a.kind
      when 'entries' then (select count(*) from said c where c.author_id = s.id and c.type = 'post' and c.words >= a.least)
      when 'replies' then (select count(distinct c.answers) from said c
        where c.author_id = s.id and c.words >= a.least and c.answers <> s.id and c.answers in (select id from students))
      when 'activeDays' then (select count(distinct (c.shown_at at time zone ${timeZone})::date) from said c where c.author_id = s.id)
      when 'holds' then (select count(*) from said c
        where c.author_id = s.id and case a.what when 'source' then c.sources else c.figures end > 0) end) as met
  from students s`,
  )
