import { partsFromLines, type DemoUnit } from './demo-unit.ts';
import { DROVER_BOARD, DROVER_LID, DROVER_WIRES } from './drover-build.ts';

/**
 * The overdrive box for jingles: an opamp whose feedback two diodes limit, behind a bass cut, with a treble control that
 * shunts through a capacitor and a level control at the end. Our own values throughout.
 */
export const droverOverdrive: DemoUnit = {
  document: {
    unit: {
      name: 'Drover jingle overdrive',
      kind: 'pedal',
      hazards: ['battery only'],
      notes: 'Studio A, Radio Brindle. For station jingles. Sounds thin since it fell off the shelf.',
    },
    circuit: {
      ground: '0',
      parts: partsFromLines(`
        V1 9V vcc 0
        G1 100mV 1kHz in 0 resistance=5k
        R1 12k 5% vcc vb
        R2 12k 5% vb 0
        C1 47u polarised voltage=16 vb 0
        C2 47n 10% in a
        R3 470k 5% a vb
        U1 TL072 plus=a minus=m out=d vplus=vcc vminus=0
        R4 3.9k 5% m n
        C3 120n 10% n 0
        R5 15k 5% m q
        P1 220k log position=0.6 1=q 2=d 3=d
        D1 1N4148 m d
        D2 1N4148 d m
        R6 2.7k 5% d t
        C4 33n 10% t y
        P2 22k linear position=0.4 1=y 2=0 3=0
        C5 1u 10% t w
        P3 100k log position=0.7 1=0 2=out 3=w
        R7 1M 5% out 0
      `),
    },
    wires: DROVER_WIRES,
    boards: [DROVER_BOARD],
    panels: [DROVER_LID],
    readouts: [
      {
        id: 'drive',
        name: 'Gain before clipping',
        kind: 'gain',
        from: 'in',
        to: 'd',
        frequencyHz: 1000,
        want: { target: 22.5, within: 1.5 },
      },
      {
        id: 'bass',
        name: 'Bass corner',
        kind: 'corner',
        from: 'in',
        to: 'd',
        side: 'low',
        want: { min: 200, max: 450 },
      },
      {
        id: 'bite',
        name: 'Distortion at 100 mV',
        kind: 'thd',
        source: 'G1',
        out: 'd',
        frequencyHz: 1000,
        levelV: 0.1,
        want: { min: 0.1, max: 0.4 },
      },
      {
        id: 'clean',
        name: 'Clean headroom at the opamp',
        kind: 'headroom',
        source: 'G1',
        out: 'd',
        frequencyHz: 1000,
      },
      { id: 'bright', name: 'Level at 5 kHz', kind: 'gain', from: 'd', to: 'out', frequencyHz: 5000 },
      { id: 'tone', name: 'Tone control travel', kind: 'range', of: 'bright', part: 'P2', want: { min: 5 } },
      {
        id: 'hiss',
        name: 'Hiss at the output, A-weighted',
        kind: 'noise',
        out: 'out',
        weighting: 'A',
        want: { max: 0.001 },
      },
      { id: 'bias', name: 'Half supply', kind: 'voltage', net: 'vb', want: { min: 4.2, max: 4.7 } },
    ],
  },
  readings: [
    { ref: 'C2', value: 45.8e-9, condition: 'leg lifted' },
    { ref: 'C3', value: 19e-9, condition: 'leg lifted' },
    { ref: 'R4', value: 3_880, condition: 'leg lifted' },
    { ref: 'R6', value: 2_730, condition: 'leg lifted' },
  ],
  story: ['Battery reads 9.1 V under load.', 'C3 has a cracked corner.'],
};
