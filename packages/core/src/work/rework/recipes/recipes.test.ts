import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../../../analysis/analysis/index.ts';
import { resolveLayer } from '../../../circuit/changes/index.ts';
import type { Circuit } from '../../../circuit/circuit/index.ts';
import { ZembleError } from '../../../base/errors/index.ts';
import { evaluateReadout, type Readout } from '../../../analysis/readouts/index.ts';
import { parseChangeLine } from '../../../sheet/sheet/index.ts';
import { circuitOf, type Unnamed } from '../../../testing/circuits.ts';
import { RECIPES, Spot, type Answers, type Chosen } from './index.ts';

const recipe = (id: string) => RECIPES.find((r) => r.id === id)!;

/** A circuit with what a way of doing makes of it, as it is planned. */
function done(id: string, lines: string, chosen: Chosen, answers: Answers) {
  const circuit = circuitOf(lines);
  const spot = new Spot(circuit, chosen);
  expect(recipe(id).asks(spot), `${id} fits there`).not.toBeNull();
  const made = recipe(id).make(spot, answers);
  const phrase = made.line.slice(made.line.indexOf(':') + 1);
  const read = parseChangeLine(phrase, circuit);
  if (!read.ok) throw new Error(`${made.line}: ${read.problem.message}`);
  const changed: Circuit = {
    ...circuit,
    changes: [{ id: 'm', name: 'm', purpose: 'modification', state: 'planned', steps: read.steps }],
  };
  const planned = resolveLayer(changed, 'planned');
  const session = new AnalysisSession(planned);
  const reads = (what: Unnamed, controls: Readonly<Record<string, number | boolean | string>> = {}) => {
    const at =
      Object.keys(controls).length === 0
        ? session
        : session.with({ controls: new Map(Object.entries(controls)) });
    const answer = evaluateReadout(at, { id: 'x', name: 'x', ...what } as Readout);
    if (!answer.ok) throw new Error(answer.problem.message);
    return answer.value;
  };
  return { made, reads, planned, session };
}
const refusal = (id: string, lines: string, chosen: Chosen, answers: Answers): string => {
  const spot = new Spot(circuitOf(lines), chosen);
  try {
    recipe(id).make(spot, answers);
    return '';
  } catch (error) {
    expect(error).toBeInstanceOf(ZembleError);
    return (error as ZembleError).message;
  }
};

const PLUS = `V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\nR1 100k in 0
  U1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR2 1k m 0\nR3 10k out m`;
const gain = (to: string, frequencyHz = 1000): Unnamed => ({ kind: 'gain', from: 'in', to, frequencyHz });

