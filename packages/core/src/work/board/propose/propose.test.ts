import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../../circuit/changes/index.ts';
import type { LayerCircuit } from '../../../circuit/circuit/index.ts';
import { secondLook } from '../../../testing/boards.ts';
import { circuitOf, seeded } from '../../../testing/circuits.ts';
import { checkBoard, proposeBoard, type BoardProposal, type BoardWish } from '../index.ts';

const layerOf = (lines: string): LayerCircuit => resolveLayer(circuitOf(lines), 'planned');
const wish: BoardWish = { style: 'strip', columns: 30, rows: 30, seed: 1 };

const PREAMP = `V1 9 vcc 0
C1 1u in b
R1 100k vcc b
R2 22k b 0
R3 4k7 vcc c
R4 1k e 0
C2 100u 16V e 0
Q1 2N3904 c b e
C3 10u c out
R5 100k out 0
C4 100u 25V vcc 0
C5 100n vcc 0`;

/** Up to so many parts between nets of their own. */
function randomCircuit(random: () => number, count: number): LayerCircuit {
  const nets = [
    '0',
    'vcc',
    'in',
    'out',
    ...Array.from({ length: 1 + Math.floor(count / 2) }, (_, i) => `n${i}`),
  ];
  const others = (not: readonly string[]) => nets.filter((n) => !not.includes(n));
  const pick = (not: readonly string[] = []) => others(not)[Math.floor(random() * others(not).length)]!;
  const lines = Array.from({ length: count }, (_, i) => {
    const a = pick();
    const b = pick([a]);
    const c = pick([a, b]);
    const kind = random();
    if (kind < 0.12) return `Q${i} 2N3904 ${a} ${b} ${c}`;
    if (kind < 0.16) return `U${i} TL072 ${a} ${b} ${c} vcc 0`;
    if (kind < 0.22) return `D${i} 1N4148 ${a} ${b}`;
    if (kind < 0.3) return `C${i} 100u 25V ${a} ${b}`;
    return kind < 0.6 ? `C${i} 100n ${a} ${b}` : `R${i} 10k ${a} ${b}`;
  });
  return layerOf(`V1 9 vcc 0\n${lines.join('\n')}`);
}

const areaOf = (proposal: BoardProposal): number =>
  proposal.ok ? proposal.board.columns * proposal.board.rows : Infinity;

