/** How the pins of an outline are found by hand. */
type Shape =
  | 'dual in line'
  | 'single in line'
  | 'two legs'
  | 'three legs'
  | 'ring'
  | 'lugs'
  | 'two rows of lugs'
  | 'arc'
  | 'ribbon'
  | 'jack';

/** A generic outline with numbered pins. */
export interface Outline {
  readonly name: string;
  readonly words: string;
  readonly pins: number;
  readonly shape: Shape;
  /** What the pins are counted from, and from which side it is looked at. */
  readonly seen: string;
  /** Its pins go by their names: no standard numbers them. */
  readonly isUnnumbered?: true;
}

const FROM_ABOVE = 'seen from above with the notch up';
const FROM_BELOW = 'seen from below, clockwise from the gap';

const dualInLine = (pins: number): Outline => ({
  name: `DIP-${pins}`,
  words: `dual in-line package of ${pins} pins`,
  pins,
  shape: 'dual in line',
  seen: FROM_ABOVE,
});
const singleInLine = (pins: number): Outline => ({
  name: `SIL-${pins}`,
  words: `single in-line package of ${pins} pins`,
  pins,
  shape: 'single in line',
  seen: 'printed side towards you, legs down, counted from the left',
});
const ring = (name: string, words: string, pins: number): Outline => ({
  name,
  words,
  pins,
  shape: 'ring',
  seen: FROM_BELOW,
});
const arc = (name: string, words: string, pins: number): Outline => ({
  name,
  words,
  pins,
  shape: 'arc',
  seen: 'numbers stand beside the pins',
});
const ribbon = (pins: number): Outline => ({
  name: `IDC-${pins}`,
  words: `ribbon connector of ${pins} ways`,
  pins,
  shape: 'ribbon',
  seen: 'counted from the marked edge of the ribbon',
});
const RIBBON = [6, 8, 10, 14, 16, 20, 26, 34];
const DUAL = [6, 8, 14, 16, 18, 20, 24, 28, 40];
const SINGLE = [3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15];

/** Lugs of a jack, those that have no switched contact left out (common practice). */
const JACK = [
  'lug of the tip’s spring',
  'lug of the ring’s spring',
  'lug of the sleeve, at the bush',
  'lug that the tip’s spring rests on without a plug',
  'lug that the ring’s spring rests on without a plug',
];

/** Outlines that parts come in (IEC 60191 and JEDEC MS-001, TO-92, TO-220; IEC 60067 for the valve bases, IEC 60130-9 for DIN connectors). */
export const OUTLINES: readonly Outline[] = [
  ...DUAL.map(dualInLine),
  ...SINGLE.map(singleInLine),
  {
    name: 'TO-92',
    words: 'small plastic case',
    pins: 3,
    shape: 'three legs',
    seen: 'flat face towards you, legs down',
  },
  {
    name: 'TO-126',
    words: 'flat plastic case with a hole',
    pins: 3,
    shape: 'three legs',
    seen: 'printed side towards you, legs down',
  },
  {
    name: 'TO-220',
    words: 'plastic case with a tab',
    pins: 3,
    shape: 'three legs',
    seen: 'printed side towards you, legs down',
  },
  {
    name: 'TO-18',
    words: 'small metal can',
    pins: 3,
    shape: 'ring',
    seen: 'seen from below, clockwise from the tab',
  },
  ring('B7G', 'base of a miniature valve', 7),
  ring('B9A', 'base of a noval valve', 9),
  { ...ring('octal', 'octal base', 8), seen: 'seen from below, clockwise from the key' },
  {
    name: 'pot',
    words: 'potentiometer',
    pins: 3,
    shape: 'lugs',
    seen: 'shaft towards you, lugs down, counted from the left',
  },
  {
    name: 'dual pot',
    words: 'potentiometer of two gangs',
    pins: 6,
    shape: 'two rows of lugs',
    seen: 'shaft towards you, lugs down, counted from the left, the gang next to the shaft first',
  },
  {
    name: 'axial',
    words: 'body with a leg at either end',
    pins: 2,
    shape: 'two legs',
    seen: 'the end with the band or the plus to the left, else as its print reads',
  },
  {
    name: 'radial',
    words: 'body with two legs on one side',
    pins: 2,
    shape: 'two legs',
    seen: 'the long leg to the left, the stripe of the minus to the right, else as its print reads',
  },
  {
    name: 'jack',
    words: 'jack',
    pins: JACK.length,
    shape: 'jack',
    seen: 'seen from behind, the bush down',
    isUnnumbered: true,
  },
  arc('DIN-3', 'DIN connector of 3 pins', 3),
  arc('DIN-5', 'DIN connector of 5 pins, 180\u00b0', 5),
  ...RIBBON.map(ribbon),
];

/** An outline by its name in any case, with or without its hyphen; undefined for one that is not known. */
export function outlineNamed(name: string): Outline | undefined {
  const plain = (text: string) => text.toLowerCase().replace(/[\s_-]/g, '');
  return OUTLINES.find((o) => plain(o.name) === plain(name));
}

const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
];
const ordinal = (n: number): string => ORDINALS[n - 1] ?? `${n}th`;

const LUGS = ['left', 'middle', 'right'];
/** Pins of a DIN connector around its arc: 1-4-2-5-3, with 1-2-3 alone in the one of three (IEC 60130-9). */
const ARC = [
  'at one end of the arc',
  'in the middle of the arc',
  'at the other end of the arc',
  'between 1 and the middle of the arc',
  'between 3 and the middle of the arc',
];

/** Where a pin of a DIN connector stands on its arc, degrees from one end to the other at 180 (IEC 60130-9). */
export const arcDegrees = (pin: number): number => [0, 90, 180, 45, 135][pin - 1]!;

/**
 * Where hands find a pin: "third from the notch, left side".
 *
 * @param pin its number, from 1 to as many as there are
 */
export function pinPlace({ shape, pins, seen }: Outline, pin: number): string {
  switch (shape) {
    case 'dual in line': {
      const half = pins / 2;
      return pin <= half
        ? `${ordinal(pin)} from the notch, left side`
        : `${ordinal(pins - pin + 1)} from the notch, right side`;
    }
    case 'two legs':
      return `${pin === 1 ? 'left' : 'right'} leg, ${seen}`;
    case 'jack':
      return `${JACK[pin - 1]!}, ${seen}`;
    case 'three legs':
      return `${LUGS[pin - 1]!} leg, ${seen}`;
    case 'lugs':
      return `${LUGS[pin - 1]!} lug, ${seen}`;
    case 'two rows of lugs':
      return `${LUGS[(pin - 1) % 3]!} lug of the ${pin <= 3 ? 'front' : 'rear'} gang, shaft towards you, lugs down`;
    case 'arc':
      return ARC[pin - 1]!;
    case 'ribbon':
      return `${ordinal(pin)} wire from the marked edge`;
    case 'ring':
      return `${ordinal(pin)} ${seen.replace('seen from below, ', '')}, seen from below`;
    case 'single in line':
      return `${ordinal(pin)} from the left, printed side towards you`;
  }
}
