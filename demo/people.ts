export interface DemoPerson {
  readonly key: string
  readonly name: string
  readonly given: string
  readonly family: string
  readonly role: 'instructor' | 'assistant' | 'student'
  readonly section: 'A' | 'B' | null
}

const person = (
  key: string,
  given: string,
  family: string,
  section: 'A' | 'B' | null,
  role: DemoPerson['role'] = 'student',
): DemoPerson => ({ key, given, family, name: `${given} ${family}`, role, section })

/** Staff and students of the Harbour Cities seminar; all invented. */
export const people: readonly DemoPerson[] = [
  person('ines', 'Ines', 'Okafor-Lind', null, 'instructor'),
  person('henrik', 'Henrik', 'Sorrel-Mensah', null, 'assistant'),
  person('tomasz', 'Tomasz', 'Adeyinka', 'A'),
  person('liv', 'Liv', 'Brandt', 'A'),
  person('nico', 'Nico', 'Corvo', 'A'),
  person('femke', 'Femke', 'Duyvis', 'A'),
  person('mireille', 'Mireille', 'Estrada-Holm', 'A'),
  person('idris', 'Idris', 'Farouk', 'A'),
  person('solongo', 'Solongo', 'Gantulga', 'A'),
  person('jonas', 'Jonas', 'Haverkamp', 'A'),
  person('kadri', 'Kadri', 'Ilves', 'A'),
  person('paz', 'Paz', 'Jaramillo', 'A'),
  person('abena', 'Abena', 'Kwarteng', 'A'),
  person('petra', 'Petra', 'Lindqvist', 'A'),
  person('anselm', 'Anselm', 'Moreau-Sato', 'B'),
  person('yusra', 'Yusra', 'Norrvik', 'B'),
  person('rasmus', 'Rasmus', 'Okonjo', 'B'),
  person('besnik', 'Besnik', 'Prifti', 'B'),
  person('teodora', 'Teodora', 'Quillane', 'B'),
  person('oona', 'Oona', 'Rintala', 'B'),
  person('laleh', 'Laleh', 'Sabri', 'B'),
  person('emrys', 'Emrys', 'Tal', 'B'),
  person('malin', 'Malin', 'Urbanek', 'B'),
  person('saoirse', 'Saoirse', 'Valdemar', 'B'),
  person('wanjiru', 'Wanjiru', 'Westergaard', 'B'),
  person('illari', 'Illari', 'Yupanqui', 'B'),
]

/** Password of everyone in the demo seminar. It exists in demo databases only. */
export const DEMO_PASSWORD = 'harbour'
