import type { Wire } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { circuitOf, seeded } from '../../testing/circuits.ts';
import { checkWiring, mountedParts, nextColour, readEnd } from './index.ts';

const circuit = resolveLayer(
  circuitOf(`V1 9 vcc 0
J1 jack tip=in sleeve=0
J2 jack tip=w sleeve=0
P1 100k out w 0
SW1 out x
R1 10k in out
R2 10k vcc out
C1 1u x w`),
  'planned',
);
const lug = (text: string) => readEnd(text, circuit, []);
const colourFor = (from: string, to: string, wires: readonly Wire[] = []) =>
  nextColour([lug(from), lug(to)], checkWiring(circuit, wires, []).wires, circuit);

describe('the colour of the next wire', () => {
  it('is black for ground, red for the positive supply, and what its net has already', () => {
    expect(colourFor('J1.sleeve', 'board.0')).toBe('black');
    expect(colourFor('V1.plus', 'board.vcc')).toBe('red');
    expect(colourFor('P1.1', 'board.out')).toBe('white');
    expect(colourFor('P1.1', 'SW1.a', [{ id: 'w1', colour: 'Pink', from: 'board.out', to: 'SW1.a' }])).toBe(
      'Pink',
    );
  });

  it('gives no two wires that can be mistaken, in whatever order they are put', () => {
    const ends = circuit.parts
      .filter((p) => ['J1', 'J2', 'P1', 'SW1', 'V1'].includes(p.ref))
      .flatMap((p) =>
        Object.entries(p.pins).map(([pin, net]) => [`${p.ref}.${pin}`, `board.${net}`] as const),
      );
    for (let seed = 1; seed <= 50; seed += 1) {
      const random = seeded(seed);
      const order = [...ends].map((e) => ({ e, at: random() })).sort((a, b) => a.at - b.at);
      const wires: Wire[] = [];
      for (const {
        e: [from, to],
      } of order) {
        const colour = colourFor(from, to, wires);
        expect(colour).toBeDefined();
        wires.push({ id: `w${wires.length}`, from, to, colour: colour! });
      }
      expect(checkWiring(circuit, wires, []).problems, `seed ${seed}`).toEqual([]);
    }
  });

  it('says so where every colour is taken at a place', () => {
    // Fourteen nets at one board, none of them a rail: more than there are colours for signals.
    const lines = Array.from({ length: 14 }, (_, i) => `P${i + 1} 10k a${i} b${i} 0`).join('\n');
    const many = resolveLayer(circuitOf(lines), 'planned');
    const wires: Wire[] = [];
    const given = Array.from({ length: 14 }, (_, i) => {
      const from = `P${i + 1}.1`;
      const ends = [readEnd(from, many, []), readEnd(`board.a${i}`, many, [])] as const;
      const colour = nextColour(ends, checkWiring(many, wires, []).wires, many);
      if (colour !== undefined) wires.push({ id: from, from, to: `board.a${i}`, colour });
      return colour;
    });
    expect(new Set(given.slice(0, 10)).size).toBe(10);
    expect(given.slice(10)).toEqual([undefined, undefined, undefined, undefined]);
  });
});

describe('what is wired by hand', () => {
  it('is what sits on a panel or a chassis, unless it stands on the board', () => {
    expect(mountedParts(circuit, []).map((p) => p.ref)).toEqual(['V1', 'J1', 'J2', 'P1', 'SW1']);
    const board = {
      id: 'b',
      style: 'pads' as const,
      columns: 9,
      rows: 9,
      places: [{ ref: 'P1', holes: { 1: [0, 0], 2: [1, 0], 3: [2, 0] } as const }],
      cuts: [],
      links: [],
      terminals: [],
    };
    expect(mountedParts(circuit, [board]).map((p) => p.ref)).toEqual(['V1', 'J1', 'J2', 'SW1']);
  });
});
