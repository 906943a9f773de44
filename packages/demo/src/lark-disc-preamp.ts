import { partsFromLines, type DemoUnit } from './demo-unit.ts';

/**
 * One channel: two transistors, direct coupled, with the replay curve in the feedback from the second collector to the
 * first emitter; the base of the first is biased from the second emitter.
 */
const channel = (n: 1 | 2, side: 'L' | 'R') => `
  G${n}01 5mV 1kHz resistance=1k in${side} 0
  R${n}01 47k 5% in${side} 0
  C${n}01 4.7u polarised 20% voltage=25 b1${side} in${side}
  R${n}02 220k 10% b1${side} e2${side}
  Q${n}01 BC549C c=c1${side} b=b1${side} e=e1${side}
  R${n}03 180k 10% vcc c1${side}
  R${n}04 680 10% e1${side} 0
  Q${n}02 BC549C c=c2${side} b=c1${side} e=e2${side}
  R${n}05 12k 10% vcc c2${side}
  R${n}06 1k 10% e2${side} 0
  C${n}02 220u polarised 20% voltage=10 e2${side} 0
  C${n}03 10u polarised 20% voltage=25 c2${side} out${side}
  R${n}07 100k 10% out${side} 0
  C${n}04 22u polarised 20% voltage=25 c2${side} f1${side}
  R${n}08 510k 5% f1${side} f2${side}
  C${n}05 6.8n 5% f1${side} f2${side}
  R${n}09 39k 5% f2${side} e1${side}
  C${n}06 2n 5% f2${side} e1${side}
`;

const gain = (side: 'L' | 'R', name: string) => ({
  id: `gain${side}`,
  name: `Gain at 1 kHz, ${name}`,
  kind: 'gain' as const,
  from: `in${side}`,
  to: `out${side}`,
  frequencyHz: 1000,
  want: { target: 37.5, within: 1 },
});
const curve = (side: 'L' | 'R', name: string, frequencyHz: number, label: string) => ({
  id: `curve${side}${frequencyHz}`,
  name: `Replay curve error ${label}, ${name}`,
  kind: 'curveError' as const,
  from: `in${side}`,
  to: `out${side}`,
  curve: 'disc-replay' as const,
  frequencyHz,
  want: { min: -0.5, max: 0.5 },
});
const collector = (side: 'L' | 'R', name: string) => ({
  id: `collector${side}`,
  name: `Second collector, ${name}`,
  kind: 'voltage' as const,
  net: `c2${side}`,
  want: { min: 11, max: 17 },
});

/**
 * The disc preamplifier of studio B: the right channel is fine, the left one dull and quiet. In the left channel two
 * resistors have drifted high and one electrolytic is nearly dry.
 */
export const larkDiscPreamp: DemoUnit = {
  document: {
    unit: {
      name: 'Lark 3 disc preamp',
      kind: 'preamplifier',
      hazards: [],
      hazardNotes: '24 V wall supply',
      notes:
        'Studio B, Radio Brindle. Left channel dull and quiet, right channel fine. Not opened before, dusty.',
    },
    circuit: {
      ground: '0',
      parts: partsFromLines(`V1 24V vcc 0\n${channel(1, 'L')}\n${channel(2, 'R')}`),
    },
    readouts: [
      gain('L', 'left'),
      gain('R', 'right'),
      curve('L', 'left', 100, '100 Hz'),
      curve('R', 'right', 100, '100 Hz'),
      curve('L', 'left', 10000, '10 kHz'),
      curve('R', 'right', 10000, '10 kHz'),
      collector('L', 'left'),
      collector('R', 'right'),
    ],
  },
  readings: [
    { ref: 'R101', value: 48_100, condition: 'leg lifted' },
    { ref: 'C101', value: 4.4e-6, condition: 'leg lifted' },
    { ref: 'R104', value: 1_120, condition: 'leg lifted' },
    { ref: 'R109', value: 55_300, condition: 'leg lifted' },
    { ref: 'C102', value: 9.1e-6, condition: 'leg lifted' },
    { ref: 'R105', value: 12_300, condition: 'in circuit' },
    { ref: 'C106', value: 4.1e-9, condition: 'in circuit' },
    { ref: 'C105', value: 6.9e-9, condition: 'leg lifted' },
    { ref: 'R106', value: 1_095, condition: 'leg lifted' },
  ],
  story: [
    'Adapter reads 24.1 V under load, no hum on it.',
    'Swapped the channels at the turntable: the fault stays left.',
  ],
};
