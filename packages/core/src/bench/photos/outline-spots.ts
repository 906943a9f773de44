import { arcDegrees, dualSpot, type Outline } from '../../circuit/pinout/index.ts';
import { similarity, type Pixel } from './pixels.ts';

/** Angle between neighbouring pins of a valve base or a can, degrees (IEC 60067: B7G 45, B9A 36, octal 45; TO-18 90). */
const RING_DEGREES: Readonly<Record<string, number>> = { B7G: 45, B9A: 36, octal: 45, 'TO-18': 90 };

/** Lugs of one gang of a potentiometer, and the distance of the next gang's over theirs (common practice). */
const LUGS_A_ROW = 3;
const GANG_ROWS = 2;

/** Lugs of a jack seen from behind with the bush down: tip, ring, sleeve, and beside tip and ring what they rest on (common practice). */
const JACK_SPOTS = [
  [0, 0],
  [0, 1],
  [0.5, 2],
  [1, 0],
  [1, 1],
] as const;

/** The pins of an outline from pin 1 in any scale, as seen from the side of the parts; y goes down. */
function pinsOf({ name, shape, pins }: Outline): Pixel[] {
  const numbers = Array.from({ length: pins }, (_, i) => i);
  switch (shape) {
    case 'dual in line':
      return numbers.map((i) => {
        const [x, y] = dualSpot(pins, i + 1);
        return { x, y };
      });
    case 'ring': {
      // Clockwise seen from below is the other way round seen from above.
      const step = ((RING_DEGREES[name] ?? 360 / pins) * Math.PI) / 180;
      return numbers.map((i) => ({ x: Math.cos(i * step), y: -Math.sin(i * step) }));
    }
    case 'jack':
      // From the side of the parts: the springs in two columns, the sleeve between them at the bush.
      return JACK_SPOTS.map(([x, y]) => ({ x, y }));
    case 'single in line':
    case 'two legs':
    case 'three legs':
    case 'lugs':
      return numbers.map((i) => ({ x: i, y: 0 }));
    case 'two rows of lugs':
      return numbers.map((i) => ({ x: i % LUGS_A_ROW, y: GANG_ROWS * Math.floor(i / LUGS_A_ROW) }));
    case 'ribbon':
      return numbers.map((i) => ({ x: i % 2, y: Math.floor(i / 2) }));
    case 'arc':
      return numbers.map((i) => {
        const angle = arcDegrees(i + 1) * (Math.PI / 180);
        return { x: Math.cos(angle), y: -Math.sin(angle) };
      });
  }
}

/** The two pins by which an outline is laid on a photo, by their numbers: those that lie farthest apart, pin 1 the first. */
export function tappedPins(outline: Outline): readonly [number, number] {
  const [first, ...others] = pinsOf(outline);
  const far = (spot: Pixel) => Math.hypot(spot.x - first!.x, spot.y - first!.y);
  const farthest = others.reduce((best, spot, i) => (far(spot) > far(others[best]!) ? i : best), 0);
  return [1, farthest + 2];
}

/**
 * Where all pins of an outline are on a photo, from the places of the two that were tapped.
 *
 * @param tapped places of the pins that `tappedPins` names, in pixels
 * @param isSolderSide true for a photo of the side without the parts: the pins go round the other way
 * @returns a place for each pin, from pin 1; undefined where both places are one
 */
export function outlineSpots(
  outline: Outline,
  tapped: readonly [Pixel, Pixel],
  isSolderSide: boolean,
): readonly Pixel[] | undefined {
  const pins = pinsOf(outline);
  const [a, b] = tappedPins(outline);
  const onto = similarity([pins[a - 1]!, pins[b - 1]!], tapped, isSolderSide);
  return onto && pins.map(onto);
}
