import { PART_KINDS } from '@halfsplit/contract';
import { describe, expect, it } from 'vitest';
import { KINDS, type Circuit, type Part } from '../circuit/index.ts';
import { circuitOf, randomCircuit } from '../testing/circuits.ts';
import { flagsFor, layoutCircuit, placementsOf, type Box, type Drawing, type Wire } from './index.ts';

const overlaps = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Does a wire pass through the inside of a box? */
function passes(wire: Wire, box: Box): boolean {
  const [left, right] = [Math.min(wire.from.x, wire.to.x), Math.max(wire.from.x, wire.to.x)];
  const [top, bottom] = [Math.min(wire.from.y, wire.to.y), Math.max(wire.from.y, wire.to.y)];
  return left < box.right && right > box.left && top < box.bottom && bottom > box.top;
}

/** Everything that may not touch anything else, with a name to say what did. */
function pieces(drawing: Drawing): { owner: string; what: string; box: Box }[] {
  return [
    ...drawing.symbols.flatMap((s) => [
      { owner: s.part.ref, what: 'body', box: s.body },
      ...s.labels.map((l) => ({ owner: s.part.ref, what: `label ${l.text}`, box: l.box })),
    ]),
    ...drawing.marks.map((m) => ({ owner: `mark ${m.from.x},${m.from.y}`, what: m.kind, box: m.box })),
  ];
}

function faults(drawing: Drawing): string[] {
  const found: string[] = [];
  const all = pieces(drawing);
  for (let i = 0; i < all.length; i += 1) {
    for (let j = i + 1; j < all.length; j += 1) {
      const [a, b] = [all[i]!, all[j]!];
      const isOwnMark = a.owner.startsWith('mark') || b.owner.startsWith('mark');
      if (
        a.owner === b.owner ||
        (isOwnMark && (a.what === 'body' || b.what === 'body') && touchesPin(drawing, a, b))
      )
        continue;
      if (overlaps(a.box, b.box)) found.push(`${a.owner} ${a.what} overlaps ${b.owner} ${b.what}`);
    }
  }
  for (const wire of drawing.wires) {
    for (const piece of all)
      if (passes(wire, piece.box)) found.push(`net ${wire.net} runs through ${piece.owner} ${piece.what}`);
  }
  return found;
}

/** A rail mark begins at its own symbol's pin. */
function touchesPin(drawing: Drawing, a: { owner: string }, b: { owner: string }): boolean {
  const symbol = drawing.symbols.find((s) => s.part.ref === a.owner || s.part.ref === b.owner);
  return (
    symbol?.pins.some((p) => a.owner === `mark ${p.x},${p.y}` || b.owner === `mark ${p.x},${p.y}`) ?? false
  );
}

/** Two nets never share a piece of wire, and every pin of a net is joined to the others. */
function wiringFaults(circuit: Circuit, drawing: Drawing): string[] {
  const found: string[] = [];
  const owner = new Map<string, string>();
  const joined = new Map<string, Set<string>>();
  for (const { net, from, to } of drawing.wires) {
    const steps = Math.abs(from.x - to.x) + Math.abs(from.y - to.y);
    for (let i = 0; i < steps; i += 1) {
      const at = (k: number) =>
        `${from.x + Math.sign(to.x - from.x) * k},${from.y + Math.sign(to.y - from.y) * k}`;
      const step = [at(i), at(i + 1)].sort().join(' ');
      if (owner.has(step) && owner.get(step) !== net)
        found.push(`nets ${owner.get(step)} and ${net} share ${step}`);
      owner.set(step, net);
      for (const [a, b] of [
        [at(i), at(i + 1)],
        [at(i + 1), at(i)],
      ] as const)
        joined.set(`${net} ${a}`, (joined.get(`${net} ${a}`) ?? new Set()).add(b));
    }
  }
  for (const net of new Set(drawing.wires.map((w) => w.net))) {
    const pins = drawing.symbols.flatMap((s) =>
      s.pins.filter((p) => s.part.pins[p.name] === net).map((p) => `${p.x},${p.y}`),
    );
    const reached = new Set<string>();
    const open = [pins[0]!];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      if (reached.has(at)) continue;
      reached.add(at);
      open.push(...(joined.get(`${net} ${at}`) ?? []));
    }
    const isTagged = drawing.names.some((n) => n.net === net);
    if (!isTagged && pins.some((p) => !reached.has(p))) found.push(`net ${net} is not joined`);
  }
  const drawn = new Set(drawing.symbols.map((s) => s.part.ref));
  for (const { ref } of circuit.parts) if (!drawn.has(ref)) found.push(`${ref} is not drawn`);
  return found;
}

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