describe('a proposed board', () => {
  it('passes the check and an independent painting of its copper, for fifty random circuits of up to twenty parts', () => {
    for (let seed = 1; seed <= 50; seed += 1) {
      const random = seeded(seed);
      const circuit = randomCircuit(random, 3 + Math.floor(random() * 18));
      const style = seed % 4 === 0 ? 'pads' : 'strip';
      const proposal = proposeBoard(circuit, [], { ...wish, style, effort: 0.2 });
      if (!proposal.ok) throw new Error(`seed ${seed}: ${proposal.why}`);
      expect(checkBoard(circuit, proposal.board).problems, `seed ${seed}`).toEqual([]);
      expect(secondLook(circuit, proposal.board), `seed ${seed}`).toEqual({ shorts: [], opens: [] });
      expect(proposal.board.columns).toBeLessThanOrEqual(wish.columns);
      expect(proposal.board.rows).toBeLessThanOrEqual(wish.rows);
    }
  });

  it('needs every cut: without any one of them two nets are one, by the check and by the painting', () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      const circuit = randomCircuit(seeded(seed), 8);
      const proposal = proposeBoard(circuit, [], { ...wish, effort: 0.1 });
      if (!proposal.ok) throw new Error(proposal.why);
      const { board } = proposal;
      board.cuts.forEach((_, i) => {
        const missing = { ...board, cuts: board.cuts.filter((__, k) => k !== i) };
        const { shorts } = secondLook(circuit, missing);
        const told = checkBoard(circuit, missing)
          .problems.filter((p) => p.code === 'short')
          .map((p) => [...p.nets!].sort().join(' '));
        expect(told.sort(), `seed ${seed}, cut ${i}`).toEqual(shorts);
        // Pins that nothing uses are parted too, and are no net.
        const chips = board.places.some((p) => p.ref.startsWith('U'));
        if (!chips) expect(shorts.length, `seed ${seed}, cut ${i}`).toBeGreaterThan(0);
      });
    }
  });

  it('is within 1.3 times the smallest that a long search finds, for circuits of up to twelve parts', () => {
    for (const circuit of [layerOf(PREAMP), randomCircuit(seeded(7), 8), randomCircuit(seeded(21), 10)]) {
      const usual = areaOf(proposeBoard(circuit, [], wish));
      const long = Math.min(
        ...[11, 12].map((seed) => areaOf(proposeBoard(circuit, [], { ...wish, seed, effort: 3 }))),
      );
      expect(usual / long).toBeLessThanOrEqual(1.3);
    }
  });

  it('begins with no part along a strip whose pins nothing could part', () => {
    const two = layerOf('R1 10k a b\nSW1 b c');
    for (let seed = 1; seed <= 8; seed += 1)
      expect(proposeBoard(two, [], { ...wish, seed, effort: 0.1 }).ok, `seed ${seed}`).toBe(true);
  });

  it('is the same for the same seed', () => {
    const circuit = layerOf(PREAMP);
    const short = { ...wish, effort: 0.1 };
    expect(proposeBoard(circuit, [], short)).toEqual(proposeBoard(circuit, [], short));
  });

  it('gives every net that leaves the board a terminal, and none to others', () => {
    const proposal = proposeBoard(layerOf(PREAMP), [], { ...wish, effort: 0.2 });
    expect(proposal.ok && proposal.board.terminals.map((t) => t.net).sort()).toEqual(['0', 'vcc']);
    expect(proposal.ok && proposal.notes.join()).toContain('Q1 as E-B-C');
  });

  it('places both opamps of a package as one, by the numbers of its pins', () => {
    const circuit = layerOf(`V1 12 vp 0
V2 12 0 vm
U1A TL072 x m1 o1 vp vm
U1B TL072 p2 o2 o2 vp vm
R1 10k x 0
R2 10k m1 0
R3 47k o1 m1
R4 10k o1 p2
C1 10n p2 0`);
    const proposal = proposeBoard(circuit, [], { ...wish, effort: 0.3 });
    if (!proposal.ok) throw new Error(proposal.why);
    const chip = proposal.board.places.find((p) => p.ref === 'U1')!;
    expect(Object.keys(chip.holes).sort()).toEqual(['1', '2', '3', '4', '5', '6', '7', '8']);
    expect(secondLook(circuit, proposal.board)).toEqual({ shorts: [], opens: [] });
  });

  it('keeps an electrolytic a hole from what gets hot', () => {
    const circuit = layerOf('R1 10 2W a b\nC1 100u 25V b 0\nR2 10k a 0');
    const proposal = proposeBoard(circuit, [], { ...wish, effort: 0.3 });
    if (!proposal.ok) throw new Error(proposal.why);
    const { bodies } = checkBoard(circuit, proposal.board);
    const [hot, tender] = ['R1', 'C1'].map((ref) => bodies.find((b) => b.name === ref)!.stance.body);
    const far = Math.min(...hot!.flatMap((p) => tender!.map((q) => Math.hypot(p.x - q.x, p.y - q.y))));
    expect(far).toBeGreaterThan(1.5);
  });

  it('says why there is none: what is not made for holes, too small a board, too many parts', () => {
    const why = (circuit: LayerCircuit, more: Partial<BoardWish> = {}) => {
      const proposal = proposeBoard(circuit, [], { ...wish, effort: 0.1, ...more });
      return proposal.ok ? '' : proposal.why;
    };
    expect(why(layerOf('V1 12AX7 a g k\nR1 100k a 0'))).toMatch(
      /^V1 is a triode.*not made for a board of holes/,
    );
    expect(why(layerOf(PREAMP), { columns: 4, rows: 3 })).toContain('23 legs');
    expect(why(layerOf(PREAMP), { columns: 5, rows: 6 })).toMatch(
      /^No layout was found on a board of 5 columns and 6 rows/,
    );
    expect(why(layerOf('V1 9 a 0'))).toContain('No part of the circuit belongs on a board');
    const many = Array.from({ length: 80 }, (_, i) => `R${i} 10k a n${i}`).join('\n');
    expect(why(layerOf(many))).toContain('80 parts are too many');
  });

  it('stops when it is told to, with the best so far', () => {
    let asked = 0;
    const proposal = proposeBoard(layerOf(PREAMP), [], { ...wish, mayGoOn: () => (asked += 1) < 20 });
    expect(proposal.ok).toBe(true);
    expect(asked).toBeLessThan(30);
  });
});
