import { describe, expect, it } from 'vitest';
import { circuitOf, type Unnamed } from '../../../testing/circuits.ts';
import { done, refusal, offered, RAILS, PLUS, gain, decibel } from '../../../testing/way-done.ts';
import { sessionWith } from '../../../testing/with-steps.ts';

describe('gain', () => {
  it('by the feedback resistor: 20 dB is ten times, 9 k of 1 k', () => {
    const { made, reads, valueOf } = done('gain-by-feedback', PLUS, { ref: 'U1' }, { gain: 20 });
    expect(valueOf('R3')).toBe(9100);
    expect(reads(gain('in', 'out'))).toBeCloseTo(decibel(10.1), 2);
    expect(made.promises[0]!.value).toBeCloseTo(decibel(10.1), 2);
  });

  it('of a stage whose foot stands on a bias rail, which does not invert', () => {
    const lines = `V1 9V vp 0\nV3 4.5V vr 0\nG1 10mV in 0\nC1 1u in p\nR9 1M p vr\nR1 1k m vr\nR2 4.7k m out
      U1 TL072 plus=p minus=m out=out vplus=vp vminus=0`;
    const { valueOf, reads } = done('gain-by-feedback', lines, { ref: 'U1' }, { gain: 6 });
    expect(valueOf('R2')).toBe(1000);
    expect(reads(gain('p', 'out'))).toBeCloseTo(decibel(2), 2);
  });

  it('of a stage that inverts with a capacitor to the ground at its input', () => {
    const lines = `${RAILS}\nG1 10mV in 0\nR9 100 in a\nC1 100p a 0\nR1 10k a m\nR2 22k m out
      U1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm`;
    const { reads, valueOf } = done('gain-by-feedback', lines, { ref: 'U1' }, { gain: 6 });
    expect(valueOf('R2')).toBe(20_000);
    expect(reads(gain('a', 'out'))).toBeCloseTo(decibel(2), 1);
    expect(reads(gain('a', 'out'))).toBeCloseTo(
      done('gain-by-feedback', lines, { ref: 'R2' }, { gain: 6 }).made.promises[0]!.value,
      6,
    );
    expect(done('gain-by-feedback', lines, { ref: 'R2' }, { gain: 0 }).valueOf('R2')).toBe(10_000);
  });

  it('with a gain pot in the foot: Rf = (A - 1)(1k + 5k)', () => {
    const lines = `${RAILS}\nG1 10mV in 0\nR4 1M in 0\nR1 1k m x\nP1 10k 1=x 2=0 3=0 position=0.5\nR2 47k m out
      U1 TL072 plus=in minus=m out=out vplus=vp vminus=vm`;
    const { valueOf } = done('gain-by-feedback', lines, { ref: 'U1' }, { gain: 26 });
    expect(Math.abs(valueOf('R2') / (6000 * (10 ** (26 / 20) - 1)) - 1)).toBeLessThan(0.06);
  });

  it('of a mixer belongs to the resistor that was chosen', () => {
    const lines = `${RAILS}\nG1 10mV a 0\nG2 10mV b 0\nR1 10k a m\nR2 22k b m\nR3 10k m out
      U1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm`;
    expect(offered(lines, { ref: 'U1' })).not.toContain('gain-by-feedback');
    const { reads } = done('gain-by-feedback', lines, { ref: 'R2' }, { gain: 6 });
    expect(reads(gain('b', 'out'))).toBeCloseTo(6, 0);
  });

  it('by a pot with end stops, from nothing at all as well', () => {
    const { reads, lastOf } = done('gain-by-pot', PLUS, { ref: 'R3' }, { low: 12, high: 26 });
    const pot = lastOf('potentiometer').ref;
    expect(Math.abs(reads(gain('in', 'out'), { [pot]: 0 }) - 12)).toBeLessThan(0.6);
    expect(reads(gain('in', 'out'), { [pot]: 1 })).toBeGreaterThan(25.5);
    expect(refusal('gain-by-pot', PLUS, { ref: 'R3' }, { low: 20, high: 10 })).toContain('above the lower');
    const none = done('gain-by-pot', PLUS, { ref: 'R3' }, { low: 0, high: 20 });
    const { ref } = none.lastOf('potentiometer');
    expect(Math.abs(none.reads(gain('in', 'out'), { [ref]: 0 }))).toBeLessThan(0.6);
    expect(none.reads(gain('in', 'out'), { [ref]: 1 })).toBeGreaterThan(19.5);
  });

  it('by a switch: as it was when off, more or less when on', () => {
    for (const wanted of [30, 12]) {
      const { reads, lastOf } = done('gain-by-switch', PLUS, { ref: 'R3' }, { gain: wanted });
      const contact = lastOf('switch').ref;
      expect(Math.abs(reads(gain('in', 'out'), { [contact]: true }) - wanted)).toBeLessThan(0.6);
      expect(reads(gain('in', 'out'), { [contact]: false })).toBeCloseTo(decibel(11), 2);
    }
    expect(refusal('gain-by-switch', PLUS, { ref: 'R3' }, { gain: decibel(11) })).toContain(
      'the gain it has',
    );
  });

  it('by a resistor in the emitter bypass counts the load, and what biases the base', () => {
    const stage = (bias: string) => `V1 12V vcc 0\nG1 1mV in 0\nC1 100u in b\n${bias}\nQ1 2N3904 c b e
      R4 1k e 0\nC2 1000u e 0\nC3 100u c o\nR5 4k7 o 0`;
    const divided = done(
      'gain-by-emitter',
      stage('R1 220k vcc b\nR2 47k b 0\nR3 4k7 vcc c'),
      { ref: 'Q1' },
      { gain: 20 },
    );
    expect(Math.abs(divided.reads(gain('b', 'c')) - 20)).toBeLessThan(0.6);
    const back = done('gain-by-emitter', stage('R1 1M c b\nR3 4k7 vcc c'), { ref: 'Q1' }, { gain: 20 });
    expect(Math.abs(back.reads(gain('b', 'c')) - 20)).toBeLessThan(0.6);
    expect(
      refusal(
        'gain-by-emitter',
        stage('R1 220k vcc b\nR2 47k b 0\nR3 4k7 vcc c'),
        { ref: 'Q1' },
        { gain: 60 },
      ),
    ).toContain('does not have');
  });
});

