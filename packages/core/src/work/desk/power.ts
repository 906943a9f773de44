import { bandsFor, formatCode, formatQuantity, formatPlain, parseValue } from '../../base/quantity/index.ts';
import { asTyped, type Calculation } from './calculation.ts';

/** Rated powers of the usual resistors, W (common practice: run at half). */
const POWERS = [0.125, 0.25, 0.5, 1, 2, 5, 10, 25];
export const ratedFor = (watt: number): number | undefined => POWERS.find((p) => p >= 2 * watt);

export const led: Calculation = {
  id: 'led',
  title: 'LED resistor',
  given: [
    { id: 'v', label: 'Supply', quantity: 'voltage', usual: 9 },
    { id: 'vf', label: 'LED drops', quantity: 'voltage', usual: 2 },
    { id: 'i', label: 'Current', quantity: 'current', usual: 0.005 },
  ],
  following: [
    {
      id: 'r',
      label: 'Resistor',
      quantity: 'resistor',
      of: ({ v, vf, i }) => (v! - vf!) / i!,
      moves: 'i',
      inverse: (r, { v, vf }) => (v! - vf!) / r,
    },
    {
      id: 'p',
      label: 'Its heat',
      quantity: 'power',
      of: ({ r, i }) => r! * i! ** 2,
      moves: 'i',
      inverse: (p, { v, vf }) => p / (v! - vf!),
    },
  ],
  says: ({ p }) => {
    const rated = ratedFor(p!);
    return rated === undefined
      ? []
      : [`A resistor of ${formatQuantity(rated, 'W')} runs at half of it or less.`];
  },
  line: ({ r }) => `LED: +R90 ${asTyped(r!, 'resistor')} vcc led; +LED90 led led 0`,
  source: 'Ohm; red drops about 2 V, blue and white about 3 V',
};

export const heatSink: Calculation = {
  id: 'heat',
  title: 'Heat sink',
  given: [
    { id: 'p', label: 'Heat', quantity: 'power', usual: 5 },
    { id: 'ta', label: 'Air', quantity: 'temperature', usual: 40, isSigned: true },
    { id: 'jc', label: 'Junction to case', quantity: 'thermalResistance', usual: 3 },
    { id: 'cs', label: 'Case to sink', quantity: 'thermalResistance', usual: 0.5 },
    { id: 'sa', label: 'Sink to air', quantity: 'thermalResistance', usual: 10 },
  ],
  following: [
    {
      id: 'tj',
      label: 'Junction',
      quantity: 'temperature',
      isSigned: true,
      of: ({ p, ta, jc, cs, sa }) => ta! + p! * (jc! + cs! + sa!),
      moves: 'sa',
      inverse: (tj, { p, ta, jc, cs }) => (tj - ta!) / p! - jc! - cs!,
    },
    {
      id: 'ts',
      label: 'Sink',
      quantity: 'temperature',
      isSigned: true,
      of: ({ p, ta, sa }) => ta! + p! * sa!,
      moves: 'sa',
      inverse: (ts, { p, ta }) => (ts - ta!) / p!,
    },
  ],
  says: ({ tj, ts }) => [
    ...(tj! > 125 ? ['Too hot: silicon is kept below 125 °C with some to spare.'] : []),
    ...(ts! > 60 ? ['The sink is too hot to touch.'] : []),
  ],
  source: 'thermal resistances in series',
};

export const windings: Calculation = {
  id: 'windings',
  title: 'Transformer',
  given: [
    { id: 'n1', label: 'Turns or volts, first', quantity: 'number', usual: 230 },
    { id: 'n2', label: 'Turns or volts, second', quantity: 'number', usual: 12 },
    { id: 'zs', label: 'Load on the second', quantity: 'resistor', usual: 8 },
  ],
  following: [
    {
      id: 'ratio',
      label: 'Ratio, to one',
      quantity: 'number',
      of: ({ n1, n2 }) => n1! / n2!,
      moves: 'n2',
      inverse: (ratio, { n1 }) => n1! / ratio,
    },
    {
      id: 'zp',
      label: 'Seen by the first',
      quantity: 'resistor',
      of: ({ n1, n2, zs }) => zs! * (n1! / n2!) ** 2,
      moves: 'n2',
      inverse: (zp, { n1, zs }) => n1! * Math.sqrt(zs! / zp),
    },
  ],
  says: () => [
    'A winding of unknown turns: feed a few volts from a generator, never the mains, and read the others.',
  ],
  source: 'ideal transformer: impedances as the square of the turns',
};

/** Significant digits and zeros of a code in picofarad: 104 is 100 nF. */
function codeOf(farad: number): string | undefined {
  const pico = Number((farad * 1e12).toPrecision(2));
  if (pico < 1) return undefined;
  if (pico < 10) return `${pico}`;
  const power = Math.floor(Math.log10(pico)) - 1;
  return power > 9 ? undefined : `${Math.round(pico / 10 ** power)}${power}`;
}

export const capacitorCode: Calculation = {
  id: 'capacitor-code',
  title: 'Code on a capacitor',
  given: [{ id: 'c', label: 'Value, or type its code', quantity: 'capacitor', usual: 100e-9 }],
  following: [],
  says: ({ c }) => {
    const code = codeOf(c!);
    const back = code === undefined ? undefined : parseValue(code, { kind: 'capacitor' });
    const isExact = back?.ok === true && Math.abs(back.readings[0].value / c! - 1) < 1e-6;
    return [
      `${formatQuantity(c!, 'F')}: ${code === undefined ? 'no three-digit code' : `${isExact ? '' : 'about '}${code}`}, ${formatCode(c!, 3, 'F')}, ${formatPlain(c! * 1e12, 6)} pF.`,
    ];
  },
  source: 'IEC 60062',
};

export const colourBands: Calculation = {
  id: 'bands',
  title: 'Colour bands',
  given: [{ id: 'r', label: 'Value, or type its colours', quantity: 'resistor', usual: 4700 }],
  following: [],
  says: ({ r }) => {
    const bands = bandsFor(r!);
    const tight = bandsFor(r!, 0.01);
    return [
      bands ? `At 5 %: ${bands.join(', ')}.` : 'Four bands cannot say it.',
      ...(tight ? [`At 1 %: ${tight.join(', ')}.`] : []),
    ];
  },
  source: 'IEC 60062',
};
