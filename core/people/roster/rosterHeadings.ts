export const ROSTER_COLUMNS = [
  'email',
  'name',
  'givenName',
  'familyName',
  'section',
  'group',
  'studentNumber',
  'role',
] as const
export type RosterColumn = (typeof ROSTER_COLUMNS)[number]

/**
 * Headings as colleges write them, in lower case without spaces and signs: in English, then German, French, Spanish,
 * Portuguese, Italian, Dutch, Polish, Czech, Swedish, Danish, Norwegian and Finnish, as far as they differ.
 */
const HEADINGS: Readonly<Record<RosterColumn, string>> = {
  email: `email emailaddress mail mailaddress emailadresse mailadresse courriel adressecourriel adressedecourriel
    adresseemail adressemail mél correo correoelectrónico correoelectronico direccióndecorreo correioeletrónico
    correioeletronico correioeletrônico endereçodeemail emailinstitucional postaelettronica indirizzoemail emailadres
    adresemail epost epostadress epostadresse sähköposti sähköpostiosoite`,
  name: `name fullname studentname student displayname vollständigername nomcomplet nomenprenom nom nombrecompleto nombre
    nomecompleto nome volledigenaam naam imięinazwisko jménoapříjmení jméno namn navn nimi kokonimi`,
  givenName: `givenname firstname forename given first vorname prénom prenom nombredepila nombres primeironome nomepróprio
    primonome voornaam imię křestníjméno förnamn fornavn etunimi`,
  familyName: `familyname lastname surname family last nachname familienname zuname nomdefamille apellido apellidos
    primerapellido apelido apelidos sobrenome cognome achternaam familienaam nazwisko příjmení efternamn efternavn etternavn
    sukunimi`,
  section: `section sectionname class seminargroup gruppe seminargruppe kurs kursgruppe sektion groupe groupedetd section
    grupo sección seccion turma gruppo sezione groep werkgroep grupa skupina grupp hold ryhmä`,
  group: `group groupname team teamname projectgroup projectteam workgroup arbeitsgruppe projektgruppe équipe equipe equipo
    grupodetrabajo grupodetrabalho gruppodilavoro squadra projectgroep zespół tým arbetsgrupp projektgrupp arbejdsgruppe
    arbeidsgruppe työryhmä`,
  studentNumber: `studentnumber studentid number id sisid matriculation matrikelnummer matrikel matrikelnr matrnr
    numéroétudiant numeroetudiant nétudiant numérodétudiant matrícula matricula númerodeestudiante númerodealumno
    númerodeestudante númerodealuno matricola numerodimatricola numeromatricola studentnummer numeralbumu nralbumu nrindeksu
    studienummer opiskelijanumero`,
  role: 'role rolle rôle rol rola roll ruolo função papel rooli',
}
const known = Object.entries(HEADINGS).map(
  ([column, words]) => [column as RosterColumn, new Set(words.split(/\s+/))] as const, // the keys of that object
)

/**
 * Which column of a table holds what, by its headings. A heading that names a whole name is the other half beside a
 * column for one half of it: "Name, Vorname" and "Nombre, Apellidos".
 */
export function columnsOf(header: readonly string[]): Partial<Record<RosterColumn, number>> {
  const plain = header.map(h =>
    h
      .normalize('NFC')
      .toLowerCase()
      .replace(/[^\p{L}]/gu, ''),
  )
  const columns: Partial<Record<RosterColumn, number>> = {}
  for (const [column, words] of known) {
    const at = plain.findIndex(heading => words.has(heading))
    if (at >= 0) columns[column] = at
  }
  const { name, givenName, familyName, ...others } = columns
  if (name !== undefined && givenName !== undefined && familyName === undefined)
    return { ...others, givenName, familyName: name }
  if (name !== undefined && familyName !== undefined && givenName === undefined)
    return { ...others, givenName: name, familyName }
  if (givenName !== undefined && familyName !== undefined) return { ...others, givenName, familyName }
  return columns
}
