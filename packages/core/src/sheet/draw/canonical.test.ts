import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { faults, wiringFaults } from '../../testing/drawing.ts';
import { layoutCircuit, type Drawing, type Placement } from './index.ts';

const drawn = (lines: string) => {
  const circuit = circuitOf(lines);
  const drawing = layoutCircuit(circuit, { textOf: (p) => (p.model ?? String(p.marked ?? '')).slice(0, 6) });
  expect([...faults(drawing), ...wiringFaults(circuit, drawing)]).toEqual([]);
  return drawing;
};
const at = (drawing: Drawing, ref: string): Placement => drawing.symbols.find((s) => s.part.ref === ref)!.at;
const pin = (drawing: Drawing, ref: string, name: string) =>
  drawing.symbols.find((s) => s.part.ref === ref)!.pins.find((p) => p.name === name)!;
const RAILS = 'V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\n';

describe('figures are drawn as the trade draws them', () => {
  it('a pair: mirrored about its tail, on one row', () => {
    const d = drawn(
      `${RAILS}C1 1u in b\nR6 47k b 0\nQ1 2N3904 c1 b t\nQ2 2N3904 c2 fb t\nR1 10k t vm\nR2 4k7 vp c1\nR3 4k7 vp c2\nR4 10k fb 0\nR5 22k fb c2`,
    );
    const [one, other] = [at(d, 'Q1'), at(d, 'Q2')];
    expect(one.y).toBe(other.y);
    expect(one.x).toBeLessThan(other.x);
    // Both bases look outward, both emitters are the same distance from the middle.
    expect([pin(d, 'Q1', 'b').dx, pin(d, 'Q2', 'b').dx]).toEqual([-1, 1]);
    const middle = (one.x + other.x) / 2;
    expect(middle - pin(d, 'Q1', 'e').x).toBeCloseTo(pin(d, 'Q2', 'e').x - middle, 9);
  });

  it('a complementary output: one over the other, their resistors between, the supply at either end', () => {
    const d = drawn(
      `${RAILS}R1 10k in a\nR2 2k2 vp a\nR3 2k2 a2 vm\nD1 1N4148 a m\nD2 1N4148 m a2\nQ7 2N3904 vp a o1\nQ8 2N3906 vm a2 o2\nR10 0.22 o1 out\nR11 0.22 out o2\nLS1 8 out 0`,
    );
    const [high, upper, lower, low] = ['Q7', 'R10', 'R11', 'Q8'].map((ref) => at(d, ref));
    expect(high!.x).toBe(low!.x);
    expect(upper!.x).toBe(lower!.x);
    expect([high, upper, lower, low].map((p) => p!.y)).toEqual(
      [high, upper, lower, low].map((p) => p!.y).sort((a, b) => a - b),
    );
    expect(pin(d, 'Q7', 'c').dy).toBe(-1);
    expect(pin(d, 'Q8', 'c').dy).toBe(1);
    expect(at(d, 'LS1').x).toBeGreaterThan(high!.x);
  });

  it('what an output drives beside it, also where its net is met before, by the feedback', () => {
    const d = drawn(
      `${RAILS}C1 1u in b\nR6 47k b 0\nQ1 2N3904 c1 b e\nR2 4k7 vp c1\nR3 1k e f\nR4 22k f out\nR5 100 f 0\nQ3 2N3906 c1e c1 c3\nR7 100 vp c1e\nR8 4k7 c3b vm\nD1 1N4148 c3 c3b\nQ7 2N3904 vp c3 o1\nQ8 2N3906 vm c3b o2\nR10 0.22 o1 out\nR11 0.22 out o2\nR12 10 out z\nC2 100n z 0\nLS1 8 out 0`,
    );
    const device = at(d, 'Q7');
    for (const ref of ['R12', 'LS1']) {
      expect(at(d, ref).x, ref).toBeGreaterThan(device.x);
      // Standing, the output's net up, the ground down.
      expect(at(d, ref).turn % 2, ref).toBe(0);
      expect(pin(d, ref, 'a').y, ref).toBeLessThan(pin(d, ref, 'b').y);
      expect(at(d, ref).y).toBe(at(d, 'R11').y);
    }
    expect(at(d, 'C2').x).toBe(at(d, 'R12').x);
    expect(at(d, 'C2').y).toBeGreaterThan(at(d, 'R12').y);
  });

  it.each([
    [
      'inverting',
      'R1 10k in m\nR2 100k m out\nC1 10p m out\nU1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm\nR3 10k out 0',
    ],
    [
      'non-inverting',
      'R4 100k in 0\nR1 1k m 0\nR2 100k m out\nU1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR3 10k out 0',
    ],
  ])('feedback of an amplifier, %s: over it and parallel to it', (_, lines) => {
    const d = drawn(RAILS + lines);
    const [chip, back] = [at(d, 'U1'), at(d, 'R2')];
    expect(back.turn % 2).toBe(1);
    expect(back.x).toBe(chip.x);
    // On the side where the inverting input is.
    expect(Math.sign(back.y - chip.y)).toBe(Math.sign(pin(d, 'U1', 'minus').y - chip.y));
  });

  it('a mirror that loads a pair: over it, each in line with its own, the bases towards each other', () => {
    const d = drawn(
      `${RAILS}C1 1u in b\nR6 47k b 0\nQ1 2N3904 c1 b t\nQ2 2N3904 c2 fb t\nR1 10k t vm\nQ5 2N3906 c1 c1 e5\nQ6 2N3906 c2 c1 e6\nR2 100 vp e5\nR3 100 vp e6\nR4 10k fb 0\nR5 22k fb c2`,
    );
    const [one, other] = [at(d, 'Q5'), at(d, 'Q6')];
    expect(one.y).toBe(other.y);
    expect(one.y).toBeLessThan(at(d, 'Q1').y);
    const [left, right] = one.x < other.x ? ['Q5', 'Q6'] : ['Q6', 'Q5'];
    expect([pin(d, left, 'b').dx, pin(d, right, 'b').dx]).toEqual([1, -1]);
    expect(pin(d, 'Q5', 'c').x).toBe(pin(d, 'Q1', 'c').x);
    expect(pin(d, 'Q6', 'c').x).toBe(pin(d, 'Q2', 'c').x);
  });

  it('a cascode: the second straight over the first', () => {
    const d = drawn(
      `V1 24V vp 0\nG1 10mV in 0\nC1 1u in b1\nR1 100k vp b1\nR2 22k b1 0\nQ1 2N3904 m b1 e1\nR3 1k e1 0\nQ2 2N3904 c b2 m\nR4 47k vp b2\nR5 47k b2 0\nC2 10u b2 0\nR6 4k7 vp c\nC3 1u c out\nR7 100k out 0`,
    );
    expect(at(d, 'Q2').x).toBe(at(d, 'Q1').x);
    expect(at(d, 'Q2').y).toBeLessThan(at(d, 'Q1').y);
  });

  it('a Vbe multiplier: its divider stands beside it, one over the row of its base and one under', () => {
    const d = drawn(
      `${RAILS}C1 1u in b\nR1 100k b vm\nR2 470k vp b\nQ3 2N3904 v3 b vm\nR4 2k2 vp v4\nQ4 2N3904 v4 vb v3\nR6 1k2 v4 vb\nR7 820 vb v3`,
    );
    const [device, upper, lower] = ['Q4', 'R6', 'R7'].map((ref) => at(d, ref));
    expect(upper!.x).toBe(lower!.x);
    expect(upper!.x).toBeLessThan(device!.x);
    expect(device!.y - upper!.y).toBe(lower!.y - device!.y);
    expect(device!.y - upper!.y).toBeGreaterThan(0);
  });

  it('a bass control: the track lying along the signal, its two capacitors over its halves', () => {
    const d = drawn(
      `${RAILS}R1 11k in b1\nP1 100k b1 bw b3\nR2 11k b3 y\nC1 47n b1 bw\nC2 47n bw b3\nR3 11k bw sum\nU1 TL072 plus=0 minus=sum out=y vplus=vp vminus=vm\nR5 10k y 0`,
    );
    const [knob, one, other] = ['P1', 'C1', 'C2'].map((ref) => at(d, ref));
    expect(pin(d, 'P1', '1').dx).toBe(-1);
    expect(pin(d, 'P1', '2').dy).toBe(-1);
    expect(one!.y).toBe(other!.y);
    expect(one!.y).toBeLessThan(knob!.y);
    expect(knob!.x - one!.x).toBe(other!.x - knob!.x);
  });

  it('a treble control beside a bass control: its capacitors in line with its track, the amplifier behind both', () => {
    const d = drawn(
      `${RAILS}R1 11k in b1\nP1 100k b1 bw b3\nR2 11k b3 y\nC1 47n b1 bw\nC2 47n bw b3\nR3 11k bw sum\nC3 4n7 in t1\nP2 500k t1 tw t3\nC4 4n7 t3 y\nR4 3k6 tw sum\nU1 TL072 plus=0 minus=sum out=y vplus=vp vminus=vm\nC5 1u y out\nR5 10k out 0`,
    );
    const row = ['C3', 'P2', 'C4'].map((ref) => at(d, ref));
    expect(row.map((p) => p.x)).toEqual(row.map((p) => p.x).sort((a, b) => a - b));
    expect(row[1]!.x - row[0]!.x).toBe(row[2]!.x - row[1]!.x);
    // One straight wire from either capacitor to its end of the track.
    expect(pin(d, 'C3', 'b').y).toBe(pin(d, 'P2', '1').y);
    expect(pin(d, 'C4', 'a').y).toBe(pin(d, 'P2', '3').y);
    expect(pin(d, 'P2', '2').dy).toBe(-1);
    // The signal does not turn back: what comes in is to the left of both tracks, the sum to the right of both wipers.
    for (const knob of ['P1', 'P2']) {
      expect(at(d, 'G1').x).toBeLessThan(at(d, knob).x);
      expect(at(d, 'U1').x).toBeGreaterThan(at(d, knob).x);
    }
    expect(at(d, 'R1').x).toBeLessThan(at(d, 'P1').x);
  });

  it('equal stages alike and in step: congruent, from left to right, without a crossing', () => {
    const stage = (i: number) =>
      `R1${i} 10k n${i} m${i}\nR2${i} 10k m${i} n${i + 1}\nC1${i} 47n n${i} p${i}\nR3${i} 22k p${i} 0\nU${i} TL072 plus=p${i} minus=m${i} out=n${i + 1} vplus=vp vminus=vm`;
    const d = drawn(
      `V1 15V vp 0\nV2 15V 0 vm\nG1 1V n0 0\n${[0, 1, 2, 3].map(stage).join('\n')}\nC9 1u n4 out\nR9 10k out 0`,
    );
    const shape = (i: number) =>
      [`R1${i}`, `R2${i}`, `C1${i}`, `R3${i}`].map((ref) => {
        const [own, chip] = [at(d, ref), at(d, `U${i}`)];
        return { ref: ref.slice(0, 2), x: own.x - chip.x, y: own.y - chip.y, turn: own.turn };
      });
    for (const i of [1, 2, 3]) expect(shape(i)).toEqual(shape(0));
    const chips = [0, 1, 2, 3].map((i) => at(d, `U${i}`));
    expect(chips.map((c) => c.y)).toEqual(chips.map(() => chips[0]!.y));
    expect(new Set(chips.slice(1).map((c, i) => c.x - chips[i]!.x)).size).toBe(1);
    expect(d.crossings).toBe(0);
  });

  it('a reference that many parts share: a named symbol at each, and its voltage said once', () => {
    const d = drawn(
      'V1 9V vcc 0\nR1 10k vcc vr\nR2 10k vr 0\nC1 47u vr 0\nG1 1V in 0\nC2 1u in a\nR3 470k a vr\nR4 22k b vr\nC3 47n a b\nU1 TL072 plus=b minus=o out=o vplus=vcc vminus=0\nR5 10k o 0',
    );
    const marks = d.marks.filter((m) => m.net === 'vr');
    expect(marks).toHaveLength(5);
    expect(new Set(marks.map((m) => m.kind))).toEqual(new Set(['reference']));
    expect(d.wires.some((w) => w.net === 'vr')).toBe(false);
  });
});
