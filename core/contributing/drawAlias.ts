import type { Random } from '../chance/seededRandom'

/** What somebody is called where names are hidden: things one sees from a quay, none of them a person's name. */
const NAMES = [
  'Tern',
  'Heron',
  'Curlew',
  'Eider',
  'Plover',
  'Gannet',
  'Avocet',
  'Dunlin',
  'Bittern',
  'Osprey',
  'Fulmar',
  'Grebe',
  'Knot',
  'Ruff',
  'Shag',
  'Teal',
  'Wigeon',
  'Petrel',
  'Puffin',
  'Sanderling',
  'Anchor',
  'Bollard',
  'Buoy',
  'Capstan',
  'Compass',
  'Davit',
  'Fathom',
  'Hawser',
  'Halyard',
  'Lantern',
  'Mizzen',
  'Oar',
  'Pier',
  'Rudder',
  'Sextant',
  'Sounding',
  'Spar',
  'Tide',
  'Windlass',
  'Yardarm',
  'Barnacle',
  'Cockle',
  'Coral',
  'Cuttle',
  'Dogfish',
  'Herring',
  'Kelp',
  'Limpet',
  'Mackerel',
  'Mussel',
  'Oyster',
  'Pilchard',
  'Samphire',
  'Scallop',
  'Sprat',
  'Starfish',
  'Sturgeon',
  'Turbot',
  'Urchin',
  'Whelk',
] as const

/**
 * A name nobody has in this thread yet, drawn at random, so that the order in which people came cannot be read off. When
 * all are taken, a second round is numbered.
 */
export function drawAlias(taken: ReadonlySet<string>, random: Random): string {
  for (let round = 1; ; round++) {
    const free = NAMES.map(name => (round === 1 ? name : `${name} ${round}`)).filter(name => !taken.has(name))
    if (free.length > 0) return free[Math.floor(random() * free.length)]!
  }
}
