/** Rows of a dual in-line package over the pitch of its pins (JEDEC MS-001; from 24 pins on MS-011). */
const NARROW_ROWS = 3;
const WIDE_ROWS = 6;
const WIDE_FROM_PINS = 24;

type Spot = readonly [column: number, row: number];

/** Pin of a dual in-line package as it stands with its notch up, seen from the parts' side, in holes from pin 1. */
export function dualSpot(pins: number, pin: number): Spot {
  const half = pins / 2;
  const across = pins >= WIDE_FROM_PINS ? WIDE_ROWS : NARROW_ROWS;
  return pin <= half ? [0, pin - 1] : [across, pins - pin];
}

/** Quarter turns of a spot, clockwise as seen from the parts' side with rows going down. */
export function turned([x, y]: Spot, quarters: number): Spot {
  switch (((quarters % 4) + 4) % 4) {
    case 1:
      return [-y, x];
    case 2:
      return [-x, -y];
    case 3:
      return [y, -x];
    default:
      return [x, y];
  }
}

/** How a package lies on its holes: the hole of its pin 1 and its quarter turns. */
export interface DualFit {
  readonly quarters: number;
  readonly origin: Spot;
}

/**
 * How a dual in-line package lies on holes of some of its pins; `mirrored` where it would only from the other side of the
 * board, null where it does not lie on them at all.
 *
 * @param holes hole of each pin that is known, by its number
 */
export function fitDual(pins: number, holes: ReadonlyMap<number, Spot>): DualFit | 'mirrored' | null {
  const fitted = fitFrom(pins, holes);
  if (fitted) return fitted;
  const mirrored = new Map([...holes].map(([pin, [x, y]]): [number, Spot] => [pin, [-x, y]]));
  return fitFrom(pins, mirrored) ? 'mirrored' : null;
}

function fitFrom(pins: number, holes: ReadonlyMap<number, Spot>): DualFit | undefined {
  const [first] = holes;
  if (!first) return undefined;
  for (let quarters = 0; quarters < 4; quarters += 1) {
    const at = (pin: number) => turned(dualSpot(pins, pin), quarters);
    const [dx, dy] = at(first[0]);
    const origin: Spot = [first[1][0] - dx, first[1][1] - dy];
    const lies = [...holes].every(([pin, [x, y]]) => {
      const [px, py] = at(pin);
      return x === origin[0] + px && y === origin[1] + py;
    });
    if (lies) return { quarters, origin };
  }
  return undefined;
}
