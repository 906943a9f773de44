import type { DemoUnit } from './demo-unit.ts';
import { dunlinBoards } from './dunlin-boards.ts';
import { tracedFromLines } from './traced-lines.ts';

/** The left channel as it was traced; the parts of the right one are typed, and nothing has beeped with them yet. */
const { parts, beeps } = tracedFromLines(`
  V1 15V
  V2 15V
  G1 100mV
  C1 1u 10% 63V film
  R1 100k 5%
  U1 TL072
  R2 22k 5%
  R3 10k 5%
  R4 100 5%
  R5 100k 5%
  C101 1u 10% 63V film
  R101 100k 5%
  R102 22k 5%
  R103 10k 5%
  R104 100 5%
  R105 100k 5%
  V1.minus gnd
  V2.plus gnd
  G1.minus gnd
  V1.plus U1.8
  V2.minus U1.4
  inL G1.plus C1.1
  C1.2 R1.1 U1.3
  R1.2 gnd
  U1.1 R2.2 R4.1
  U1.2 R2.1 R3.1
  R3.2 gnd
  outL R4.2 R5.1
  R5.2 gnd
  U1.3 # U1.1 U1.2 gnd
`);

/** A two-channel line driver that nobody has a drawing of: half of it is traced with a meter that beeps. */
export const dunlinDriver: DemoUnit = {
  document: {
    unit: {
      name: 'Dunlin line driver',
      kind: 'line amplifier',
      hazards: [],
      notes:
        'Between the desk and the tower, Radio Brindle. No drawing of it exists; the right channel is dull.',
    },
    circuit: { ground: '0', parts, beeps },
    readouts: [
      {
        id: 'gain',
        name: 'Gain, left',
        kind: 'gain',
        from: 'inL',
        to: 'outL',
        frequencyHz: 1000,
        want: { min: 9, max: 11 },
      },
      {
        id: 'bass',
        name: 'Bass corner, left',
        kind: 'corner',
        from: 'inL',
        to: 'outL',
        side: 'low',
        want: { max: 10 },
      },
    ],
  },
  readings: [],
  story: ['Traced the left channel by beeping; the right one looks the same.'],
  photos: dunlinBoards,
};