describe('gain', () => {
  it('by the feedback resistor: 20 dB is ten times, so 9k of 1k; 9.1k of E24', () => {
    const { made, reads } = done('gain-by-feedback', PLUS, { ref: 'U1' }, { gain: 20 });
    expect(made.line).toBe('Gain 20 dB: R3 -> 9.1k');
    expect(reads(gain('out'))).toBeCloseTo(20.09, 1);
  });

  it('by the feedback resistor of a stage that inverts', () => {
    const lines = `V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\nR1 10k in m\nR3 22k out m
      U1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm`;
    const { reads } = done('gain-by-feedback', lines, { ref: 'R3' }, { gain: 20 });
    expect(reads(gain('out'))).toBeCloseTo(20, 1);
    expect(refusal('gain-by-feedback', PLUS, { ref: 'U1' }, { gain: -3 })).toContain('above 0 dB');
  });

  it('by a pot with end stops: both ends are where they were asked for, give or take the track', () => {
    const { reads, planned } = done('gain-by-pot', PLUS, { ref: 'R3' }, { low: 12, high: 26 });
    const pot = planned.parts.find((p) => p.kind === 'potentiometer')!;
    expect(reads(gain('out'), { [pot.ref]: 0 })).toBeCloseTo(12, 0);
    // E3 has 22k for 16k: it goes a little further.
    expect(reads(gain('out'), { [pot.ref]: 1 })).toBeGreaterThan(26);
    expect(refusal('gain-by-pot', PLUS, { ref: 'R3' }, { low: 20, high: 10 })).toContain('above the lower');
  });

  it('by a switch: as it was when off, more or less when on, and the bend of an inverting stage too', () => {
    // 20.83 dB now; 30 dB needs Rg of 326 ohm, 484 across 1k; 12 dB needs Rf of 2.98k, 4.25k across 10k.
    for (const [wanted, beside] of [
      [30, 470],
      [12, 4300],
    ] as const) {
      const { reads, planned } = done('gain-by-switch', PLUS, { ref: 'R3' }, { gain: wanted });
      const contact = planned.parts.find((p) => p.kind === 'switch')!.ref;
      expect(planned.parts.filter((p) => p.kind === 'resistor').at(-1)!.value).toBe(beside);
      expect(reads(gain('out'), { [contact]: true })).toBeCloseTo(wanted, 0);
      expect(reads(gain('out'), { [contact]: false })).toBeCloseTo(20 * Math.log10(11), 1);
    }
    expect(refusal('gain-by-switch', PLUS, { ref: 'R3' }, { gain: 20 * Math.log10(11) })).toContain(
      'the gain it has',
    );
  });

  it('by a resistor in the emitter bypass: RC/(re + R)', () => {
    const lines = `V1 12V vcc 0\nG1 1mV in 0\nC1 100u in b\nR1 220k vcc b\nR2 47k b 0\nQ1 2N3904 c b e
      R3 4k7 vcc c\nR4 1k e 0\nC2 1000u e 0`;
    const { reads } = done('gain-by-emitter', lines, { ref: 'Q1' }, { gain: 26 });
    // The finite gain and output resistance of the transistor take a little.
    expect(Math.abs(reads({ ...gain('c'), from: 'b' } as Unnamed) - 26)).toBeLessThan(0.8);
    expect(refusal('gain-by-emitter', lines, { ref: 'Q1' }, { gain: 60 })).toContain('does not have');
  });
});

describe('corners', () => {
  it('in the bass with the real source and load, a volume pot at its worst', () => {
    // 10k source, 100k pot loaded with 47k at its wiper: at the top 32k, with the source 42k.
    const lines = 'G1 10mV in 0\nR1 10k in s\nC1 10n s p\nP1 100k 1=0 2=w 3=p position=0.5\nR2 47k w 0';
    const { reads, made } = done('bass-corner', lines, { ref: 'C1' }, { hz: 40 });
    expect(made.says[0]).toContain('42 kΩ');
    const corner: Unnamed = { kind: 'corner', from: 'in', to: 'w', side: 'low' };
    expect(Math.abs(reads(corner, { P1: 1 }) / 40 - 1)).toBeLessThan(0.12);
  });

  it('in the treble by what the net presents', () => {
    const { reads } = done(
      'treble-corner',
      'G1 1V in 0\nR1 10k in a\nR2 10k a 0',
      { net: 'a' },
      { hz: 5000 },
    );
    const hz = reads({ kind: 'corner', from: 'in', to: 'a', side: 'high', referenceHz: 50 });
    expect(Math.abs(hz / 5000 - 1)).toBeLessThan(0.1);
  });
});

const OSCILLATOR = `V1 9V vcc 0\nTM1 kind=timer555 gnd=0 trig=c out=out reset=vcc ctrl=v thr=c dis=d vcc=vcc
  R1 1k vcc d\nR2 47k d c\nC1 10n c 0\nC2 10n v 0\nR3 10k out 0`;
const rate: Unnamed = { kind: 'rate', net: 'out' };

