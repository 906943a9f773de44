import { formatCode, bandsFor, type BandColour } from '../../base/quantity/index.ts';
import { isPolarised, usualTolerance, printedText, type LayerPart } from '../../circuit/circuit/index.ts';
import { pinoutOf } from '../../circuit/pinout/index.ts';
import { bodyOf } from './body.ts';

/** How a part looks in the hand: what is printed on it, and how its ends are told apart. */
export interface Look {
  /** Colour bands from the end that they begin at. */
  readonly bands?: readonly BandColour[];
  /** The number that is printed: "473". */
  readonly code?: string;
  /** What is printed on it and how its ends are told apart, in words: 'printed "473"'. */
  readonly words: string;
  /** The pin that its mark stands at, and what the mark is. */
  readonly mark?: { readonly pin: string; readonly what: string };
}

/** Resistors up to this rating carry bands, W (common practice: larger ones are printed). */
const BANDED_UP_TO_W = 3;
const PICO = 1e12;
/** Electrolytics are printed in plain words, not in a code. */
const LARGEST_CODED_F = 10e-6;

/** The EIA three-digit code of a capacitor, two digits and a count of zeros, in pF: 47n is 473. Undefined where two digits do not say it. */
export function capacitorCode(farads: number): string | undefined {
  const pico = Number((farads * PICO).toPrecision(6));
  if (!(pico >= 10) || farads >= LARGEST_CODED_F) return undefined;
  const zeros = Math.floor(Math.log10(pico) + 1e-9) - 1;
  const digits = Number((pico / 10 ** zeros).toPrecision(6));
  return Number.isInteger(digits) && zeros <= 9 ? `${digits}${zeros}` : undefined;
}

/** How a part looks that is to be fitted, as far as its kind and value tell. */
export function lookOf(part: LayerPart): Look {
  switch (part.kind) {
    case 'resistor':
      return resistorLook(part);
    case 'capacitor':
      return capacitorLook(part);
    case 'diode':
    case 'zener':
      return { words: 'the band marks the cathode', mark: { pin: 'k', what: 'band' } };
    case 'led':
      return {
        words: 'the flat side and the shorter leg mark the cathode',
        mark: { pin: 'k', what: 'flat side' },
      };
    default:
      return caseLook(part);
  }
}

function resistorLook(part: LayerPart): Look {
  const { value } = part;
  if (typeof value !== 'number') return { words: '' };
  const bands = (part.power ?? 0) > BANDED_UP_TO_W ? undefined : bandsFor(value, usualTolerance(part));
  const printed = printedText(part, value);
  return bands ? { bands, words: bands.join(' ') } : { code: printed, words: `printed ${printed}` };
}

function capacitorLook(part: LayerPart): Look {
  const { value } = part;
  const farads = typeof value === 'number' ? value : null;
  const volts = part.voltage === undefined ? '' : ` ${part.voltage} V`;
  const printedValue =
    farads === null ? '' : `printed ${formatCode(farads, 3, 'F')}F${volts}`.replace('FF', 'F');
  const printed = printedValue === '' ? '' : `${printedValue}, `;
  if (isPolarised(part))
    return part.technology === 'tantalum'
      ? { words: `${printed}the stripe or + marks the plus`, mark: { pin: 'a', what: '+' } }
      : {
          words: `${printed}the stripe marks the minus, the longer leg is the plus`,
          mark: { pin: 'b', what: 'stripe' },
        };
  if (bodyOf(part).isRound === true)
    return { words: `${printed}where it is an electrolytic its stripe goes to the lower voltage` };
  const code = farads === null ? undefined : capacitorCode(farads);
  if (code !== undefined) return { code, words: `printed ${code}` };
  return { words: farads === null ? '' : `printed ${formatCode(farads, 3, 'F')}` };
}

function caseLook(part: LayerPart): Look {
  const known = pinoutOf(part);
  if (!known?.outline) return { words: '' };
  const { outline, variant, isAssumed, orders } = known;
  if (outline.shape === 'dual in line')
    return {
      words: 'the notch or the dot marks pin 1',
      mark: { pin: variant.pins[0]!.replace(/^[A-D]\./, ''), what: 'pin 1' },
    };
  if (outline.shape !== 'three legs') return { words: outline.seen };
  const doubt = isAssumed
    ? `; it also comes as ${orders.filter((o) => o !== variant.name).join(' or ')}: look it up`
    : '';
  return { words: `${outline.seen}: ${variant.pins.join(', ')} from the left${doubt}` };
}