describe('corners', () => {
  it('in the bass with every pot at its worst together: 100k, 100k, 10k and 10k in parallel are 4.5 k', () => {
    const lines = 'G1 1V in 0\nC1 1u in p\nP1 100k 1=0 2=w 3=p\nR1 10k w 0\nP2 100k 1=0 2=x 3=p\nR2 10k x 0';
    const { reads, valueOf, made } = done('bass-corner', lines, { ref: 'C1' }, { hz: 40 });
    const worst = 1 / (2 * Math.PI * valueOf('C1') * (1 / (2 / 100e3 + 2 / 10e3)));
    expect(worst).toBeLessThan(42.5);
    expect(worst).toBeGreaterThan(32);
    const corner: Unnamed = { kind: 'corner', from: 'in', to: 'p', side: 'low' };
    expect(reads(corner, { P1: 1, P2: 1 })).toBeCloseTo(worst, 0);
    expect(made.sentences[0]).toContain('every pot at its worst');
    expect(offered('V1 9V v 0\nR1 1k v a\nC1 1u a 0\nG1 1V a 0', { ref: 'C1' })).not.toContain('bass-corner');
  });

  it('in the treble with the capacitor that is there: 1n more for 8 kHz at 10 k, and none where it falls already', () => {
    const lines = 'G1 1V in 0\nR1 10k in a\nC1 1n a 0';
    const { reads, lastOf } = done('treble-corner', lines, { net: 'a' }, { hz: 8000 });
    expect(lastOf('capacitor').value).toBe(1e-9);
    const corner = reads({ kind: 'corner', from: 'G1', to: 'a', side: 'high' });
    // Against what is at 1 kHz, where 0.07 dB are gone already.
    expect(Math.abs(corner * 2 * Math.PI * 1e4 * 2e-9 - 1)).toBeLessThan(0.02);
    expect(refusal('treble-corner', lines.replace('1n', '10n'), { net: 'a' }, { hz: 8000 })).toContain(
      'already',
    );
  });
});