describe('time', () => {
  it('slower by a switch: 1.44/((RA + 2 RB) C) with twice the capacitor, and as before when it is off', () => {
    const { reads, planned } = done('slower-by-switch', OSCILLATOR, { ref: 'C1' }, { times: 2 });
    const contact = planned.parts.find((p) => p.kind === 'switch')!.ref;
    const before = 1 / (Math.LN2 * 95_000 * 10e-9);
    expect(reads(rate, { [contact]: false }) / before).toBeCloseTo(1, 1);
    expect(reads(rate, { [contact]: true }) / before).toBeCloseTo(0.5, 1);
  });

  it('slower by a pot: from as it is to three times as slow', () => {
    const { reads, planned } = done('slower-by-pot', OSCILLATOR, { ref: 'R2' }, { times: 3 });
    const pot = planned.parts.find((p) => p.kind === 'potentiometer')!.ref;
    const [fast, slow] = [0, 1].map((at) => reads(rate, { [pot]: at })) as [number, number];
    expect(fast * Math.LN2 * 95_000 * 10e-9).toBeCloseTo(1, 1);
    // 94k of E3 is 100k.
    expect(slow * Math.LN2 * (1000 + 2 * 147_000) * 10e-9).toBeCloseTo(1, 1);
  });

  it('one of two capacitors that take turns: T = ln 2 (R1 C1 + R2 C2)', () => {
    const turns = (
      c1: string,
    ) => `V1 9V vcc 0\nR1 1k vcc c1\nR2 47k vcc b2\nR3 100k vcc b1\nR4 1k vcc c2\nC1 ${c1} c1 b2
      C2 22n c2 b1\nQ1 2N3904 c1 b1 0\nQ2 2N3904 c2 b2 0`;
    const { planned, made, reads } = done('slower-by-one', turns('22n'), { ref: 'C1' }, { times: 1.5 });
    // 1.034 ms and 2.2 ms turn about: half as long again is 2.617 ms for C1's, 55.7n, of E12 56n.
    expect(planned.parts.find((p) => p.ref === 'C1')!.value).toBe(56e-9);
    expect(made.says[1]).toContain('54 %');
    const seconds = Math.LN2 * (47e3 * 56e-9 + 100e3 * 22e-9);
    // A base that is pulled below its emitter by less than the supply, and one drop in it, make it a little quicker.
    const rateNow = reads({ kind: 'rate', net: 'c1' });
    expect(Math.abs(rateNow * seconds - 1)).toBeLessThan(0.12);
    expect(refusal('slower-by-one', turns('22n'), { ref: 'C1' }, { times: 0.6 })).toContain('C2 alone takes');
  });

  it('one of two capacitors of a Wien bridge: four times the one is half the rate', () => {
    const lines = `V1 15V vp 0\nV2 15V 0 vm\nU1 TL072 plus=p minus=m out=out vplus=vp vminus=vm\nR1 10k out s\nC1 10n s p
      R2 10k p 0\nC2 10n p 0\nR3 10k m 0\nR4 22k out m`;
    const { planned, made } = done('slower-by-one', lines, { ref: 'C2' }, { times: 2 });
    const value = planned.parts.find((p) => p.ref === 'C2')!.value as number;
    expect(value).toBe(39e-9);
    // The bridge by itself, opened at the amplifier: its phase is nothing at f = 1/(2 pi R sqrt(C1 C2)).
    const hz = 1 / (2 * Math.PI * 1e4 * Math.sqrt(10e-9 * value));
    const bridge = circuitOf(`G1 1V out 0\nR1 10k out s\nC1 10n s p\nR2 10k p 0\nC2 ${value} p 0`);
    const { system, smallSignal } = new AnalysisSession(resolveLayer(bridge, 'marked'));
    const { re, im } = smallSignal.at(hz).drive('G1').voltage(system.node('p'), system.node('0'));
    expect(Math.abs(im / re)).toBeLessThan(1e-4);
    // What comes out, and with it the gain that it takes: 2 + C(parallel)/C(series).
    expect(1 / re).toBeCloseTo(2 + value / 10e-9, 3);
    expect(hz * 2 * 2 * Math.PI * 1e4 * 10e-9).toBeCloseTo(1, 1);
    expect(made.traps[0]).toContain('2 + C(parallel)/C(series)');
    expect(recipe('slower-by-one').asks(new Spot(circuitOf(lines), { ref: 'R1' }))).toBeNull();
  });

  it('a clock by semitones: an octave down is twice the resistor, and the chip’s limits hold', () => {
    const lines =
      'V1 5V vcc 0\nR1 20k rs 0\nCLK1 kind=clock rset=rs gnd=0 vcc=vcc ratedHz=100000 ratedOhm=20000 minOhm=10000 maxOhm=80000';
    const clock: Unnamed = { kind: 'rate', part: 'CLK1' };
    const { reads, planned } = done('clock-range', lines, { ref: 'R1' }, { up: 5, down: 12 });
    const pot = planned.parts.find((p) => p.kind === 'potentiometer')!.ref;
    const semitones = (hz: number) => 12 * Math.log2(hz / 100_000);
    expect(semitones(reads(clock, { [pot]: 0 }))).toBeCloseTo(5, 0);
    expect(semitones(reads(clock, { [pot]: 1 }))).toBeLessThan(-11);
    expect(refusal('clock-range', lines, { ref: 'R1' }, { up: 24, down: 1 })).toContain('fewer semitones up');
    expect(refusal('clock-range', lines, { ref: 'R1' }, { up: 1, down: 36 })).toContain(
      'fewer semitones down',
    );
  });

  it('a delay of a 555-type timer: 1.1 R C at both ends', () => {
    const lines = `V1 9V vcc 0\nTM1 kind=timer555 gnd=0 trig=vcc out=out reset=vcc ctrl=v thr=t dis=t vcc=vcc
      R1 1M vcc t\nC1 1u t 0\nC2 10n v 0\nR2 10k out 0`;
    const { planned, made } = done('timer-delay', lines, { ref: 'TM1' }, { short: 0.5, long: 2 });
    const valueOf = (kind: string) =>
      planned.parts.filter((p) => p.kind === kind && p.ref !== 'R2').map((p) => p.value as number);
    const [stop] = valueOf('resistor');
    expect((1.1 * stop! * 1e-6) / 0.5).toBeCloseTo(1, 1);
    expect(1.1 * (stop! + valueOf('potentiometer')[0]!) * 1e-6).toBeGreaterThan(1.95);
    expect(made.line).toContain('2=t 3=t');
  });
});

