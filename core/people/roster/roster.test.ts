import { strToU8, zipSync } from 'fflate'
import fc from 'fast-check'
import { stringify } from 'csv-stringify/sync'
import { describe, expect, it } from 'vitest'
import { compareRoster, type Enrolled } from './compareRoster'
import { decodeText } from './decodeText'
import { readOneRoster } from './readOneRoster'
import { readRosterCsv } from './readRosterCsv'

const utf8 = (text: string) => new TextEncoder().encode(text)
const western = (text: string) => Uint8Array.from(text, c => c.charCodeAt(0))
const names = (bytes: Uint8Array) =>
  readRosterCsv(bytes).rows.map(r => `${r.givenName}|${r.familyName}|${r.email}`)

describe('a roster of separated values', () => {
  it.each([[','], [';'], ['\t'], ['|']])(
    'is read with "%s" between its cells, whatever the order of columns',
    s => {
      const bytes = utf8(
        ['Section', 'E-mail', 'Family name', 'Given name'].join(s) +
          '\r\n' +
          ['A', 'Liv@Northmere.example', 'Brandt', 'Liv'].join(s) +
          '\r\n',
      )
      expect(readRosterCsv(bytes)).toMatchObject({
        rows: [
          {
            line: 2,
            email: 'liv@northmere.example',
            givenName: 'Liv',
            familyName: 'Brandt',
            section: 'A',
            group: null,
            studentNumber: null,
            role: 'student',
          },
        ],
        faults: [],
      })
    },
  )

  it('reads groups from a column of their own, beside sections', () => {
    const { rows, columns } = readRosterCsv(utf8('mail;name;Gruppe;Team\na@x.example;Al Ma;B;Dredge\n'))
    expect(rows).toMatchObject([{ section: 'B', group: 'Dredge' }])
    expect(columns?.map(c => c.field)).toEqual(['email', 'name', 'section', 'group'])
  })

  it('reads byte order marks, quotes, commas and line breaks inside cells', () => {
    expect(
      names(
        utf8(
          '\ufeffname,email\n"Estrada-Holm, Mireille",m@x.example\n"Nico ""the pilot"" Corvo",n@x.example\n',
        ),
      ),
    ).toEqual(['Mireille|Estrada-Holm|m@x.example', 'Nico "the pilot"|Corvo|n@x.example'])
    const roster = readRosterCsv(
      utf8('name,email,section\n"Kadri\nIlves",k@x.example,A\nAbena Kwarteng,bad,B\n'),
    )
    expect(roster.faults).toEqual([{ code: 'badEmail', line: 4, value: 'bad' }])
  })

  it('gives back what was written, for any names', () => {
    const word = fc
      .string({ minLength: 1, maxLength: 12, unit: 'grapheme' })
      .map(s => s.normalize('NFC').replace(/[\s\u0000-\u001f\u007f-\u009f\ufeff,]/gu, ''))
      .filter(s => s !== '' && !/^[=+@-]/.test(s) && s.trim() === s && s.length < 60)
    fc.assert(
      fc.property(
        fc.array(fc.tuple(word, word), { minLength: 1, maxLength: 8 }),
        fc.constantFrom(',', ';', '\t'),
        (people, delimiter) => {
          const text = stringify(
            [['given name', 'family name', 'email'], ...people.map(([g, f], i) => [g, f, `p${i}@x.example`])],
            { delimiter, quoted_match: /["\s;,|]/ },
          )
          const { rows, faults } = readRosterCsv(utf8(text))
          expect(faults).toEqual([])
          expect(rows.map(r => [r.givenName, r.familyName])).toEqual(people.map(([g, f]) => [g, f]))
        },
      ),
      { numRuns: 120, seed: 5 },
    )
  })

  it.each([
    'E-Mail-Adresse;Name;Vorname;Matrikelnr.;Gruppe',
    'Courriel;Nom;Prénom;N° étudiant;Groupe',
    'Correo electrónico;Apellidos;Nombre;Matrícula;Grupo',
    'E-mail;Apelido;Nome;Número de aluno;Turma',
    'Indirizzo e-mail;Cognome;Nome;Matricola;Gruppo',
    'E-mailadres;Achternaam;Voornaam;Studentnummer;Groep',
    'Adres e-mail;Nazwisko;Imię;Nr albumu;Grupa',
    'E-post;Efternamn;Förnamn;Studentnummer;Grupp',
    'Mail;Efternavn;Fornavn;Studienummer;Hold',
    'Sähköposti;Sukunimi;Etunimi;Opiskelijanumero;Ryhmä',
  ])('knows the headings %s', heading => {
    expect(readRosterCsv(utf8(`${heading}\nmo@x.example;Kaplan;Mo;S7;B\n`)).rows).toEqual([
      {
        line: 2,
        email: 'mo@x.example',
        givenName: 'Mo',
        familyName: 'Kaplan',
        section: 'B',
        group: null,
        studentNumber: 'S7',
        role: 'student',
      },
    ])
  })

  it.each(['Nom complet', 'Nombre completo', 'Naam', 'Imię i nazwisko', 'Nimi'])(
    'takes %s as the whole name where no other column has a half of it',
    heading =>
      expect(names(utf8(`mail,${heading}\nmo@x.example,Mo Kaplan\n`))).toEqual(['Mo|Kaplan|mo@x.example']),
  )

  it('says which columns it read as what, and which it left', () => {
    const { columns } = readRosterCsv(
      utf8('Mail;Fakultät;Name;Vorname;Telefon\nmo@x.example;Bau;Kaplan;Mo;1\n'),
    )
    expect(columns).toEqual([
      { heading: 'Mail', field: 'email' },
      { heading: 'Fakultät', field: null },
      { heading: 'Name', field: 'familyName' },
      { heading: 'Vorname', field: 'givenName' },
      { heading: 'Telefon', field: null },
    ])
  })

  it('reads columns as somebody says what they hold, whatever their headings', () => {
    const file = utf8('wer;wo;x\nMo Kaplan;mo@x.example;B\n')
    const bare = readRosterCsv(file)
    expect(bare).toMatchObject({ rows: [], faults: [{ code: 'noHeader' }] })
    expect(bare.columns!.map(c => [c.heading, c.field])).toEqual([
      ['wer', null],
      ['wo', null],
      ['x', null],
    ])
    const { rows } = readRosterCsv(file, ['name', 'email', 'section'])
    expect(rows).toMatchObject([
      { givenName: 'Mo', familyName: 'Kaplan', email: 'mo@x.example', section: 'B' },
    ])
  })

  it('takes people who have one name alone', () => {
    const file = 'name,given name,family name,email\n,,Suharti,s@x.example\n,Sukarno,,k@x.example\n'
    expect(names(utf8(file))).toEqual(['Suharti||s@x.example', 'Sukarno||k@x.example'])
    expect(names(utf8('name,email\nSuharti,s@x.example\n'))).toEqual(['Suharti||s@x.example'])
  })

  it('reads the letters and signs that Windows-1252 has and Latin-1 has not', () => {
    const line = (...bytes: number[]) =>
      new Uint8Array([...utf8('name;email\n'), ...bytes, ...utf8(';s@x.example\n')])
    const [S, Z, OE, Y, e] = [0x8a, 0x9e, 0x9c, 0x9f, 0xe9]
    expect(names(line(S, ...utf8('imon '), Z, e, OE, Y))).toEqual(['Šimon|žéœŸ|s@x.example'])
    expect(names(line(...utf8('Ren'), e, ...utf8(' O'), 0x92, ...utf8('Neil')))).toEqual([
      'René|O’Neil|s@x.example',
    ])
    const { text } = decodeText(new Uint8Array([0xe9, ...Array.from({ length: 32 }, (_, i) => 0x80 + i)]))
    expect([...text].map(sign => sign.codePointAt(0)!.toString(16)).join(' ')).toBe(
      'e9 20ac 81 201a 192 201e 2026 2020 2021 2c6 2030 160 2039 152 8d 17d 8f 90 2018 2019 201c 201d 2022 2013 2014 2dc 2122 161 203a 153 9d 17e 178',
    )
  })

  it('reads Windows-1252, UTF-16, and a file put together from two encodings', () => {
    const rows = 'name;email\nJörg Mølle;j@x.example\n'
    expect(names(western(rows))).toEqual(['Jörg|Mølle|j@x.example'])
    const utf16 = new Uint8Array([
      0xff,
      0xfe,
      ...[...rows].flatMap(c => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
    ])
    expect(names(utf16)).toEqual(['Jörg|Mølle|j@x.example'])
    const mixed = new Uint8Array([
      ...utf8('name;email\nZoë Ž;z@x.example\n'),
      ...western('Jörg Mølle;j@x.example\n'),
    ])
    expect(names(mixed)).toEqual(['Zoë|Ž|z@x.example', 'Jörg|Mølle|j@x.example'])
  })

  it('names the line in which two encodings meet', () => {
    const line = new Uint8Array([
      ...utf8('name,email\nZoë '),
      ...western('Mølle,z@x.example\n'),
      ...utf8('Liv Brandt,l@x.example\n'),
    ])
    expect(decodeText(line).badLines).toEqual([2])
    expect(readRosterCsv(line)).toMatchObject({
      rows: [{ line: 3 }],
      faults: [{ code: 'encoding', line: 2 }],
    })
  })

  it('names every row it cannot take, with its line and reason, and takes the others', () => {
    const { rows, faults } = readRosterCsv(
      utf8(
        [
          'name,email,role,section',
          'Liv Brandt,liv@x.example,,A',
          '=HYPERLINK("http://x"),h@x.example,,A',
          ' ,p@x.example,,A',
          'Nico Corvo,,,A',
          'Nico Corvo,nico at x,,A',
          'Nico Corvo,nico@x.example,captain,A',
          'Liv Again,LIV@x.example,,B',
          'Short,row',
          '',
          'Femke Duyvis,femke@x.example,assistant,B',
          '"=1+1, X",s@x.example,,',
          'Idris Farouk,i@x.example,,-2+3|cmd',
        ].join('\n'),
      ),
    )
    expect(rows.map(r => [r.line, r.email, r.role])).toEqual([
      [2, 'liv@x.example', 'student'],
      [11, 'femke@x.example', 'assistant'],
    ])
    expect(faults.map(f => [f.line, f.code])).toEqual([
      [3, 'badQuote'],
      [4, 'noName'],
      [5, 'noEmail'],
      [6, 'badEmail'],
      [7, 'badRole'],
      [8, 'twice'],
      [9, 'columns'],
      [12, 'formula'],
      [13, 'formula'],
    ])
  })

  it('takes the separator a spreadsheet names in a line of its own, and keeps counting lines from the top', () => {
    expect(
      readRosterCsv(utf8('\ufeffsep=;\r\nname;email\r\nLiv Brandt;liv@x.example\r\nPrince;p@x.example\r\n')),
    ).toMatchObject({
      rows: [
        { line: 3, email: 'liv@x.example' },
        { line: 4, givenName: 'Prince', familyName: '' },
      ],
      faults: [],
    })
  })

  it('takes one student number for one person', () => {
    expect(
      readRosterCsv(
        utf8(
          'name,email,student number\nLiv Brandt,l@x.example,S1\nNico Corvo,n@x.example,S1\nKadri Ilves,k@x.example,\nOona Rintala,o@x.example,\n',
        ),
      ),
    ).toMatchObject({
      rows: [{ line: 2 }, { line: 4 }, { line: 5 }],
      faults: [{ line: 3, code: 'twice', value: 'S1', first: 2 }],
    })
  })

  it('reads lines that end as old machines ended them', () => {
    expect(names(utf8('name,email\rLiv Brandt,l@x.example\rNico Corvo,n@x.example\r'))).toHaveLength(2)
  })

  it('says that a file has no heading, no names or nothing in it', () => {
    expect(readRosterCsv(utf8('Liv Brandt;12\n')).faults).toEqual([{ code: 'noHeader', line: 1 }])
    expect(readRosterCsv(utf8('email\nl@x.example\n')).faults).toEqual([{ code: 'noNames', line: 1 }])
    expect(readRosterCsv(new Uint8Array()).faults).toEqual([{ code: 'empty', line: 1 }])
  })

  it('refuses a quote that is never closed instead of swallowing the rest in silence', () => {
    const { faults } = readRosterCsv(
      utf8('name,email\nLiv Brandt,l@x.example\n"Nico Corvo,n@x.example\nKadri Ilves,k@x.example\n'),
    )
    expect(faults.some(f => f.code === 'openQuote')).toBe(true)
  })

  it('reads three megabytes', () => {
    const text =
      'name,email,section\n' +
      Array.from(
        { length: 20_000 },
        (_, i) => `"Given${'x'.repeat(90)} Family${i}",p${i}@northmere.example,Section ${i % 4}`,
      ).join('\n')
    expect(text.length).toBeGreaterThan(2_500_000)
    const { rows, faults } = readRosterCsv(utf8(text))
    expect([rows.length, faults.length]).toEqual([20_000, 0])
  })
})

describe('a OneRoster archive', () => {
  const users =
    'sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,middleName,identifier,email\nu1,active,,true,liv,,Liv,Brandt,,S1,Liv@x.example\nu2,tobedeleted,,true,n,,Nico,Corvo,,S2,n@x.example\nu3,,,true,i,,Ines,Okafor-Lind,,,i@x.example\n'
  const enrolments =
    'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role\ne1,active,,c1,s,u1,student\ne2,active,,c1,s,u9,student\ne3,active,,c1,s,u3,teacher\ne4,,,c1,s,u1,guardian\n'
  const classes = 'sourcedId,status,dateLastModified,title\nc1,active,,Section A\n'
  const archive = (files: Record<string, string>) =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])))

  it('gives people with their section and role, and names what it refers to and does not have', () => {
    expect(
      readOneRoster(
        archive({
          'export/users.csv': users,
          'export/enrollments.csv': enrolments,
          'export/classes.csv': classes,
        }),
      ),
    ).toEqual({
      rows: [
        {
          line: 2,
          email: 'liv@x.example',
          givenName: 'Liv',
          familyName: 'Brandt',
          section: 'Section A',
          group: null,
          studentNumber: 'S1',
          role: 'student',
        },
        {
          line: 4,
          email: 'i@x.example',
          givenName: 'Ines',
          familyName: 'Okafor-Lind',
          section: 'Section A',
          group: null,
          studentNumber: null,
          role: 'instructor',
        },
      ],
      faults: [{ code: 'badReference', line: 3, value: 'u9' }],
    })
  })
  it('says which file is missing, and that something is no archive', () => {
    expect(readOneRoster(archive({ 'users.csv': users })).faults).toEqual([
      { code: 'missingFile', line: 0, value: 'enrollments.csv' },
    ])
    expect(readOneRoster(strToU8('name,email')).faults).toEqual([{ code: 'notAnArchive', line: 0 }])
  })
})

