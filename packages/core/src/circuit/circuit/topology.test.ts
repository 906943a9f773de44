import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { circuitOf, seeded, sessionOf } from '../../testing/circuits.ts';
import { floatingIslands, type Part } from './index.ts';
import { resolveLayer } from '../changes/index.ts';

/** Resistors, a supply or a diode among a few nets, all of which hang on the first. */
function island(name: string, random: () => number, count: () => number): Part[] {
  const nets = Array.from({ length: 2 + Math.floor(random() * 6) }, (_, i) => `${name}${i}`);
  const any = () => nets[Math.floor(random() * nets.length)]!;
  const resistor = (a: string, b: string): Part => ({
    ref: `R${count()}`,
    kind: 'resistor',
    pins: { a, b },
    marked: 10 ** (1 + 5 * random()),
  });
  const parts = nets.slice(1).map((net, i) => resistor(net, nets[Math.floor(random() * (i + 1))]!));
  for (let i = 0; i < 4; i += 1) {
    const [a, b] = [any(), any()];
    if (a !== b) parts.push(resistor(a, b));
  }
  const [first, last] = [nets[0]!, nets.at(-1)!];
  if (random() < 0.7)
    parts.push({
      ref: `V${count()}`,
      kind: 'supply',
      pins: { plus: first, minus: last },
      marked: 1 + 20 * random(),
    });
  else parts.push({ ref: `D${count()}`, kind: 'diode', pins: { a: first, k: last }, model: '1N4148' });
  return parts;
}

describe('networks that float', () => {
  it('are refused, every one of 10,000: nothing but capacitors joins them to the ground', () => {
    const solved: number[] = [];
    for (let seed = 1; seed <= 10_000; seed += 1) {
      const random = seeded(seed);
      let n = 0;
      const count = () => (n += 1);
      const parts = [...island('g', random, count), ...island('f', random, count)];
      parts.push({ ref: 'R0', kind: 'resistor', pins: { a: 'g0', b: '0' }, marked: 1000 });
      for (let i = Math.floor(random() * 3); i > 0; i -= 1)
        parts.push({
          ref: `C${count()}`,
          kind: 'capacitor',
          pins: { a: 'g0', b: `f${i - 1}` },
          marked: 1e-7,
        });
      const point = sessionOf({ ground: '0', parts }).tryOperatingPoint();
      if (point.ok || point.problem.code !== 'circuit/no-dc-path') solved.push(seed);
    }
    expect(solved).toEqual([]);
  });

  it('name the nets and the parts that float', () => {
    const circuit = resolveLayer(
      circuitOf('V1 9V vcc 0\nR1 1k vcc 0\nC1 1u vcc x\nR2 1k x y\nC2 1u y 0'),
      'marked',
    );
    expect(floatingIslands(circuit).map((i) => [...i.nets].sort())).toEqual([['x', 'y']]);
    const point = new AnalysisSession(circuit).tryOperatingPoint();
    expect(point).toMatchObject({
      ok: false,
      problem: { message: expect.stringMatching(/\bx\b.*R2|R2.*\bx\b/s) },
    });
  });

  it('do not float behind an open contact, which decides nothing when no source is there', () => {
    const point = sessionOf(
      circuitOf('V1 9V vcc 0\nR1 1k vcc 0\nS1 open vcc x\nR2 1k x y'),
    ).tryOperatingPoint();
    expect(point.ok).toBe(true);
  });
});
