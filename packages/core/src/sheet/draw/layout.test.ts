import { PART_KINDS } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { KINDS, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import { faults, overlaps, passes, pieces, wiringFaults } from '../../testing/drawing.ts';
import { flagsFor, layoutCircuit, placementsOf } from './index.ts';

const pinsOfKind = (kind: Part['kind']): readonly string[] => KINDS[kind].pins;

const BOOSTER = circuitOf(`
  V1 9V vcc 0
  G1 10mV in 0
  C1 100n in b1
  R1 470k vcc b1
  R2 68k b1 0
  Q1 2N3904 c1 b1 e1
  R3 10k vcc c1
  R4 820 e1 0
  C2 4.7u c1 out
  R5 100k out 0
`);

describe('layoutCircuit', () => {
  it('draws 200 random circuits without a touch: symbols, labels and wires keep apart', () => {
    let crossings = 0;
    let parts = 0;
    for (let seed = 1; seed <= 200; seed += 1) {
      const circuit = randomCircuit(seed, 1 + (seed % 6));
      const drawing = layoutCircuit(circuit, { textOf: (p) => (p.model ?? String(p.marked)).slice(0, 6) });
      expect([...faults(drawing), ...wiringFaults(circuit, drawing)], `seed ${seed}`).toEqual([]);
      crossings += drawing.crossings;
      parts += circuit.parts.length;
    }
    expect(crossings / parts).toBeLessThan(0.12);
  });

  it.each(PART_KINDS)('joins every pin of a %s to its net, the optional ones too', (kind) => {
    const pins = kind === 'box' || kind === 'clock' ? ['in', 'out', 'rset', 'gnd'] : pinsOfKind(kind);
    const part = {
      ref: 'X1',
      kind,
      pins: Object.fromEntries(pins.map((pin) => [pin, `n${pin}`])),
      marked: 1,
    } as Part;
    const ends = pins.map((pin, i): Part => ({
      ref: `R${i}`,
      kind: 'resistor',
      pins: { a: `n${pin}`, b: i === 0 ? '0' : 'n0' },
      marked: 1e3,
    }));
    const circuit: Circuit = { ground: '0', parts: [part, ...ends] };
    const drawing = layoutCircuit(circuit);
    expect([...faults(drawing), ...wiringFaults(circuit, drawing)]).toEqual([]);
    const drawn = drawing.symbols.find((s) => s.part.ref === 'X1')!;
    expect(drawn.pins.map((p) => p.name).sort()).toEqual([...pins].sort());
    for (const end of ends.slice(0, pins.length)) {
      const wire = drawing.wires.some((w) => w.net === end.pins.a);
      expect(wire || drawing.names.some((n) => n.net === end.pins.a)).toBe(true);
    }
  });

  it('stands a transistor whose model is pnp, or p-channel, with its emitter or source up', () => {
    const turned = (line: string, upper: string, lower: string) => {
      const [symbol] = layoutCircuit(circuitOf(line)).symbols;
      const y = (name: string) => symbol!.pins.find((p) => p.name === name)!.y;
      return y(upper) < y(lower);
    };
    expect(turned('Q1 2N3906 c b e', 'e', 'c')).toBe(true);
    expect(turned('Q1 2N3904 c b e', 'c', 'e')).toBe(true);
    expect(turned('Q1 pnp c b e', 'e', 'c')).toBe(true);
    expect(turned('Q1 kind=jfet polarity=n d g s', 'd', 's')).toBe(true);
    expect(turned('Q1 kind=jfet polarity=p d g s', 's', 'd')).toBe(true);
  });

  it('lets the signal flow from left to right, with the supply up and the ground down', () => {
    const drawing = layoutCircuit(BOOSTER);
    const at = (ref: string) => drawing.symbols.find((s) => s.part.ref === ref)!.at;
    const order = ['G1', 'C1', 'Q1', 'C2', 'R5'].map((ref) => at(ref).x);
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    expect(at('R3').y).toBeLessThan(at('Q1').y);
    expect(at('R4').y).toBeGreaterThan(at('Q1').y);
    for (const mark of drawing.marks) expect(mark.way).toBe(mark.kind === 'positive rail' ? 'up' : 'down');
  });

  it('gives equal channels equal drawings', () => {
    const channel = (side: string) =>
      BOOSTER.parts
        .filter((p) => p.ref !== 'V1')
        .map((p) => ({
          ...p,
          ref: `${p.ref}${side}`,
          pins: Object.fromEntries(
            Object.entries(p.pins).map(([pin, net]) => [
              pin,
              net === 'vcc' || net === '0' ? net : `${net}${side}`,
            ]),
          ),
        }));
    const { symbols } = layoutCircuit({
      ground: '0',
      parts: [BOOSTER.parts[0]!, ...channel('L'), ...channel('R')],
    });
    const shape = (side: string) =>
      symbols.filter((s) => s.part.ref.endsWith(side)).map((s) => ({ x: s.at.x, turn: s.at.turn }));
    expect(shape('L')).toEqual(shape('R'));
  });

  it('is the same every time', () => {
    expect(layoutCircuit(BOOSTER)).toEqual(layoutCircuit(BOOSTER));
  });

  it('moves little when a part is added to a drawing', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const circuit = randomCircuit(seed, 3);
      const before = layoutCircuit({ ...circuit, parts: circuit.parts.slice(0, -1) });
      const after = layoutCircuit(circuit, { previous: placementsOf(before) });
      const places = new Map(after.symbols.map((s) => [s.part.ref, s.at]));
      const moved = before.symbols.filter(
        (s) => places.get(s.part.ref)!.x !== s.at.x || places.get(s.part.ref)!.y !== s.at.y,
      );
      expect(moved.length, `seed ${seed}`).toBeLessThanOrEqual(1);
      expect(faults(after), `seed ${seed}`).toEqual([]);
    }
  });

  it('leaves a moved symbol where the user put it, and makes way', () => {
    const plain = layoutCircuit(BOOSTER);
    const target = plain.symbols.find((s) => s.part.ref === 'R3')!.at;
    const drawing = layoutCircuit(BOOSTER, { nudges: { R5: { x: target.x, y: target.y } } });
    const at = (ref: string) => drawing.symbols.find((s) => s.part.ref === ref)!.at;
    expect(at('R5')).toMatchObject({ x: target.x, y: target.y });
    expect(faults(drawing)).toEqual([]);
    expect(wiringFaults(BOOSTER, drawing)).toEqual([]);
  });

  it('finds room for voltage flags that cover nothing', () => {
    const drawing = layoutCircuit(BOOSTER);
    const flags = flagsFor(
      drawing,
      new Map([
        ['b1', '1.11 V'],
        ['c1', '5.3 V'],
        ['e1', '0.5 V'],
      ]),
    );
    expect(flags).toHaveLength(3);
    for (const flag of flags) {
      for (const piece of pieces(drawing)) expect(overlaps(flag.box, piece.box)).toBe(false);
      for (const wire of drawing.wires) expect(passes(wire, flag.box)).toBe(false);
    }
  });

  it('draws what is half typed: one part, loose ends, a box, a double designator', () => {
    for (const lines of [
      'R1 1k a b',
      'R1 1k a b\nR1 1k a b',
      'X1 box a b c d e',
      'V1 9V vcc 0',
      'Q1 c b e',
      'R1 1k 0 0',
      'C1 1u vcc 0',
      'P1 10k a w 0',
      'G1 1V in 0\nC1 1u in y\nP1 10k y 0 0',
      'G1 1V in 0\nP1 10k 0 out in\nR1 1k out 0',
    ]) {
      const circuit = circuitOf(lines);
      expect(faults(layoutCircuit(circuit)), lines).toEqual([]);
    }
    expect(layoutCircuit({ ground: '0', parts: [] }).symbols).toEqual([]);
  });
});