describe('a pad', () => {
  it('takes away as much whichever way round its part lies', () => {
    for (const r1 of ['R1 1k out in', 'R1 1k in out']) {
      const { made } = done('pad', `G1 1V in 0\n${r1}\nR2 1M out 0`, { ref: 'R1' }, { db: 20, ohm: 10_000 });
      expect(Math.abs(made.promises[0]!.value + 20)).toBeLessThan(0.6);
    }
  });

  it('is not offered at a resistor to the ground, and moves no collector', () => {
    expect(offered('G1 1V in 0\nR1 1k in out\nR2 1M 0 out', { ref: 'R2' })).not.toContain('pad');
    const stage = `V1 12V vcc 0\nG1 1mV in 0\nC1 10u in b\nR1 220k vcc b\nR2 47k b 0\nQ1 2N3904 c b e
      R3 4k7 vcc c\nR4 1k e 0\nC2 1u c o\nR5 100k o 0`;
    const { reads } = done('pad', stage, { ref: 'C2' }, { db: 20, ohm: 10_000 });
    const before = sessionWith(circuitOf(stage), []);
    const rest = before.operatingPoint()[before.system.node('c')]!;
    expect(reads({ kind: 'voltage', net: 'c' })).toBeCloseTo(rest, 3);
    expect(offered(stage, { ref: 'R1' })).not.toContain('pad');
  });
});

const ASTABLE = `V1 9V vcc 0\nTM1 kind=timer555 gnd=0 trig=c out=out reset=vcc ctrl=v thr=c dis=d vcc=vcc
  R1 10k vcc d\nR2 10k d c\nC1 10n c 0\nC2 10n v 0\nR3 10k out 0`;
const rate: Unnamed = { kind: 'rate', net: 'out' };
/** Data sheet: 1/(ln 2 (RA + 2 RB) C). */
const astable = (ra: number, rb: number, c: number) => 1 / (Math.LN2 * (ra + 2 * rb) * c);

describe('time', () => {
  it('slower by a pot at one of two resistors: the one that is charged through counts once', () => {
    const { reads, valueOf, lastOf, made } = done('slower-by-pot', ASTABLE, { ref: 'R1' }, { times: 3 });
    const track = valueOf(lastOf('potentiometer').ref);
    expect(reads(rate) / astable(10e3 + track, 10e3, 10e-9)).toBeCloseTo(1, 1);
    expect(made.promises[0]!.value).toBeLessThan((astable(10e3, 10e3, 10e-9) / 3) * 1.06);
    expect(offered(ASTABLE, { ref: 'R3' })).not.toContain('slower-by-pot');
    expect(offered(ASTABLE, { ref: 'C2' })).not.toContain('slower-by-switch');
    expect(offered(ASTABLE, { ref: 'TM1' })).not.toContain('timer-delay');
  });

  it('slower by a switch, and as before when it is off', () => {
    const { reads, lastOf } = done('slower-by-switch', ASTABLE, { ref: 'C1' }, { times: 2 });
    const contact = lastOf('switch').ref;
    const before = astable(10e3, 10e3, 10e-9);
    expect(reads(rate, { [contact]: false }) / before).toBeCloseTo(1, 1);
    expect(reads(rate, { [contact]: true }) / before).toBeCloseTo(0.5, 1);
  });

  it('one of two capacitors that take turns: T = ln 2 (R1 C1 + R2 C2)', () => {
    const lines = `V1 9V vcc 0\nR1 1k vcc c1\nR2 47k vcc b2\nR3 100k vcc b1\nR4 1k vcc c2\nC1 22n c1 b2
      C2 22n c2 b1\nQ1 2N3904 c1 b1 0\nQ2 2N3904 c2 b2 0`;
    const { valueOf, reads } = done('slower-by-one', lines, { ref: 'C1' }, { times: 1.5 });
    const seconds = Math.LN2 * (47e3 * valueOf('C1') + 100e3 * 22e-9);
    expect(seconds / (Math.LN2 * 147e3 * 22e-9)).toBeGreaterThan(1.3);
    // A base that is pulled below its emitter by less than the supply, and one drop in it, make it a little quicker.
    expect(Math.abs(reads({ kind: 'rate', net: 'c1' }) * seconds - 1)).toBeLessThan(0.12);
    expect(refusal('slower-by-one', lines, { ref: 'C1' }, { times: 0.6 })).toContain('C2 alone takes');
  });

  const CLOCK =
    'CLK1 kind=clock rset=rs gnd=0 vcc=vcc ratedHz=6400 ratedOhm=100000 minOhm=50000 maxOhm=200000';
  const semitones = (hz: number) => 12 * Math.log2(hz / 6400);

  it('a clock by semitones stays within what the chip bears, with a resistor across the track', () => {
    const { reads, lastOf } = done(
      'clock-range',
      `V1 5V vcc 0\nR4 100k rs 0\n${CLOCK}`,
      { ref: 'R4' },
      { up: 5, down: 12 },
    );
    const pot = lastOf('potentiometer').ref;
    const clock: Unnamed = { kind: 'rate', part: 'CLK1' };
    expect(Math.abs(semitones(reads(clock, { [pot]: 0 })) - 5)).toBeLessThan(1.1);
    expect(Math.abs(semitones(reads(clock, { [pot]: 1 })) + 12)).toBeLessThan(1.1);
    const lines = `V1 5V vcc 0\nR4 100k rs 0\n${CLOCK}`;
    expect(refusal('clock-range', lines, { ref: 'R4' }, { up: 24, down: 1 })).toContain('fewer semitones up');
    expect(refusal('clock-range', lines, { ref: 'R4' }, { up: 1, down: 36 })).toContain(
      'fewer semitones down',
    );
  });

  it('a clock whose resistor has another in series', () => {
    const lines =
      'V1 5V vcc 0\nR1 10k a rs\nR2 10k a 0\nCLK1 kind=clock rset=rs gnd=0 vcc=vcc ratedHz=10000 ratedOhm=20000';
    const { reads, lastOf } = done('clock-range', lines, { ref: 'R1' }, { up: 3, down: 7 });
    const pot = lastOf('potentiometer').ref;
    const of = (at: number) => 12 * Math.log2(reads({ kind: 'rate', part: 'CLK1' }, { [pot]: at }) / 10_000);
    expect(Math.abs(of(0) - 3)).toBeLessThan(1.1);
    expect(Math.abs(of(1) + 7)).toBeLessThan(1.1);
  });

  it('a delay of a timer that switching on starts: 1.1 R C at both ends', () => {
    const lines = `V1 9V vcc 0\nTM1 kind=timer555 gnd=0 trig=tr out=out reset=vcc ctrl=v thr=t dis=t vcc=vcc
      R1 100k vcc t\nC1 1u t 0\nC2 10n v 0\nR2 10k out 0\nR3 10k vcc tr\nC3 100n tr 0`;
    const { made, valueOf, lastOf } = done('timer-delay', lines, { ref: 'TM1' }, { short: 0.5, long: 2 });
    expect((1.1 * valueOf('R1') * 1e-6) / 0.5).toBeCloseTo(1, 1);
    const longest = 1.1 * (valueOf('R1') + valueOf(lastOf('potentiometer').ref)) * 1e-6;
    expect(made.promises[0]!.value / longest).toBeCloseTo(1, 1);
    expect(longest).toBeGreaterThan(1.9);
  });
});

