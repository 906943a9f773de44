import { partsFromLines, type DemoUnit } from './demo-unit.ts';

/**
 * The auto-pan box: a low-frequency oscillator whose phase-shift ladder has three unequal capacitors, its inverse, and
 * two FETs that shunt left and right in turn.
 */
export const heronAutopan: DemoUnit = {
  document: {
    unit: {
      name: 'Heron auto-pan',
      kind: 'effect',
      hazards: ['battery only'],
      notes: 'Night desk, Radio Brindle. Moves the rain ambience from side to side. Too fast for the host.',
    },
    circuit: {
      ground: '0',
      parts: partsFromLines(`
        V1 9V vp 0
        V2 9V 0 vm
        U1 TL072 plus=0 minus=s out=lfo vplus=vp vminus=vm
        C1 680n 10% lfo x1
        R1 33k 5% x1 r1
        P1 100k linear position=0.5 1=r1 2=0 3=0
        C2 470n 10% x1 x2
        R2 82k 5% x2 0
        C3 330n 10% x2 x3
        R3 82k 5% x3 s
        R4 4.7M 5% s lfo
        U2 TL072 plus=0 minus=i out=inv vplus=vp vminus=vm
        R5 100k 5% lfo i
        R6 100k 5% i inv
        R7 220k 5% lfo gL
        R8 270k 5% gL vm
        R9 220k 5% inv gR
        R10 270k 5% gR vm
        G1 100mV 1kHz in 0 resistance=1k
        R11 22k 5% in outL
        JF1 2N5457 d=outL g=gL s=0
        R12 22k 5% in outR
        JF2 2N5457 d=outR g=gR s=0
        R13 100k 5% outL 0
        R14 100k 5% outR 0
      `),
    },
    readouts: [
      { id: 'rate', name: 'Pan rate', kind: 'rate', net: 'lfo', want: { min: 1, max: 3 } },
      { id: 'rates', name: 'Rate over the knob', kind: 'range', of: 'rate', part: 'P1', want: { min: 0.3 } },
      {
        id: 'level',
        name: 'Level at rest, left',
        kind: 'gain',
        from: 'in',
        to: 'outL',
        frequencyHz: 1000,
        want: { target: -1.7, within: 1 },
      },
      { id: 'gate', name: 'Gate at rest, left', kind: 'voltage', net: 'gL', want: { min: -4.6, max: -3.4 } },
    ],
  },
  readings: [
    { ref: 'C1', value: 0.66e-6, condition: 'leg lifted' },
    { ref: 'C2', value: 0.14e-6, condition: 'leg lifted' },
    { ref: 'C3', value: 0.325e-6, condition: 'leg lifted' },
    { ref: 'R2', value: 82_600, condition: 'leg lifted' },
  ],
  story: ['Counted 21 swings in ten seconds.', 'Both batteries fresh.'],
};