describe('what a roster would change', () => {
  const enrolled = (some: Partial<Enrolled>): Enrolled => ({
    enrolmentId: 'e1',
    email: 'liv@x.example',
    givenName: 'Liv',
    familyName: 'Brandt',
    section: 'A',
    studentNumber: 'S1',
    role: 'student',
    state: 'active',
    isElsewhere: false,
    nameIsOwn: false,
    ...some,
  })
  const row = (some: Partial<ReturnType<typeof readRosterCsv>['rows'][number]> = {}) => ({
    line: 2,
    email: 'liv@x.example',
    givenName: 'Liv',
    familyName: 'Brandt',
    section: null,
    group: null,
    studentNumber: null,
    role: 'student' as const,
    ...some,
  })

  it('adds, changes, brings back, leaves alone and misses', () => {
    const c = compareRoster(
      [
        row({ section: 'B' }),
        row({ email: 'new@x.example', line: 3 }),
        row({ email: 'back@x.example', line: 4 }),
        row({
          email: 'moved@x.example',
          studentNumber: 'S4',
          line: 5,
          givenName: 'Nico',
          familyName: 'Corvo',
        }),
      ],
      [
        enrolled({}),
        enrolled({ enrolmentId: 'e2', email: 'back@x.example', state: 'withdrawn', studentNumber: null }),
        enrolled({ enrolmentId: 'e3', email: 'gone@x.example', studentNumber: null }),
        enrolled({
          enrolmentId: 'e4',
          email: 'nico@x.example',
          givenName: 'Nico',
          familyName: 'Corvo',
          studentNumber: 'S4',
        }),
        enrolled({ enrolmentId: 'e5', email: 'ines@x.example', role: 'instructor', studentNumber: null }),
      ],
    )
    expect(c.added.map(r => r.email)).toEqual(['new@x.example'])
    expect(c.changed.map(x => [x.enrolmentId, x.changes])).toEqual([
      ['e1', [{ field: 'section', from: 'A', to: 'B' }]],
      ['e4', [{ field: 'email', from: 'nico@x.example', to: 'moved@x.example' }]],
    ])
    expect(c.back.map(x => x.enrolmentId)).toEqual(['e2'])
    expect(c.missing.map(m => m.enrolmentId)).toEqual(['e3'])
  })
  it('refuses a line that moves the address of somebody who is somebody elsewhere; names are the enrolment’s', () => {
    const known = enrolled({ isElsewhere: true, studentNumber: 'S1' })
    const taken = row({ studentNumber: 'S1', email: 'thief@x.example' })
    const c = compareRoster([taken], [known])
    expect(c).toMatchObject({ changed: [], added: [], back: [], missing: [], refused: [taken] })
    // what belongs to the enrolment is still this seminar's
    const moved = compareRoster(
      [row({ section: 'B', familyName: 'Other' })],
      [enrolled({ isElsewhere: true })],
    )
    expect(moved.changed.map(x => x.changes.map(f => f.field))).toEqual([['familyName', 'section']])
    const chosen = compareRoster([row({ familyName: 'Other' })], [enrolled({ nameIsOwn: true })])
    expect(chosen).toMatchObject({ changed: [], same: 1 })
  })
  it('changes nothing where the file has nothing', () => {
    expect(compareRoster([row()], [enrolled({})])).toMatchObject({ added: [], changed: [], same: 1 })
  })
})
