/** How the pins of an outline are found by hand. */
type Shape = 'dual in line' | 'single in line' | 'three legs' | 'ring' | 'lugs';

/** A generic outline with numbered pins. */
export interface Outline {
  readonly name: string;
  readonly words: string;
  readonly pins: number;
  readonly shape: Shape;
  /** What the pins are counted from, and from which side it is looked at. */
  readonly seen: string;
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
const DUAL = [6, 8, 14, 16, 18, 20, 24, 28, 40];
const SINGLE = [3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15];

/** Outlines that parts come in (IEC 60191 and JEDEC MS-001, TO-92, TO-220; IEC 60067 for the valve bases). */
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
    case 'three legs':
      return `${['left', 'middle', 'right'][pin - 1]!} leg, ${seen}`;
    case 'lugs':
      return `${['left', 'middle', 'right'][pin - 1]!} lug, ${seen}`;
    case 'ring':
      return `${ordinal(pin)} ${seen.replace('seen from below, ', '')}, seen from below`;
    case 'single in line':
      return `${ordinal(pin)} from the left, printed side towards you`;
  }
}
