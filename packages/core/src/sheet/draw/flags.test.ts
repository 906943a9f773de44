import { describe, expect, it } from 'vitest';
import { netsOf } from '../../circuit/circuit/index.ts';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import { flagsFor, layoutCircuit } from './index.ts';
import type { Box } from './symbols.ts';

const overlaps = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

describe('flags at nets', () => {
  it('lie on no symbol, text or other flag, and point at a wire of their net', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const circuit = randomCircuit(seed, 1 + (seed % 3));
      const drawing = layoutCircuit(circuit);
      const flags = flagsFor(drawing, new Map(netsOf(circuit).map((net) => [net, '12.3 V, is 11.9 V'])));
      expect(flags.length, `${seed}`).toBeGreaterThan(0);
      const obstacles = drawing.symbols.flatMap((s) => [s.body, ...s.labels.map((l) => l.box)]);
      flags.forEach((flag, i) => {
        expect(
          obstacles.some((o) => overlaps(o, flag.box)),
          `${seed} ${flag.net}`,
        ).toBe(false);
        expect(flags.slice(i + 1).some((other) => overlaps(other.box, flag.box))).toBe(false);
        const { x, y } = flag.at;
        const touches = drawing.wires.some(
          (w) =>
            w.net === flag.net &&
            x >= Math.min(w.from.x, w.to.x) &&
            x <= Math.max(w.from.x, w.to.x) &&
            y >= Math.min(w.from.y, w.to.y) &&
            y <= Math.max(w.from.y, w.to.y),
        );
        expect(touches, `${seed} ${flag.net}`).toBe(true);
      });
    }
  });

  it('are as wide as their text, and none stands where a net has no wire', () => {
    const drawing = layoutCircuit(circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a b\nR3 1k b 0'));
    const [short] = flagsFor(drawing, new Map([['a', '1 V']]));
    const [long] = flagsFor(drawing, new Map([['a', '1.234 V, is 5.678 V']]));
    expect(long!.box.right - long!.box.left).toBeGreaterThan(short!.box.right - short!.box.left);
    expect(flagsFor(drawing, new Map([['nowhere', '1 V']]))).toEqual([]);
  });
});
