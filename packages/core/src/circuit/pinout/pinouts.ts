import type { PartKind } from '@zemble/contract';

/** One order in which a type's pins come. */
export interface PinoutVariant {
  /** "E-B-C" where orders differ; "usual" where there is one. */
  readonly name: string;
  /** What each pin is, from pin 1: a pin of the kind, with the unit before it where several share the package; "-" for none of them. */
  readonly pins: readonly string[];
}

/** Which pin is what, of types that many makers sell. */
export interface Pinout {
  readonly kind: PartKind;
  /** Type numbers; any type of the kind when empty. */
  readonly types: readonly string[];
  readonly package: string;
  /** The usual order first. */
  readonly variants: readonly PinoutVariant[];
  /** What data sheets usually have around a pin, as a note of the part has it: "to gnd through 10n: why". */
  readonly surroundings?: Readonly<Record<string, string>>;
  /** Where it is from. */
  readonly origin: string;
}

const one = (pins: string): readonly PinoutVariant[] => [{ name: 'usual', pins: pins.split(' ') }];
const orders = (...names: readonly string[]): readonly PinoutVariant[] =>
  names.map((name) => ({ name, pins: name.toLowerCase().split('-') }));

const SHEETS = 'data sheets of several makers, from memory';

/** Each supply pin of an opamp has its own capacitor to ground beside the package (common practice). */
const DECOUPLED = {
  vplus: 'to gnd through 100n: keeps the supply quiet at the package',
  vminus: 'to gnd through 100n: keeps the supply quiet at the package',
};

/** Pinouts of the types that models are shipped of. Orders that differ by maker stand beside each other, and none is assumed. */
export const PINOUTS: readonly Pinout[] = [
  {
    kind: 'bjt',
    types: ['2N3904', '2N3906', '2N2222', '2N2907', '2N5088', '2N5401', '2N5551'],
    package: 'TO-92',
    variants: orders('E-B-C', 'C-B-E'),
    origin: `${SHEETS}; some makers sell 2N2222 and 2N2907 in plastic as C-B-E`,
  },
  {
    kind: 'bjt',
    types: ['BC547B', 'BC549C', 'BC557B', 'BC559C', 'BC337'],
    package: 'TO-92',
    variants: orders('C-B-E', 'E-B-C'),
    origin: `${SHEETS}; types under these numbers are also sold as E-B-C`,
  },
  {
    kind: 'jfet',
    types: ['2N5457', '2N5458', '2N5460', 'J201', 'J113'],
    package: 'TO-92',
    variants: orders('D-S-G', 'S-G-D', 'D-G-S'),
    origin: SHEETS,
  },
  {
    kind: 'jfet',
    types: ['2N3819'],
    package: 'TO-92',
    variants: orders('D-G-S', 'S-G-D', 'D-S-G'),
    origin: `${SHEETS}, which do not agree`,
  },
  {
    kind: 'mosfet',
    types: ['2N7000'],
    package: 'TO-92',
    variants: orders('S-G-D', 'D-G-S'),
    origin: `${SHEETS}; close relatives come as D-G-S`,
  },
  {
    kind: 'opamp',
    types: ['TL072', 'TL082', 'NE5532', 'LM358', 'RC4558'],
    package: 'DIP-8',
    variants: one('A.out A.minus A.plus vminus B.plus B.minus B.out vplus'),
    surroundings: DECOUPLED,
    origin: SHEETS,
  },
  {
    kind: 'opamp',
    types: ['UA741', 'OP07'],
    package: 'DIP-8',
    variants: one('- minus plus vminus - out vplus -'),
    surroundings: DECOUPLED,
    origin: SHEETS,
  },
  {
    kind: 'opamp',
    types: ['LM324'],
    package: 'DIP-14',
    variants: one(
      'A.out A.minus A.plus vplus B.plus B.minus B.out C.out C.minus C.plus vminus D.plus D.minus D.out',
    ),
    surroundings: DECOUPLED,
    origin: SHEETS,
  },
  {
    kind: 'timer555',
    types: [],
    package: 'DIP-8',
    variants: one('gnd trig out reset ctrl thr dis vcc'),
    surroundings: {
      ctrl: 'to gnd through 10n: keeps noise off the thresholds',
      vcc: 'to gnd through 100n: takes the current spike of the output',
    },
    origin: SHEETS,
  },
  {
    kind: 'triode',
    types: ['12AX7', '12AU7', '12AT7'],
    package: 'B9A',
    variants: one('A.a A.g A.k - - B.a B.g B.k -'),
    origin: `${SHEETS}; 4, 5 and 9 are the heater, and sheets differ in which system is the first`,
  },
  {
    kind: 'triode',
    types: ['6SN7'],
    package: 'octal',
    variants: one('A.g A.a A.k B.g B.a B.k - -'),
    origin: `${SHEETS}; 7 and 8 are the heater`,
  },
  {
    kind: 'pentode',
    types: ['EL84'],
    package: 'B9A',
    variants: one('- g k - - - a - g2'),
    origin: `${SHEETS}; 4 and 5 are the heater`,
  },
  {
    kind: 'pentode',
    types: ['EL34'],
    package: 'octal',
    variants: one('- - a g2 g - - k'),
    origin: `${SHEETS}; 1 is the suppressor, 2 and 7 the heater`,
  },
  {
    kind: 'regulator',
    types: ['7805', '7808', '7809', '7812', '7815', '7818', '7824'],
    package: 'TO-220',
    variants: one('in gnd out'),
    surroundings: {
      in: 'to gnd through 330n: keeps it from ringing where the reservoir is far',
      out: 'to gnd through 100n: improves the transient response',
    },
    origin: SHEETS,
  },
  {
    kind: 'regulator',
    types: ['7905', '7912', '7915'],
    package: 'TO-220',
    variants: one('gnd in out'),
    surroundings: {
      in: 'to gnd through 2u2: needed for stability where the reservoir is far',
      out: 'to gnd through 1u: needed for stability',
    },
    origin: SHEETS,
  },
  {
    kind: 'regulator',
    types: ['78L05', '78L09', '78L12', '78L15'],
    package: 'TO-92',
    variants: one('out gnd in'),
    surroundings: {
      in: 'to gnd through 330n: keeps it from ringing where the reservoir is far',
      out: 'to gnd through 100n: improves the transient response',
    },
    origin: SHEETS,
  },
  { kind: 'potentiometer', types: [], package: 'pot', variants: one('1 2 3'), origin: 'common practice' },
  {
    kind: 'potentiometer',
    types: [],
    package: 'dual pot',
    variants: one('A.1 A.2 A.3 B.1 B.2 B.3'),
    origin: 'common practice',
  },
  {
    kind: 'jack',
    types: [],
    package: 'jack',
    variants: one('tip ring sleeve tipSwitch ringSwitch'),
    origin: 'common practice',
  },
];
