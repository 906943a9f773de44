import { pathFromText, type Part, type PathData } from '@zemble/core';
import { partsFromLines, type DemoUnit } from './demo-unit.ts';

const parts: readonly Part[] = partsFromLines(`
  V1 12V vcc 0
  R1 10k 5% vcc cap
  MK1 electret cap 0
  C1 1u 10% 63V cap b
  R2 330k 5% vcc b
  R3 220k 5% b 0
  Q1 2N3904 c=c b=b e=e
  R4 4k7 5% vcc c
  R5 3k3 5% e 0
  C2 22u polarised 20% 25V e f
  R6 470 5% f 0
  C3 10u polarised 20% 25V c out
  R7 10k 5% out 0
`);

const shape = pathFromText(
  `adapter Adapter, adapter
   capsule Capsule with its load, microphone
   couple Coupling capacitor, coupling capacitor
   stage Amplifier stage, stage
   cable Output capacitor and console, coupling capacitor`,
  `audio: capsule > couple > stage > cable
   supply: adapter > capsule stage`,
);

const OWNED: Readonly<Record<string, readonly string[]>> = {
  adapter: ['V1'],
  capsule: ['R1', 'MK1'],
  couple: ['C1'],
  stage: ['R2', 'R3', 'Q1', 'R4', 'R5', 'C2', 'R6'],
  cable: ['C3', 'R7'],
};

const path: PathData = {
  blocks: shape.blocks.map((b) => ({ ...b, parts: [...OWNED[b.id]!] })),
  links: shape.links,
  testPoints: [],
};

/** The announcer's capsule microphone: quiet on a battery, hums on the adapter that replaced it. */
export const ploverMicrophone: DemoUnit = {
  document: {
    unit: {
      name: 'Plover capsule microphone',
      kind: 'capsule microphone',
      hazards: [],
      notes: 'Announcer’s desk, Radio Brindle. Ran from a battery once; now from a 12 V adapter, which hums.',
    },
    circuit: { ground: '0', parts: [...parts] },
    readouts: [
      {
        id: 'gain',
        name: 'Gain, capsule to console',
        kind: 'gain',
        from: 'cap',
        to: 'out',
        frequencyHz: 1000,
        want: { min: 14, max: 22 },
      },
      {
        id: 'hum',
        name: 'Hum at the console from 10 mV on the supply',
        kind: 'ripple',
        net: 'out',
        frequencyHz: 100,
        sourceV: 0.01,
        source: 'V1',
      },
      { id: 'capsule', name: 'At the capsule', kind: 'voltage', net: 'cap', want: { min: 3 } },
      { id: 'collector', name: 'Collector', kind: 'voltage', net: 'c', want: { min: 4, max: 9 } },
      {
        id: 'bass',
        name: 'Bass corner',
        kind: 'corner',
        from: 'cap',
        to: 'out',
        side: 'low',
        want: { max: 40 },
      },
    ],
    path,
    intake: {
      words: 'Hums since it runs from the adapter. On a battery it was quiet.',
      heard: ['hum'],
      outputs: 'the only speaker',
      since: 'the battery was replaced by an adapter',
    },
  },
  readings: [
    { ref: 'R1', value: 9_870, condition: 'leg lifted' },
    { ref: 'R4', value: 4_650, condition: 'leg lifted' },
  ],
  story: ['Brought in by Henrik from the announcer’s desk: it hums on the adapter.'],
};
