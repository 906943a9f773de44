import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import {
  blankBoard,
  checkBoard,
  cleared,
  movedPlace,
  otherWay,
  placeFor,
  withCut,
  withLink,
  withoutPlace,
  withPlace,
  withTerminal,
} from './index.ts';

const circuit = resolveLayer(
  circuitOf('R1 10k in out\nR2 10k out 0\nQ1 2N3904 c in 0\nU1 TL072 out c c vp 0'),
  'planned',
);
const blank = blankBoard('b1', 'strip', 20, 12);

describe('a board edited by hand', () => {
  it('takes every part to a place where it is in nothing’s way', () => {
    let board = blank;
    for (const { ref } of circuit.parts) {
      const place = placeFor(circuit, board, ref);
      expect(place, ref).toBeDefined();
      board = withPlace(board, place!);
    }
    const codes = checkBoard(circuit, board).problems.map((p) => p.code);
    expect(
      codes.filter((c) => ['overlap', 'shared-hole', 'off-board', 'wrong-pins', 'unplaced'].includes(c)),
    ).toEqual([]);
    expect(placeFor(circuit, blankBoard('b', 'strip', 1, 1), 'R1')).toBeUndefined();
  });

  it('moves a part by holes, turns it about its first pin through four quarters, and bends its leads', () => {
    const place = { ref: 'R1', holes: { a: [5, 5], b: [5, 9] } } as const;
    expect(movedPlace(place, 1, -2).holes).toEqual({ a: [6, 3], b: [6, 7] });
    let turned = otherWay(circuit, blank, place, 'turn');
    const seen = [turned.holes.b];
    for (let i = 0; i < 3; i += 1) {
      turned = otherWay(circuit, blank, turned, 'turn');
      seen.push(turned.holes.b);
    }
    expect(seen.map(String).sort()).toEqual(['1,5', '5,1', '5,9', '9,5']);
    expect(turned.holes.a).toEqual([5, 5]);
    expect(otherWay(circuit, blank, place, 'span').holes).toEqual({ a: [5, 5], b: [5, 10] });
    const chip = placeFor(circuit, blank, 'U1')!;
    expect(
      checkBoard(circuit, withPlace(blank, otherWay(circuit, blank, chip, 'turn'))).problems.map(
        (p) => p.code,
      ),
    ).not.toContain('wrong-pins');
  });

  it('has cuts and links that come and go, terminals, and parts taken off', () => {
    const cut = withCut(blank, [3, 3]);
    expect([cut.cuts, withCut(cut, [3, 3]).cuts]).toEqual([[[3, 3]], []]);
    const linked = withLink(blank, [1, 1], [1, 4]);
    expect(withLink(linked, [1, 4], [1, 1]).links).toEqual([]);
    const ended = withTerminal(withTerminal(linked, 'in', [0, 0]), 'out', [0, 0]);
    expect(ended.terminals).toEqual([{ net: 'out', hole: [0, 0] }]);
    expect(cleared(cleared(ended, [0, 0]), [1, 4])).toMatchObject({ terminals: [], links: [] });
    expect(withoutPlace(withPlace(blank, { ref: 'R1', holes: { a: [0, 0] } }), 'R1').places).toEqual([]);
  });

  it('shows what is missing by the shortest lines', () => {
    const board = withPlace(withPlace(blank, { ref: 'R1', holes: { a: [1, 1], b: [1, 5] } }), {
      ref: 'R2',
      holes: { a: [4, 7], b: [4, 11] },
    });
    expect(checkBoard(circuit, board).missing).toEqual([{ net: 'out', from: [1, 5], to: [4, 7] }]);
  });
});