describe('supply', () => {
  it('an RC cell: the voltage that is left, and hum down by what was asked for', () => {
    const lines = 'V1 12V vcc 0\nR1 1k vcc a\nR2 1k a 0';
    const { reads, made, session, planned } = done('supply-cell', lines, { ref: 'V1' }, { lost: 1, db: 20 });
    // 6 mA were drawn: 166.7 ohm for 1 V, 160 of E24, and the load draws a little less for it.
    expect(reads({ kind: 'voltage', net: 'vcc' })).toBeCloseTo(12 * (2000 / 2160), 3);
    const [r, c] = ['resistor', 'capacitor'].map(
      (kind) => planned.parts.filter((p) => p.kind === kind).at(-1)!.value as number,
    );
    const comes = -20 * Math.log10(1 / Math.hypot(1, 2 * Math.PI * 100 * r! * c!));
    expect(comes).toBeGreaterThan(17);
    expect(made.says[0]).toContain('are left');
    expect(session.tryOperatingPoint().ok).toBe(true);
  });

  it('a pilot LED: (9 - 2)/3 mA is 2.3k', () => {
    const { made, reads } = done(
      'led-resistor',
      'V1 9V vcc 0\nR1 10k vcc 0',
      { net: 'vcc' },
      { ampere: 3e-3, drop: 2 },
    );
    expect(made.line).toContain('2.4k');
    const ampere = Math.abs(reads({ kind: 'current', part: 'R2' }));
    expect(ampere).toBeGreaterThan(2.6e-3);
    expect(ampere).toBeLessThan(3.2e-3);
    expect(
      refusal('led-resistor', 'V1 1V vcc 0\nR1 1k vcc 0', { net: 'vcc' }, { ampere: 1e-3, drop: 2 }),
    ).toContain('lights no LED');
  });

  it('a bleeder: t = RC ln(U/30 V), its heat, and a word of caution', () => {
    const lines = 'V1 320V ht 0\nR1 100k ht 0\nC1 100u ht 0 polarised';
    const { made } = done('bleeder', lines, { ref: 'C1' }, { time: 30 });
    // 30/(100u ln(320/30)) = 126.7k; 120k of E12 makes 0.85 W.
    expect(made.line).toContain('120k');
    expect(made.says[0]).toContain('853 mW');
    expect(made.traps.join(' ')).toContain('off, unplugged, discharged and measured');
    expect(refusal('bleeder', 'V1 9V a 0\nC1 1u a 0\nR1 1k a 0', { ref: 'C1' }, { time: 1 })).toContain(
      'needs no bleeder',
    );
  });

  it('a control pin forced high, and the current its driver must bear', () => {
    const { made, reads } = done(
      'force-pin',
      'V1 5V vcc 0\nR1 100k ctl 0\nR2 1k vcc 0',
      { net: 'ctl' },
      { ampere: 1e-3 },
    );
    expect(made.line).toContain('5.1k');
    expect(reads({ kind: 'voltage', net: 'ctl' }, { SW1: true })).toBeCloseTo(5 * (100 / 105.1), 2);
    expect(made.says[0]).toContain('980 µA');
  });
});

