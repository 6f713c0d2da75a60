const RADIUS = 13.5
const CENTRE = 17
const GAP = 0.12 // radians left open on each side of an arc

/** Arcs of the expectation ring, one for each part, clockwise from the top, as SVG paths in a 34 × 34 box. */
export function ringArcs(parts: number): string[] {
  const point = (angle: number) =>
    `${(CENTRE + RADIUS * Math.sin(angle)).toFixed(2)} ${(CENTRE - RADIUS * Math.cos(angle)).toFixed(2)}`
  const step = (2 * Math.PI) / parts
  return Array.from(
    { length: parts },
    (_, i) =>
      `M${point(i * step + GAP)}A${RADIUS} ${RADIUS} 0 ${step - 2 * GAP > Math.PI ? 1 : 0} 1 ${point((i + 1) * step - GAP)}`,
  )
}
