import { bodyOf, lookOf } from '../bodies/index.ts';
import { isPolarised, printedText, type LayerPart } from '../../circuit/circuit/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import type { Bearing } from '../../bench/judge/index.ts';

/** What a part is called on the bench: "R4 820R", "Q1 2N3904". */
export const nameOf = (part: LayerPart): string => `${part.ref} ${printedText(part, part.value)}`.trim();

const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

/** Where the legs of a part go: "between n3 and 0", or each pin by its name where they are told apart. */
export function legsWords(part: LayerPart): string {
  const pins = Object.entries(part.pins);
  const isTold = pins.length !== 2 || hasPolarity(part);
  if (!isTold) return `between ${pins[0]![1]} and ${pins[1]![1]}`;
  const names = POLES[part.kind] ?? {};
  return list(
    pins.map(
      ([pin, net]) => `${names[pin] ?? (isPolarised(part) ? (POLARISED[pin] ?? pin) : pin)} to ${net}`,
    ),
  );
}

const POLES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  diode: { a: 'anode', k: 'band' },
  zener: { a: 'anode', k: 'band' },
  led: { a: 'long leg', k: 'flat side' },
};
const POLARISED: Readonly<Record<string, string>> = { a: 'plus', b: 'minus' };

/** Whether the ends of a part are told apart: fitted the wrong way round it fails, or the circuit does. */
const hasPolarity = (part: LayerPart): boolean =>
  Object.keys(part.pins).length > 2 ||
  isPolarised(part) ||
  part.kind in POLES ||
  lookOf(part).mark !== undefined;

/** What matters as a part goes in: which way round, what rating, what heat. */
export function fitCaution(part: LayerPart, bearing: Bearing | undefined): string | undefined {
  const words: string[] = [];
  if (hasPolarity(part)) words.push(`Which way round: ${legsWords(part)}.`);
  if (part.kind === 'capacitor' && bearing?.voltage !== undefined) {
    const isShort = part.voltage !== undefined && part.voltage < bearing.voltage;
    const wanted = formatQuantity(ratingFor(bearing.voltage), 'V');
    if (isShort)
      words.push(
        `Rated ${formatQuantity(part.voltage!, 'V')}: take ${wanted} or more, 1.5 times what it will see.`,
      );
    else if (part.voltage === undefined && bearing.voltage > LOW_V)
      words.push(`Rated ${wanted} or more: 1.5 times what it will see.`);
    if (bodyOf(part).isRound === true) words.push('A 105 °C type, a hole away from what gets hot.');
  }
  if (part.kind === 'resistor' && bearing?.power !== undefined && bearing.power > (part.power ?? USUAL_W))
    words.push(
      `Rated ${formatQuantity(bearing.power, 'W', { digits: 2 })} or more: twice its heat; stand it off the board.`,
    );
  if (bodyOf(part).heightMm > TALL_MM && part.kind === 'capacitor')
    words.push('Tall: hold it with a drop of glue.');
  return words.length === 0 ? undefined : words.join(' ');
}
/** Rated voltages that capacitors are made for, V (IEC 60063 R5 and R10, and what is common beside). */
const RATINGS_V = [6.3, 10, 16, 25, 35, 50, 63, 100, 160, 200, 250, 350, 400, 450, 630, 1000];
const ratingFor = (volt: number): number => RATINGS_V.find((r) => r >= volt) ?? Math.ceil(volt);
/** Below this any capacitor will do, V. */
const LOW_V = 10;
const USUAL_W = 0.25;
const TALL_MM = 20;

/** When a part goes in: the lowest first, so that the board lies flat on the ones before it; chips last of all. */
export function assemblyRank(part: LayerPart): number {
  const { heightMm, widthMm } = bodyOf(part);
  switch (part.kind) {
    case 'resistor':
      return (part.power ?? USUAL_W) >= 1 ? RANKS.large : RANKS.resistor;
    case 'diode':
    case 'zener':
      return RANKS.diode;
    case 'inductor':
      return bodyOf(part).mounting === 'axial' ? RANKS.diode : RANKS.transistor;
    case 'capacitor':
      if (bodyOf(part).isRound === true) return widthMm > SMALL_CAN_MM ? RANKS.large : RANKS.small;
      return heightMm > LOW_MM ? RANKS.film : RANKS.ceramic;
    case 'bjt':
    case 'jfet':
    case 'mosfet':
    case 'regulator':
    case 'led':
      return RANKS.transistor;
    case 'jumper':
      return RANKS.pins;
    case 'opamp':
    case 'timer555':
    case 'triode':
    case 'pentode':
      return RANKS.chip;
    default:
      return isOffBoard(part) ? RANKS.wire : RANKS.large;
  }
}
const RANKS = {
  resistor: 1,
  diode: 2,
  socket: 3,
  ceramic: 4,
  film: 5,
  transistor: 6,
  pins: 7,
  small: 8,
  large: 9,
  wire: 10,
  chip: 11,
} as const;
const SMALL_CAN_MM = 8;
const LOW_MM = 6;
export const SOCKET_RANK = RANKS.socket;

const OFF_BOARD: ReadonlySet<string> = new Set([
  'potentiometer',
  'switch',
  'changeover',
  'jack',
  'speaker',
  'headphone',
  'load',
  'supply',
  'signal',
  'capsule',
  'transformer',
  'box',
]);

/** Whether a part usually stands beside the board and is wired to it. */
export const isOffBoard = (part: LayerPart): boolean => OFF_BOARD.has(part.kind);

/** Whether a part goes into a socket: chips and valves. */
export const isSocketed = (part: LayerPart): boolean => assemblyRank(part) === RANKS.chip;
