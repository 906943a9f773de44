import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { BOLTZMANN, ELEMENTARY_CHARGE, TEMPERATURE_K } from '../../circuit/devices/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { circuitOf, randomCircuit, sessionOf } from '../../testing/circuits.ts';
import { describe as describeSolution } from './operating-point.ts';

function solved(circuit: Circuit) {
  const model = sessionOf(circuit);
  return describeSolution(model.system, model.operatingPoint());
}

const VT = (BOLTZMANN * TEMPERATURE_K) / ELEMENTARY_CHARGE;

describe('operating point, closed forms', () => {
  it('divides a voltage', () => {
    const { nets, parts } = solved(circuitOf('V1 10V vcc 0\nR1 3k vcc a\nR2 7k a 0'));
    expect(nets.a).toBeCloseTo(7, 12);
    expect(parts.V1!.current).toBeCloseTo(-1e-3, 14);
    expect(parts.V1!.power).toBeCloseTo(10e-3, 12);
    expect(parts.R2!.power).toBeCloseTo(7e-3, 12);
  });

  it('loads a supply with its own resistance, passes an inductor and blocks a capacitor', () => {
    const { nets } = solved(
      circuitOf('V1 9V vcc 0 resistance=1\nL1 10m vcc a dcr=2\nR1 6 a 0\nC1 1u a b\nR2 1k b 0'),
    );
    expect(nets.a).toBeCloseTo(6, 9);
    expect(nets.b).toBeCloseTo(0, 12);
  });

  it('sets a potentiometer by its taper: log has 10 % at half travel', () => {
    const at = (line: string) => solved(circuitOf(`V1 10V vcc 0\n${line}`)).nets.w!;
    expect(at('P1 10k linear 0 w vcc position=0.25')).toBeCloseTo(2.5, 9);
    expect(at('P1 10k log 0 w vcc position=0.5')).toBeCloseTo(1, 9);
    expect(at('P1 10k antilog 0 w vcc position=0.5')).toBeCloseTo(9, 9);
    expect(at('P1 10k linear 0 w vcc position=0')).toBeCloseTo(1e-3, 5);
  });

  it('takes an open part for a teraohm and a short for a milliohm', () => {
    const circuit = circuitOf('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0');
    const dead = (marked: 'open' | 'short') =>
      solved({ ...circuit, parts: circuit.parts.map((p) => (p.ref === 'R2' ? { ...p, marked } : p)) });
    expect(dead('open').nets.a).toBeCloseTo(10, 6);
    expect(dead('short').nets.a).toBeCloseTo(1e-5, 9);
    expect(solved(circuitOf('V1 10V vcc 0\nS1 open vcc a\nR2 1k a 0')).nets.a).toBeCloseTo(0, 6);
    expect(solved(circuitOf('V1 10V vcc 0\nF1 vcc a\nR2 1k a 0')).nets.a).toBeCloseTo(10, 4);
  });

  it('settles a diode where the exponential law meets the load line', () => {
    const { nets, parts } = solved(circuitOf('V1 5V vcc 0\nR1 1k vcc a\nD1 a 0'));
    const v = nets.a!;
    expect((5 - v) / 1000).toBeCloseTo(1e-14 * Math.expm1(v / VT) + 1e-12 * v, 12);
    expect(parts.D1!.region).toBe('conducting');
  });

  it('holds a zener at its main value', () => {
    const { nets, parts } = solved(circuitOf('V1 12V vcc 0\nR1 470 vcc a\nZ1 5V1 0 a'));
    // At IBV (1 mA) the law stands exactly at BV; at 15 mA it stands Vt ln 15 above.
    const current = (12 - nets.a!) / 470;
    expect(nets.a).toBeCloseTo(5.1 + VT * Math.log(current / 1e-3), 4);
    expect(parts.Z1!.region).toBe('breakdown');
  });

  it('follows 1 + R2/R1 less the error of a finite gain', () => {
    const { nets, parts } = solved(
      circuitOf(
        'V1 12V vp 0\nV2 12V 0 vm\nV3 0.1V in 0\nU1 plus=in minus=m out=out vplus=vp vminus=vm AOL=1000\nR1 1k m 0\nR2 9k out m',
      ),
    );
    expect(nets.out).toBeCloseTo((0.1 * 1000) / (1 + 1000 / 10), 9);
    expect(parts.U1!.region).toBe('linear');
  });

  it('stops an opamp at what the supply leaves', () => {
    const { nets, parts } = solved(
      circuitOf(
        'V1 12V vp 0\nV3 1V in 0\nU1 plus=in minus=m out=out vplus=vp vminus=0 headroomHigh=1.5\nR1 1k m 0\nR2 99k out m'.replace(
          'headroomHigh=1.5',
          '',
        ),
      ),
    );
    expect(nets.out).toBeCloseTo(12, 4);
    expect(parts.U1!.region).toBe('at its upper limit');
  });
});