describe('channels and loads', () => {
  it('swaps twins, and not neighbours in a divider', () => {
    const lines = 'G1 1V in 0\nR101 1k in left\nR201 1k in right\nR2 10k left 0\nR3 22k right 0';
    const { parts } = done('swap-channels', lines, { ref: 'R101' });
    expect(parts.find((p) => p.ref === 'R101')!.pins.b).toBe('right');
    expect(parts.find((p) => p.ref === 'R201')!.pins.b).toBe('left');
    expect(offered('V1 9V vcc 0\nR1 10k vcc m\nR2 10k m 0', { ref: 'R1' })).not.toContain('swap-channels');
    const twins = 'G1 1V a 0\nR11 10k a m\nR12 10k m 0\nR13 10k a n\nR112 10k x 0\nR111 10k a x';
    const { made } = done('swap-channels', twins, { ref: 'R12' });
    expect(made.sentences[0]).toContain('R112');
  });

  it('mixes into the two channels that are there, and tells what it costs', () => {
    const lines = `G1 1V l0 0 resistance=1k\nG2 1V r0 0 resistance=1k\nC1 10u l0 left\nC2 10u r0 right
      R1 10k left 0\nR2 10k right 0\nG3 1V mono 0 resistance=600\nR3 100k mono 0`;
    const { made, valueOf } = done('mono-mix', lines, { net: 'mono' }, { separation: 40 });
    const r = valueOf('R4');
    expect(valueOf('R5')).toBe(r);
    expect(made.promises[0]!.value).toBeGreaterThanOrEqual(39.5);
    // From left over r to 600 || 100k at mono, and over r on into 10k || 1k.
    const [node, leg] = [1 / (1 / 600 + 1 / 100e3), 1 / (1 / 10e3 + 1 / 1e3)];
    const onward = 1 / (1 / node + 1 / (r + leg));
    expect(made.promises[0]!.value).toBeCloseTo(-decibel((onward / (onward + r)) * (leg / (leg + r))), 0);
  });

  it('couples a load to the ground, and none between two outputs', () => {
    const { reads, lastOf } = done(
      'couple-load',
      'V1 6V o 0\nG1 1V in o\nLS1 8 in 0',
      { ref: 'LS1' },
      { hz: 30 },
    );
    expect(reads({ kind: 'corner', from: 'in', to: 'load1', side: 'low' })).toBeCloseTo(
      1 / (2 * Math.PI * 8 * (lastOf('capacitor').value as number)),
      0,
    );
    expect(reads({ kind: 'corner', from: 'in', to: 'load1', side: 'low' })).toBeLessThan(32);
    expect(reads({ kind: 'voltage', net: 'load1' })).toBeCloseTo(0, 2);
    expect(offered('V1 6V a 0\nV2 6V b 0\nLS1 8 a b', { ref: 'LS1' })).not.toContain('couple-load');
  });

  it('bridges outputs that move against each other', () => {
    const lines = (
      rest: string,
    ) => `V1 12V vp 0\nV2 12V 0 vm\nV3 ${rest} r 0\nG1 1V in 0\nR1 10k in m\nR2 10k m o2
      U1 TL072 plus=in minus=o1 out=o1 vplus=vp vminus=vm\nU2 TL072 plus=r minus=m out=o2 vplus=vp vminus=vm
      LD1 kind=load 2k o1 0\nLD2 kind=load 2k o2 0`;
    const { made, parts } = done('bridge-load', lines('1m'), { ref: 'LD1' });
    expect(parts.some((p) => p.ref === 'LD2')).toBe(false);
    expect(made.promises[0]!.value).toBeCloseTo(6.02, 1);
    expect(refusal('bridge-load', lines('1V'), { ref: 'LD1' })).toContain('bring them together');
  });

  it('a dummy load is refused where an output rests at half its supply', () => {
    expect(
      done('dummy-load', 'G1 1V in 0 resistance=1\nR1 1k in 0', { net: 'in' }, { ohm: 8, watt: 10 }).made
        .sentences[0],
    ).toContain('8.94 V and 1.12 A');
    const half = 'V1 24V vcc 0\nR1 100 vcc o\nR2 100 o 0';
    expect(refusal('dummy-load', half, { net: 'o' })).toContain('direct current');
  });

  it('a balanced output: both legs present the same, and the level stays', () => {
    const { made } = done(
      'balanced-output',
      'G1 1V in 0 resistance=50\nR1 100k in 0',
      { net: 'in' },
      { ohm: 150 },
    );
    expect(made.promises[1]!.value).toBeCloseTo(150, -1);
    expect(Math.abs(made.promises[0]!.value)).toBeLessThan(0.1);
  });

  it('a booster rests at half and amplifies as asked, from any source', () => {
    const { made } = done(
      'plug-in-booster',
      'G1 1mV mic 0 resistance=1k\nR1 100k mic 0',
      { net: 'mic' },
      { volts: 3, ohm: 2200, gain: 20 },
    );
    expect(Math.abs(made.promises[0]!.value - 20)).toBeLessThan(1);
    expect(made.promises[1]!.value).toBeCloseTo(1.5, 0);
  });

  it('a snubber by the rule of C. C. Bates, never above V/I, and none at the mains', () => {
    const lines = 'V1 24V vcc 0\nSW1 vcc a closed\nR1 24 a 0';
    const { valueOf, lastOf } = done('snubber', lines, { ref: 'SW1' }, { volts: 24, ampere: 0.1 });
    expect(valueOf('R2')).toBe(220);
    expect(lastOf('capacitor').value).toBe(10e-9);
    expect(refusal('snubber', lines, { ref: 'SW1' }, { volts: 230, ampere: 1 })).toContain('licensed');
    expect(offered('G1 325V 50Hz l 0\nSW1 l a closed\nR1 1k a 0', { ref: 'SW1' })).toEqual([]);
  });

  it('a pot across a resistor leaves it soldered', () => {
    const { parts, made } = done('pot-across', PLUS, { ref: 'R2' }, { least: 300 });
    expect(parts.find((p) => p.ref === 'R2')!.value).toBe(1000);
    expect(made.sentences[0]).toContain('nothing is unsoldered');
  });
});