describe('channels and loads', () => {
  it('mono into two channels: separation and loss are those of the circuit, and the whole curve is told', () => {
    const spotLines = 'G1 1V in 0 resistance=600\nR1 10M in 0';
    const { made } = done(
      'mono-mix',
      spotLines,
      { net: 'in' },
      { source: 600, load: 10_000, separation: 40 },
    );
    const ohm = /\+R\d+ (\S+) in/.exec(made.line)![1]!;
    // The same network with the channels' own resistances, a voltage forced onto one of them.
    const built = circuitOf(
      `R5 ${ohm} in left\nR6 ${ohm} in right\nR7 600 in 0\nR3 10k right 0\nG3 1V left 0`,
    );
    const cross = evaluateReadout(new AnalysisSession(resolveLayer(built, 'marked')), {
      id: 'x',
      name: 'x',
      kind: 'gain',
      from: 'left',
      to: 'right',
      frequencyHz: 1000,
    });
    expect(cross.ok && -cross.value).toBeGreaterThan(39.5);
    expect(cross.ok && -cross.value).toBeLessThan(42);
    expect(made.says[1]!.split(';')).toHaveLength(7);
  });

  it('a pad: 10 dB by an L of 10k in all is 6.84k and 3.16k (handbook: R (1 - 1/k), R/k)', () => {
    const { reads } = done(
      'pad',
      'G1 1V in 0\nC1 10u in b\nR1 10M b 0',
      { ref: 'C1' },
      { db: 10, ohm: 10_000 },
    );
    expect(reads({ kind: 'gain', from: 'in', to: 'b', frequencyHz: 1000 })).toBeCloseTo(-10, 0);
  });

  it('two channels swapped, and back again by swapping twice', () => {
    const lines = 'G1 1V in 0\nR101 1k in left\nR201 1k in right\nR2 10k left 0\nR3 22k right 0';
    const { planned } = done('swap-channels', lines, { ref: 'R101' }, {});
    expect(planned.parts.find((p) => p.ref === 'R101')!.pins.b).toBe('right');
    expect(planned.parts.find((p) => p.ref === 'R201')!.pins.b).toBe('left');
  });

  it('a load coupled: 1/(2 pi 8 30) is 663 uF', () => {
    const { made, reads } = done('couple-load', 'G1 1V in 0\nLS1 8 in 0', { ref: 'LS1' }, { hz: 30 });
    expect(made.says[0]).toContain('663 µF');
    const net = /series/.test(made.line) ? 'LS1' : '';
    expect(net).toBe('LS1');
    expect(reads({ kind: 'inputImpedance', source: 'G1', frequencyHz: 10_000 })).toBeCloseTo(8, 1);
  });

  it('a Zobel: with it, coil and resistance together stay a resistance', () => {
    const lines = 'G1 1V in 0\nL1 0.5m in s\nLD1 kind=load 8 s 0';
    const { made } = done('zobel', lines, { ref: 'LD1' }, { henry: 0.5e-3 });
    // C = L/R^2 = 7.8 uF; of E12 8.2 uF.
    expect(made.line).toContain('8.2u');
    const built = circuitOf('G1 1V in 0\nL1 0.5m in s\nR1 8 s 0\nR2 8.2 in z\nC1 8.2u z 0');
    for (const frequencyHz of [100, 1000, 5000, 20_000]) {
      const z = evaluateReadout(new AnalysisSession(resolveLayer(built, 'marked')), {
        id: 'z',
        name: 'z',
        kind: 'inputImpedance',
        source: 'G1',
        frequencyHz,
      });
      expect(z.ok && Math.abs(z.value / 8 - 1)).toBeLessThan(0.05);
    }
  });

  it('a snubber: C = I²/10 in microfarad, R = V/(10 I^(1 + 50/V)) (Bates, common practice), never above V/I', () => {
    const lines = 'V1 24V vcc 0\nSW1 vcc a closed\nR1 24 a 0';
    expect(done('snubber', lines, { ref: 'SW1' }, { volts: 24, ampere: 1 }).made.line).toMatch(
      /\+R2 2\.[27] vcc snub1; \+C1 100n snub1 a/,
    );
    // 0.1 A would have 290 ohm by the rule, and 240 is what carries the current at the supply's voltage.
    expect(done('snubber', lines, { ref: 'SW1' }, { volts: 24, ampere: 0.1 }).made.line).toContain(
      '+R2 220 ',
    );
    expect(refusal('snubber', lines, { ref: 'SW1' }, { volts: 230, ampere: 1 })).toContain('licensed');
  });

  it('a bridged load: both outputs at its ends, half of it for each, and not where they rest apart', () => {
    const lines = (
      rest: string,
    ) => `V1 12V vp 0\nV2 12V 0 vm\nV3 ${rest} r 0\nG1 1V in 0\nR1 10k in m\nR2 10k m o2
      U1 TL072 plus=in minus=o1 out=o1 vplus=vp vminus=vm\nU2 TL072 plus=r minus=m out=o2 vplus=vp vminus=vm
      LD1 kind=load 2k o1 0\nLD2 kind=load 2k o2 0`;
    const { planned, reads } = done('bridge-load', lines('1m'), { ref: 'LD1' }, {});
    expect(planned.parts.some((p) => p.ref === 'LD2')).toBe(false);
    expect(planned.parts.find((p) => p.ref === 'LD1')!.pins).toEqual({ a: 'o1', b: 'o2' });
    // 1 V peak at o1 against -1 V at o2: 2 V across, 1 mA, where 0.5 mA went into a load to the ground.
    const across = reads({ kind: 'gain', from: 'in', to: 'o1', toMinus: 'o2', frequencyHz: 1000 } as Unnamed);
    expect(across).toBeCloseTo(6.02, 1);
    expect(refusal('bridge-load', lines('1V'), { ref: 'LD1' }, {})).toContain('bring them together');
  });

  it('a dummy load: 10 W in 8 ohm is 8.94 V and 1.12 A', () => {
    const { made } = done(
      'dummy-load',
      'G1 1V in 0 resistance=1\nR1 1k in 0',
      { net: 'in' },
      { ohm: 8, watt: 10 },
    );
    expect(made.says[0]).toContain('8.94 V and 1.12 A');
    expect(made.says[0]).toContain('20 W');
  });

  it('a booster on plug-in power rests at half and amplifies as asked', () => {
    const spot = { net: 'mic' };
    const answers = { volts: 3, ohm: 2200, gain: 20 };
    const { made } = done('plug-in-booster', 'G1 1mV mic 0 resistance=1k\nR1 100k mic 0', spot, answers);
    const phrase = made.line.slice(made.line.indexOf(':') + 1);
    const out = /Q\d+ 2N3904 (\S+)/.exec(phrase)![1]!;
    const base = circuitOf(`G1 1mV mic 0 resistance=1\nR1 100k mic 0\nV1 3V sup 0\nR9 2.2k sup ${out}`);
    const read = parseChangeLine(phrase, base);
    if (!read.ok) throw new Error(read.problem.message);
    const planned = resolveLayer(
      {
        ...base,
        changes: [{ id: 'm', name: 'm', purpose: 'modification', state: 'planned', steps: read.steps }],
      },
      'planned',
    );
    const session = new AnalysisSession(planned);
    const x = session.operatingPoint();
    expect(Math.abs(x[session.system.node(out)]! - 1.5)).toBeLessThan(0.4);
    const gainDb = evaluateReadout(session, {
      id: 'g',
      name: 'g',
      kind: 'gain',
      from: 'mic',
      to: out,
      frequencyHz: 1000,
    });
    expect(gainDb.ok && Math.abs(gainDb.value - 20)).toBeLessThan(1.5);
  });

  it('a mute relay: coil current, and the time until it lets go', () => {
    const { made, planned } = done(
      'mute-relay',
      'V1 12V vcc 0\nG1 1V out 0 resistance=10\nR1 10k out 0',
      { net: 'out' },
      { time: 2, coil: 1000, pull: 5 },
    );
    // 12 V through 820 ohm on 1k: 6.59 V; RC = 450.5 ohm * C, t = RC ln(1/(1 - 5/6.59)).
    expect(made.says[0]).toContain('6.59 mA at 6.59 V');
    const c = planned.parts.find((p) => p.kind === 'capacitor')!.value as number;
    expect((450.5 * c * Math.log(1 / (1 - 5 / 6.593))) / 2).toBeCloseTo(1, 0);
    expect(
      refusal(
        'mute-relay',
        'V1 5V vcc 0\nR1 1k vcc out\nR2 1k out 0',
        { net: 'out' },
        { time: 1, coil: 1000, pull: 9 },
      ),
    ).toContain('does not pull in');
  });
});

