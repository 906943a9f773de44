import { formatQuantity } from '../../base/quantity/index.ts';
import { asTyped, type Calculation } from './calculation.ts';

const LN2 = Math.LN2;
const LN3 = Math.log(3);

export const astable555: Calculation = {
  id: 'astable',
  title: '555-type timer, running free',
  given: [
    { id: 'ra', label: 'RA', quantity: 'resistor', usual: 1000 },
    { id: 'rb', label: 'RB', quantity: 'resistor', usual: 100_000 },
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 10e-9 },
  ],
  following: [
    {
      id: 'f',
      label: 'Rate',
      quantity: 'frequency',
      of: ({ ra, rb, c }) => 1 / (LN2 * (ra! + 2 * rb!) * c!),
      moves: 'c',
      inverse: (f, { ra, rb }) => 1 / (LN2 * (ra! + 2 * rb!) * f),
    },
    {
      id: 'duty',
      label: 'High for',
      quantity: 'ratio',
      of: ({ ra, rb }) => (ra! + rb!) / (ra! + 2 * rb!),
      moves: 'ra',
      inverse: (d, { rb }) => (rb! * (2 * d - 1)) / (1 - d),
    },
  ],
  line: ({ ra, rb, c }) =>
    `Timer: +R90 ${asTyped(ra!, 'resistor')} vcc dis; +R91 ${asTyped(rb!, 'resistor')} dis thr; +C90 ${asTyped(c!, 'capacitor')} thr 0`,
  source: 'data sheet equations: 1.44/((RA + 2 RB) C), high (RA + RB)/(RA + 2 RB)',
};

export const delay555: Calculation = {
  id: 'delay',
  title: '555-type timer, one pulse',
  given: [
    { id: 'r', label: 'R', quantity: 'resistor', usual: 1e6 },
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 10e-6 },
  ],
  following: [
    {
      id: 't',
      label: 'Time',
      quantity: 'time',
      of: ({ r, c }) => LN3 * r! * c!,
      moves: 'r',
      inverse: (t, { c }) => t / (LN3 * c!),
    },
  ],
  says: ({ r, c }) =>
    c! >= 1e-6 && r! > 2e6
      ? ['An electrolytic leaks: above about 2 MΩ the time comes out longer, or never.']
      : [],
  line: ({ r, c }) =>
    `Delay: +R90 ${asTyped(r!, 'resistor')} vcc thr; +C90 ${asTyped(c!, 'capacitor')} thr 0`,
  source: 'data sheet equation: 1.1 R C',
};

export const discharge: Calculation = {
  id: 'discharge',
  title: 'Discharge of a capacitor',
  given: [
    { id: 'v0', label: 'Charged to', quantity: 'voltage', usual: 325 },
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 100e-6 },
    { id: 'r', label: 'Through', quantity: 'resistor', usual: 2200 },
    { id: 'v', label: 'Down to', quantity: 'voltage', usual: 5 },
  ],
  following: [
    {
      id: 't',
      label: 'Takes',
      quantity: 'time',
      of: ({ v0, c, r, v }) => r! * c! * Math.log(v0! / v!),
      moves: 'r',
      inverse: (t, { v0, c, v }) => t / (c! * Math.log(v0! / v!)),
    },
    {
      id: 'energy',
      label: 'First heat in the resistor',
      quantity: 'power',
      of: ({ v0, r }) => v0! ** 2 / r!,
      moves: 'r',
      inverse: (p, { v0 }) => v0! ** 2 / p,
    },
  ],
  says: ({ v0, c }) => {
    const joule = 0.5 * c! * v0! ** 2;
    const words = [`Stores ${formatQuantity(joule, '')} J.`];
    if (v0! > 50)
      words.push(
        'This can hurt: discharge with the supply off and one hand away, then measure that it is down before you touch it.',
      );
    return words;
  },
  source: 'u = U exp(-t/RC)',
};

export const runTime: Calculation = {
  id: 'battery',
  title: 'Run time of a battery',
  given: [
    { id: 'ah', label: 'Charge', quantity: 'charge', usual: 0.5 },
    { id: 'i', label: 'Current', quantity: 'current', usual: 0.01 },
  ],
  following: [
    {
      id: 'h',
      label: 'Runs for',
      quantity: 'hours',
      of: ({ ah, i }) => ah! / i!,
      moves: 'i',
      inverse: (h, { ah }) => ah! / h,
    },
  ],
  says: () => [
    'Of a small block, count on two thirds of what is printed at more than a few milliampere (common practice).',
  ],
  source: 'charge over current',
};

export const bank: Calculation = {
  id: 'bank',
  title: 'Run time of a capacitor bank',
  given: [
    { id: 'c', label: 'C', quantity: 'capacitor', usual: 10e-3 },
    { id: 'v0', label: 'From', quantity: 'voltage', usual: 12 },
    { id: 'v', label: 'Down to', quantity: 'voltage', usual: 8 },
    { id: 'i', label: 'Current', quantity: 'current', usual: 0.05 },
  ],
  following: [
    {
      id: 't',
      label: 'Runs for',
      quantity: 'time',
      of: ({ c, v0, v, i }) => (c! * (v0! - v!)) / i!,
      moves: 'c',
      inverse: (t, { v0, v, i }) => (t * i!) / (v0! - v!),
    },
  ],
  source: 'C dV = I dt at a steady current',
};