describe('operating point of a transistor, by an independent iteration', () => {
  /** Base current by bisection on the base loop of a voltage divider bias, for the plain law Ic = BF Ib. */
  function biasByBisection(vcc: number, r1: number, r2: number, re: number, bf: number, is: number) {
    const vth = (vcc * r2) / (r1 + r2);
    const rth = (r1 * r2) / (r1 + r2);
    let [low, high] = [0.2, 0.9];
    for (let i = 0; i < 200; i += 1) {
      const vbe = (low + high) / 2;
      const ib = (is / bf) * Math.expm1(vbe / VT);
      const left = vth - rth * ib - vbe - re * (bf + 1) * ib;
      if (left > 0) low = vbe;
      else high = vbe;
    }
    return { vbe: low, ic: is * Math.expm1(low / VT) };
  }

  it.each([
    [220e3, 47e3, 1000, 100],
    [100e3, 22e3, 470, 250],
    [470e3, 150e3, 3300, 50],
  ])('agrees for R1 %d, R2 %d, RE %d, BF %d', (r1, r2, re, bf) => {
    const { nets, parts } = solved(
      circuitOf(
        `V1 12V vcc 0\nR1 ${r1} vcc b\nR2 ${r2} b 0\nQ1 npn c b e BF=${bf}\nR3 1k vcc c\nR4 ${re} e 0`,
      ),
    );
    const expected = biasByBisection(12, r1, r2, re, bf, 1e-14);
    expect(nets.b! - nets.e!).toBeCloseTo(expected.vbe, 5);
    expect(parts.Q1!.current / expected.ic).toBeCloseTo(1, 4);
    expect(parts.Q1!.region).toBe('active');
  });

  it('mirrors a pnp', () => {
    const npn = solved(
      circuitOf('V1 12V vcc 0\nR1 220k vcc b\nR2 47k b 0\nQ1 npn c b e\nR3 4k7 vcc c\nR4 1k e 0'),
    );
    const pnp = solved(
      circuitOf('V1 12V 0 vee\nR1 220k vee b\nR2 47k b 0\nQ1 pnp c b e\nR3 4k7 vee c\nR4 1k e 0'),
    );
    for (const net of ['b', 'c', 'e']) expect(pnp.nets[net]).toBeCloseTo(-npn.nets[net]!, 9);
    expect(pnp.parts.Q1!.current).toBeCloseTo(-npn.parts.Q1!.current, 12);
  });

  it('tells saturation and cut-off', () => {
    expect(solved(circuitOf('V1 12V vcc 0\nR1 10k vcc b\nQ1 npn c b 0\nR3 10k vcc c')).parts.Q1!.region).toBe(
      'saturated',
    );
    expect(solved(circuitOf('V1 12V vcc 0\nR1 10k b 0\nQ1 npn c b 0\nR3 10k vcc c')).parts.Q1!.region).toBe(
      'cut off',
    );
  });
});