describe('every way of doing', () => {
  it('offers itself only where it fits', () => {
    const circuit = circuitOf(PLUS);
    const offered = (chosen: Chosen) =>
      RECIPES.filter((r) => r.asks(new Spot(circuit, chosen)) !== null).map((r) => r.id);
    expect(offered({})).toEqual([]);
    expect(offered({ ref: 'U1' })).toEqual(['gain-by-feedback', 'gain-by-pot', 'gain-by-switch']);
    expect(offered({ ref: 'nothing' })).toEqual([]);
    expect(offered({ net: '0' })).toEqual([]);
    expect(offered({ net: 'out' })).toContain('treble-corner');
  });

  it('answers nonsense with a sentence', () => {
    const everything = `${PLUS}\nC1 10u out ld\nLS1 8 ld 0\nC9 100u vp 0 polarised\nQ1 2N3904 vp bb ee\nR8 1M vp bb\nR9 1k ee 0\nC8 10u ee 0`;
    const circuit = circuitOf(everything);
    const places: Chosen[] = [
      ...circuit.parts.map((p) => ({ ref: p.ref })),
      ...['in', 'out', 'vp', 'm', 'ld'].map((net) => ({ net })),
    ];
    let tried = 0;
    for (const r of RECIPES)
      for (const place of places) {
        const asks = r.asks(new Spot(circuit, place));
        if (!asks) continue;
        for (const bad of [0, -5, 1e-30, 1e30, Number.NaN]) {
          const answers = Object.fromEntries(asks.map((a) => [a.id, bad]));
          try {
            const { line } = r.make(new Spot(circuit, place), answers);
            expect(line).not.toMatch(/NaN|Infinity/);
          } catch (error) {
            expect(error, `${r.id} ${JSON.stringify(place)} ${bad}: ${String(error)}`).toBeInstanceOf(
              ZembleError,
            );
          }
          tried += 1;
        }
      }
    expect(tried).toBeGreaterThan(100);
  });
});
