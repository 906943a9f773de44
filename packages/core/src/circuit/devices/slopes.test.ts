import { resolveLayer } from '../changes/index.ts';

import { describe, expect, it } from 'vitest';
import { System } from '../../analysis/analysis/system.ts';
import { circuitOf, seeded } from '../../testing/circuits.ts';

/** One of each device whose equations depend on the solution, on nets of its own. */
const DEVICES: Readonly<Record<string, string>> = {
  diode: 'D1 1N4148 a 0',
  zener: 'Z1 5.1V a 0',
  LED: 'LED1 white a 0',
  npn: 'Q1 2N3904 a b c',
  pnp: 'Q1 2N3906 a b c',
  'npn with every parameter':
    'Q1 npn a b c BF=200 VAF=60 VAR=20 IKF=0.02 ISE=1e-14 NE=1.4 ISC=1e-13 NC=1.8 CJE=10p CJC=4p TF=3e-10',
  'junction FET': 'JF1 2N5457 a b c',
  'p junction FET': 'JF1 2N5460 a b c',
  MOSFET: 'M1 2N7000 a b c',
  triode: 'VT1 12AX7 a b c',
  pentode: 'VP1 EL84 a b c 0',
  opamp: 'U1 TL072 plus=a minus=b out=c vplus=0 vminus=0',
  capsule: 'MK1 electret a 0',
};
const TRIES = 60;
const STEP = 1e-6;

/** f and q of a device at a solution, with any limit on its own steps left behind. */
function reader(lines: string) {
  const system = new System(resolveLayer(circuitOf(`${lines}\nR1 1M a 0`), 'marked'));
  const into = system.evaluation(false);
  const read = (x: Float64Array) => {
    for (let i = 0; i < 60; i += 1) {
      system.evaluate(x, into);
      if (!into.limited) break;
    }
    return {
      f: Float64Array.from(into.f),
      q: Float64Array.from(into.q),
      g: into.g.slice(),
      c: into.c.slice(),
    };
  };
  return { system, read };
}

describe('every device says its own derivatives', () => {
  it.each(Object.entries(DEVICES))('%s: G and C are what f and q do, by central differences', (_, line) => {
    const { system, read } = reader(line);
    const random = seeded(line.length);
    const { pattern } = system;
    let compared = 0;
    for (let t = 0; t < TRIES; t += 1) {
      const x = Float64Array.from({ length: system.size + 1 }, (_, k) => (k === 0 ? 0 : 2 * random() - 1));
      const here = read(x);
      for (let column = 1; column <= system.size; column += 1) {
        const [up, down] = [Float64Array.from(x), Float64Array.from(x)];
        up[column] = up[column]! + STEP;
        down[column] = down[column]! - STEP;
        const [above, below] = [read(up), read(down)];
        for (let slot = 1; slot < pattern.length; slot += 1) {
          if (pattern.columns[slot] !== column) continue;
          const row = pattern.rows[slot]!;
          for (const [value, matrix, linear] of [
            ['f', here.g, system.linear.g],
            ['q', here.c, system.linear.c],
          ] as const) {
            const [ahead, behind] = [
              (above[value][row]! - here[value][row]!) / STEP,
              (here[value][row]! - below[value][row]!) / STEP,
            ];
            // At a bend there is no derivative to compare.
            const size = Math.max(Math.abs(ahead), Math.abs(behind));
            if (Math.abs(ahead - behind) > 1e-3 * size) continue;
            compared += 1;
            const said = matrix[slot]! - linear[slot]!;
            const rounding = (1e-9 * Math.abs(here[value][row]!)) / STEP;
            expect(Math.abs(said - (ahead + behind) / 2)).toBeLessThanOrEqual(1e-3 * size + rounding + 1e-15);
          }
        }
      }
    }
    expect(compared).toBeGreaterThan(TRIES);
  });
});

const SWITCHING: Readonly<Record<string, string>> = {
  relay: 'K1 relay coilA=a coilB=b com=c no=d nc=e',
  timer: 'TM1 gnd=0 trig=a out=b reset=vcc ctrl=c thr=d dis=e vcc=vcc',
  regulator: 'U1 regulator 5V in=a out=b gnd=c',
  'opamp with supplies': 'U1 TL072 plus=a minus=b out=c vplus=d vminus=e',
};

describe('every device says where it acts', () => {
  it.each(Object.entries({ ...DEVICES, ...SWITCHING }))(
    '%s: current and charge between its balanced rows are zero in sum, and it writes where it has a slot',
    (_, line) => {
      const { system, read } = reader(line);
      const random = seeded(line.length + 1);
      const [device] = system.loading;
      const balanced = new Set((device!.balanced ?? []).filter((row) => row > 0));
      const isGrounded = (device!.balanced ?? []).includes(0);
      const rows = system.loadedRowsOf(device!);
      const steady = new Set(device!.steadyRows ?? []);
      const fixed = new Map<number, number>();
      let written = 0;
      for (let t = 0; t < TRIES; t += 1) {
        const x = Float64Array.from({ length: system.size + 1 }, (_, k) => (k === 0 ? 0 : 4 * random() - 2));
        const { f, q } = read(x);
        for (const values of [f, q]) {
          const sum = [...balanced].reduce((total, row) => total + values[row]!, 0);
          const size = [...balanced].reduce((most, row) => Math.max(most, Math.abs(values[row]!)), 0);
          if (!isGrounded) expect(Math.abs(sum)).toBeLessThanOrEqual(1e-12 * size);
          for (let row = 1; row <= system.size; row += 1) {
            if (values[row] === 0) continue;
            written += 1;
            if (!steady.has(row)) expect(rows.has(row)).toBe(true);
            else if (values === f && fixed.has(row)) expect([0, fixed.get(row)]).toContain(values[row]);
            else if (values === f) fixed.set(row, values[row]!);
          }
        }
      }
      expect(written).toBeGreaterThan(0);
    },
  );
});