describe('operating point of random networks', () => {
  it('equals a linear algebra library on resistor networks with current through every branch', () => {
    const network = fc.record({
      size: fc.integer({ min: 2, max: 12 }),
      ohms: fc.array(fc.double({ min: 10, max: 1e6, noNaN: true }), { minLength: 40, maxLength: 40 }),
      ends: fc.array(fc.tuple(fc.nat(11), fc.nat(11)), { minLength: 20, maxLength: 20 }),
    });
    fc.assert(
      fc.property(network, ({ size, ohms, ends }) => {
        const g = Matrix.zeros(size, size);
        const b = Matrix.zeros(size, 1);
        const lines = ['V1 10V vcc 0'];
        let used = 0;
        const add = (a: number | 'vcc', to: number | 0 | null) => {
          const r = ohms[used % ohms.length]!;
          lines.push(`R${(used += 1)} ${r} ${a === 'vcc' ? 'vcc' : `n${a}`} ${to === null ? '0' : `n${to}`}`);
          const s = 1 / r;
          if (a === 'vcc') {
            g.set(to!, to!, g.get(to!, to!) + s);
            b.set(to!, 0, b.get(to!, 0) + 10 * s);
          } else {
            g.set(a, a, g.get(a, a) + s);
            if (to !== null) {
              g.set(to, to, g.get(to, to) + s);
              g.set(a, to, g.get(a, to) - s);
              g.set(to, a, g.get(to, a) - s);
            }
          }
        };
        add('vcc', 0);
        for (let i = 0; i < size; i += 1) add(i, null);
        for (const [a, to] of ends) if (a % size !== to % size) add(a % size, to % size);
        const { nets } = solved(circuitOf(lines.join('\n')));
        solve(g, b)
          .to1DArray()
          .forEach((v, i) => expect(nets[`n${i}`]!).toBeCloseTo(v, 8));
      }),
      { numRuns: 60 },
    );
  });

  it('converges on 2,000 random circuits of transistors, diodes and opamps, or names the net', () => {
    const failures: string[] = [];
    for (let seed = 1; seed <= 2000; seed += 1) {
      const model = sessionOf(randomCircuit(seed, 1 + (seed % 5)));
      const point = model.tryOperatingPoint();
      if (!point.ok) failures.push(`seed ${seed}: ${point.problem.message}`);
      else expect([...point.x].every(Number.isFinite)).toBe(true);
    }
    expect(failures).toEqual([]);
  });

  it('does not depend on the order of the parts, to 1e-9', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const circuit = randomCircuit(seed, 3);
      const forward = solved(circuit).nets;
      const backward = solved({ ...circuit, parts: [...circuit.parts].reverse() }).nets;
      for (const [net, volt] of Object.entries(forward))
        expect(Math.abs(backward[net]! - volt)).toBeLessThan(1e-9 * Math.max(1, Math.abs(volt)) + 1e-9);
    }
  });

  it('balances: what the supplies deliver is what the parts turn into heat', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const circuit = randomCircuit(seed, 3);
      const isSource = (ref: string) =>
        ['supply', 'signal'].includes(circuit.parts.find((p) => p.ref === ref)!.kind);
      if (circuit.parts.some((p) => p.kind === 'opamp')) continue;
      const { parts } = solved(circuit);
      let [given, burnt] = [0, 0];
      for (const [ref, { power }] of Object.entries(parts)) {
        if (isSource(ref)) given += power;
        else burnt += power;
      }
      expect(burnt / given).toBeCloseTo(1, 6);
    }
  });
});

describe('operating point, what cannot be computed', () => {
  const failure = (lines: string) => {
    const point = sessionOf(circuitOf(lines)).tryOperatingPoint();
    return point.ok ? null : point.problem;
  };

  it('names the floating net and what touches it', () => {
    expect(failure('G1 1V in 0\nC1 1u in b\nC2 1u b 0')).toMatchObject({
      code: 'circuit/no-dc-path',
      message: 'Net b has no DC path to ground: only C1 and C2 touch it.',
    });
  });

  it('names the sources that contradict each other', () => {
    expect(failure('V1 9V vcc 0\nV2 5V vcc 0\nR1 1k vcc 0')).toMatchObject({ code: 'circuit/source-loop' });
  });

  it.each([
    ['R1 1k a b\nR2 1k a b', 'circuit/no-ground'],
    ['V1 9V vcc 0\nR1 vcc 0', 'circuit/no-value'],
  ])('refuses %j', (lines, code) => {
    const circuit = circuitOf(lines);
    expect(() => sessionOf(circuit)).toThrowError(ZembleError);
    try {
      sessionOf(circuit);
    } catch (error) {
      expect((error as ZembleError).code).toBe(code);
    }
  });
});
