import type { Change, Step } from '@zemble/contract';
import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { circuitOf, seeded, sessionOf } from '../../testing/circuits.ts';

/** Node voltages of resistors and one ideal source from vcc to ground, by a nodal matrix solved elsewhere (ml-matrix). */
function nodal(parts: readonly { a: string; b: string; ohm: number }[], volts: number): Map<string, number> {
  const nets = [...new Set(parts.flatMap((p) => [p.a, p.b]))].filter((n) => n !== '0' && n !== 'vcc');
  const at = (n: string) => nets.indexOf(n);
  const g = Matrix.zeros(nets.length, nets.length);
  const i = Matrix.zeros(nets.length, 1);
  for (const { a, b, ohm } of parts)
    for (const [one, other] of [
      [a, b],
      [b, a],
    ] as const) {
      if (at(one) < 0) continue;
      g.set(at(one), at(one), g.get(at(one), at(one)) + 1 / ohm);
      if (at(other) >= 0) g.set(at(one), at(other), g.get(at(one), at(other)) - 1 / ohm);
      else if (other === 'vcc') i.set(at(one), 0, i.get(at(one), 0) + volts / ohm);
    }
  const v = solve(g, i);
  return new Map(nets.map((n, k) => [n, v.get(k, 0)]));
}

describe('voltages of a changed ladder', () => {
  it('are those of a nodal matrix written down from what the change should have made', () => {
    for (let seed = 1; seed <= 50; seed += 1) {
      const random = seeded(seed);
      const ohm = () => Math.round(100 + 9900 * random());
      const r = Array.from({ length: 6 }, ohm);
      const circuit = circuitOf(
        `V1 9V vcc 0\nR1 ${r[0]}R vcc a\nR2 ${r[1]}R a 0\nR3 ${r[2]}R a b\nR4 ${r[3]}R b 0\nR5 ${r[4]}R b c\nR6 ${r[5]}R c 0`,
      );
      const [fit, added] = [ohm(), ohm()];
      const steps: Step[] = [
        { do: 'fit', ref: 'R1', value: fit },
        { do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: 'x' }, marked: added } },
        { do: 'move', pin: 'R6.a', to: 'x' },
        { do: 'join', net: 'c', to: 'x' },
        { do: 'remove', ref: 'R4' },
      ];
      const change: Change = { id: 'c', name: 'c', purpose: 'repair', state: 'planned', steps };
      const session = sessionOf({ ...circuit, changes: [change] }, 'planned');
      const x = session.operatingPoint();
      const wanted = nodal(
        [
          { a: 'vcc', b: 'a', ohm: fit },
          { a: 'a', b: '0', ohm: r[1]! },
          { a: 'a', b: 'b', ohm: r[2]! },
          { a: 'b', b: 'x', ohm: r[4]! },
          { a: 'x', b: '0', ohm: r[5]! },
          { a: 'a', b: 'x', ohm: added },
        ],
        9,
      );
      for (const [net, volt] of wanted)
        expect(x[session.system.node(net)]! / volt, `seed ${seed}`).toBeCloseTo(1, 8);
      expect(x[session.system.node('c')]).toBe(x[session.system.node('x')]);
    }
  });

  it('turned on a session and built anew agree', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 2k a 0');
    const change: Change = {
      id: 'c',
      name: 'c',
      purpose: 'repair',
      state: 'planned',
      steps: [{ do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 } }],
    };
    const session = sessionOf({ ...circuit, changes: [change] }, 'planned');
    const turned = session.with({ values: new Map([['R9', 330]]) }).operatingPoint();
    const refit: Change = { ...change, id: 'd', steps: [{ do: 'fit', ref: 'R9', value: 330 }] };
    const anew = sessionOf({ ...circuit, changes: [change, refit] }, 'planned').operatingPoint();
    anew.forEach((v, i) => expect(turned[i]).toBeCloseTo(v, 12));
  });
});
