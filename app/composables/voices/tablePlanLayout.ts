import type { VoicesView } from '#shared/voices/voices'

const SEATS = 60 // beyond, those who said most, and the silent in one sentence
const LONGEST = 14 // letters of a name that find room between its neighbours; the seat says it whole
export const [W, H] = [640, 424] // size of the drawing
export const [CX, CY, RX, RY] = [326, 208, 214, 154]

export interface Seat {
  readonly id: string
  readonly name: string
  readonly label: string
  readonly words: number
  readonly staff: boolean
  readonly x: number
  readonly y: number
  readonly r: number
  readonly angle: number
  readonly neglected: boolean
  readonly contributions: number
}
/** Who sits at the table: everybody, or of many those who said most, by name. */
export const seated = (view: VoicesView): VoicesView['people'] =>
  view.people.length <= SEATS
    ? view.people
    : [...view.people]
        .sort((a, b) => b.words - a.words)
        .slice(0, SEATS)
        .sort((a, b) => a.familyName.localeCompare(b.familyName))

/** One who teaches at the head, students round the table; the size of a seat grows with the root of its words. */
export function layOutSeats(
  view: VoicesView,
  shown: VoicesView['people'],
  me: VoicesView['staff'][number] | null,
): Seat[] {
  const most = Math.max(1, ...shown.map(p => p.words))
  const n = shown.length + 1
  const room = (Math.PI * (RX + RY)) / n / 2.2 // seats lie beside each other, however many
  const at = (i: number) => {
    const angle = Math.PI + (i / n) * 2 * Math.PI
    return { angle, x: CX + RX * Math.cos(angle), y: CY + RY * Math.sin(angle) }
  }
  return [
    ...(me
      ? [
          {
            id: me.id,
            name: me.name,
            label: me.isMe ? 'You' : me.name,
            words: 0,
            staff: true,
            r: 12,
            neglected: false,
            contributions: 0,
            ...at(0),
          },
        ]
      : []),
    ...shown.map((p, i): Seat => ({
      id: p.id,
      name: p.name,
      label:
        p.familyName.length > LONGEST ? `${p.familyName.slice(0, LONGEST - 1).trimEnd()}…` : p.familyName,
      words: p.words,
      staff: false,
      contributions: p.contributions,
      neglected: p.fromMe.gapDays >= view.gapLimit,
      r: Math.min(room, p.contributions === 0 ? 6.5 : 5.5 + 8 * Math.sqrt(p.words / most)),
      ...at(i + 1),
    })),
  ]
}

/** A line for each who answered somebody: bent towards the middle of the table; the lines of who is chosen come last, on top. */
export function layOutLines(view: VoicesView, at: ReadonlyMap<string, Seat>, chosen: string | null) {
  const most = Math.max(1, ...view.edges.map(e => e.times))
  return view.edges
    .flatMap(e => {
      const [a, b] = [at.get(e.from), at.get(e.to)]
      if (!a || !b) return []
      // bent towards the middle of the table, and to the left of the way, so that there and back are two lines
      const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2]
      const [dx, dy] = [b.x - a.x, b.y - a.y]
      const bend = { x: mx + (CX - mx) * 0.42 - dy * 0.06, y: my + (CY - my) * 0.42 + dx * 0.06 }
      const edgeSide = () => {
        if (e.from === chosen) return 'to'
        if (e.to === chosen) return 'fro'
        if (a.staff) return 'mine'
        return 'other'
      }
      const role = edgeSide()
      return [
        {
          key: `${e.from} ${e.to}`,
          role,
          path: `M${a.x.toFixed(1)} ${a.y.toFixed(1)}Q${bend.x.toFixed(1)} ${bend.y.toFixed(1)} ${b.x.toFixed(1)} ${b.y.toFixed(1)}`,
          width: 1 + (2.4 * e.times) / most,
        },
      ]
    })
    .sort((x, y) => Number(x.role !== 'other') - Number(y.role !== 'other'))
}

/** Where a name stands: outside its seat; where seats lie side by side every other stands further out, on a thin line. */
export function labelAt(s: Seat, i: number) {
  const [c, d] = [Math.cos(s.angle), Math.sin(s.angle)]
  const flat = Math.abs(c) < 0.8
  const far = s.r + 7 + (flat && i % 2 === 1 ? 15 : 0)
  const labelOffset = () => {
    if (flat) return d > 0 ? 9 : -1
    return 4
  }
  const anchorAt = () => {
    if (flat) {
      if (c > 0.45) return 'start'
      if (c < -0.45) return 'end'
      return 'middle'
    }
    if (c > 0) return 'start'
    return 'end'
  }
  return {
    x: s.x + (flat ? c * 14 : (s.r + 7) * c * 1.1),
    y: s.y + far * d * (flat ? 1.12 : 1.2) + labelOffset(),
    anchor: anchorAt(),
    leads: flat && i % 2 === 1,
  }
}
