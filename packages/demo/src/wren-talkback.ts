import { pathFromText, type PathData, type Part } from '@zemble/core';
import { partsFromLines, type DemoUnit } from './demo-unit.ts';
import { wrenBoard } from './wren-board.ts';

const parts: readonly Part[] = partsFromLines(`
  V1 12V vcc 0 resistance=1
  C1 1000u polarised 20% 16V vcc 0
  R1 1k 5% vcc vf
  C2 220u polarised 20% 16V vf 0
  G1 5mV 1kHz mic 0 resistance=600
  K1 switch closed mic in
  C3 1u 10% in b1
  R2 470k 5% c1 b1
  R3 4k7 5% vf c1
  Q1 2N3904 c=c1 b=b1 e=e1
  R4 220R 5% e1 0
  C4 1u 10% c1 v1
  P1 10k log position=0.7 1=0 2=w 3=v1
  C5 1u 10% w b2
  R5 47k 5% o b2
  R6 12k 5% b2 0
  Q2 2N3904 c=dl b=b2 e=e2
  R7 22R 5% e2 0
  R8 680R 5% vcc dh
  D1 1N4148 dh dm
  D2 1N4148 dm dl
  Q3 2N2222 c=vcc b=dh e=oh
  R9 1R 5% oh o
  R10 1R 5% o ol
  Q4 2N2907 c=0 b=dl e=ol
  C6 470u polarised 20% 16V o out
  LS1 speaker 8 out 0
`);

const shape = pathFromText(
  `adapter Adapter, adapter
   reservoir Reservoir capacitor, reservoir capacitor
   filter Supply filter of the first stage, reservoir capacitor
   mic Microphone, microphone
   key Talk key, switch
   couple Input capacitor, coupling capacitor
   first First stage, stage
   volume Volume control, control
   driver Driver, stage
   output Output pair, power amplifier
   cap Output capacitor, coupling capacitor
   speaker Speaker, speaker`,
  `audio: mic > key > couple > first > volume > driver > output > cap > speaker
   supply: adapter > reservoir > output driver filter
   supply: filter > first`,
);

const OWNED: Readonly<Record<string, readonly string[]>> = {
  adapter: ['V1'],
  reservoir: ['C1'],
  filter: ['R1', 'C2'],
  mic: ['G1'],
  key: ['K1'],
  couple: ['C3'],
  first: ['R2', 'R3', 'Q1', 'R4', 'C4'],
  volume: ['P1', 'C5'],
  driver: ['R5', 'R6', 'Q2', 'R7', 'R8'],
  output: ['D1', 'D2', 'Q3', 'R9', 'R10', 'Q4'],
  cap: ['C6'],
  speaker: ['LS1'],
};

/** Where the links can be tapped on the board. */
const POINTS: readonly (readonly [
  id: string,
  name: string,
  from: string,
  to: string,
  net: string,
  minutes: number,
])[] = [
  ['TP1', 'Talk key, contact', 'key', 'couple', 'in', 1],
  ['TP2', 'First stage, collector', 'first', 'volume', 'c1', 2],
  ['TP3', 'Volume, wiper', 'volume', 'driver', 'w', 1],
  ['TP4', 'Driver, collector', 'driver', 'output', 'dl', 2],
  ['TP5', 'Output pair, middle', 'output', 'cap', 'o', 2],
  ['TP6', 'Speaker terminal', 'cap', 'speaker', 'out', 1],
  ['TP7', 'Supply after the reservoir', 'reservoir', 'output', 'vcc', 1],
  ['TP8', 'Filtered supply', 'filter', 'first', 'vf', 1],
];

const path: PathData = {
  blocks: shape.blocks.map((b) => ({ ...b, parts: [...OWNED[b.id]!] })),
  links: shape.links,
  testPoints: POINTS.map(([id, name, from, to, net, minutes]) => ({
    id,
    name,
    link: [from, to],
    net,
    minutes,
  })),
};

/** The talkback intercom between studio and tower: hum, and no speech. */
export const wrenTalkback: DemoUnit = {
  document: {
    unit: {
      name: 'Wren talkback intercom',
      kind: 'intercom amplifier',
      hazards: ['large capacitors'],
      notes:
        'Tower end, Radio Brindle. Runs from a 12 V adapter; the adapter itself is sealed and stays shut.',
    },
    circuit: { ground: '0', parts: [...parts] },
    readouts: [
      {
        id: 'gain',
        name: 'Gain, microphone to speaker',
        kind: 'gain',
        from: 'in',
        to: 'out',
        frequencyHz: 1000,
        want: { min: 12, max: 30 },
      },
      {
        id: 'middle',
        name: 'Middle of the output pair',
        kind: 'voltage',
        net: 'o',
        want: { min: 5, max: 7 },
      },
      { id: 'first', name: 'First stage, collector', kind: 'voltage', net: 'c1', want: { min: 3, max: 8 } },
      { id: 'filtered', name: 'Filtered supply', kind: 'voltage', net: 'vf', want: { min: 9 } },
      {
        id: 'bass',
        name: 'Bass corner',
        kind: 'corner',
        from: 'in',
        to: 'out',
        side: 'low',
        want: { max: 120 },
      },
    ],
    path,
    intake: {
      words: 'The tower hears hum and no speech. It was fine before the thunderstorm weekend.',
      heard: ['hum', 'nothing'],
      outputs: 'the only speaker',
      since: 'Monday morning',
      before: 'stood switched on over the weekend, warm',
    },
  },
  readings: [],
  story: ['Brought in by Oda from the tower: hum and no speech.'],
  photos: [wrenBoard],
};
