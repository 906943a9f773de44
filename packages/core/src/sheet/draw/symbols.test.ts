import { PART_KINDS } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { KINDS, type Part } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { classifyNets } from '../../circuit/figures/index.ts';
import { bodyAt, labelsAt, pinsAt, type Placement } from './symbols.ts';

const partOf = (kind: Part['kind']): Part => {
  const pins = kind === 'box' ? ['in', 'out'] : KINDS[kind].pins;
  return { ref: 'X1', kind, pins: Object.fromEntries(pins.map((p) => [p, p])) } as Part;
};
const placements = [0, 1, 2, 3].flatMap((turn) =>
  [false, true].map((isFlipped): Placement => ({ x: 7, y: -3, turn: turn as Placement['turn'], isFlipped })),
);

describe.each(PART_KINDS)('the symbol of a %s', (kind) => {
  const part = partOf(kind);

  it('has every pin on the edge of its body or beyond, looking outward, wherever it stands', () => {
    for (const at of placements) {
      const body = bodyAt(part, at);
      for (const pin of pinsAt(part, at)) {
        expect(Math.abs(pin.dx) + Math.abs(pin.dy)).toBe(1);
        const [x, y] = [pin.x + pin.dx, pin.y + pin.dy];
        const isOutside = x < body.left || x > body.right || y < body.top || y > body.bottom;
        expect(isOutside, `${pin.name} at turn ${at.turn}`).toBe(true);
      }
    }
  });

  it('has no two pins in one place', () => {
    for (const at of placements) {
      const places = pinsAt(part, at).map((p) => `${p.x},${p.y}`);
      expect(new Set(places).size).toBe(places.length);
    }
  });

  it('comes back to where it was after four quarter turns', () => {
    const [first] = placements;
    const turned = (turn: number) =>
      pinsAt(part, { ...first!, turn: (turn % 4) as Placement['turn'] }).map((p) => [p.x - 7, p.y + 3]);
    // A quarter turn against the clock takes (x, y) to (y, -x); four of them are none.
    const byHand = turned(0).map(([x, y]) => [y! + 0, -x! + 0]);
    expect(turned(1)).toEqual(byHand);
    expect(turned(4)).toEqual(turned(0));
  });

  it('keeps its text off its body', () => {
    for (const at of placements.filter((p) => !p.isFlipped)) {
      const body = bodyAt(part, at);
      for (const { box, text } of labelsAt(part, at, ['X100', '4k7'])) {
        const overlaps =
          box.left < body.right && body.left < box.right && box.top < body.bottom && body.top < box.bottom;
        // An amplifier's triangle leaves the corners of its box to the text.
        if (kind !== 'opamp') expect(overlaps, `${text} at turn ${at.turn}`).toBe(false);
      }
    }
  });
});

describe('supply nets', () => {
  it('are what a supply holds against the ground, through others too, or what people call one', () => {
    const of = classifyNets(
      circuitOf('V1 9V a 0\nV2 9V b a\nV3 5V 0 n\nR1 1k vcc x\nR2 1k x VEE\nR3 1k x +12V'),
    );
    expect(['0', 'a', 'b', 'n', 'vcc', 'VEE', '+12V', 'x'].map(of)).toEqual([
      'ground',
      'positive rail',
      'positive rail',
      'negative rail',
      'positive rail',
      'negative rail',
      'positive rail',
      'signal',
    ]);
  });

  it('are none where a supply hangs between two signals', () => {
    const of = classifyNets(circuitOf('V1 9V p q\nR1 1k q 0'));
    expect([of('p'), of('q')]).toEqual(['signal', 'signal']);
  });
});
