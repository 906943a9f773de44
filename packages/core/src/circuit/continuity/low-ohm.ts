import { markedNumber, UnionFind, type Part } from '../circuit/index.ts';
import { pinText } from './ends.ts';
import type { JoinGraph } from './graph.ts';

/** Below this a continuity tester may beep, ohm (common practice: makers set it between 20 and 50). */
export const BEEPS_BELOW_OHM = 50;

type Ends = readonly [string, string];

/** Pairs of a part's pins through which a tester may beep although they are two nets: a coil, a small resistor, a contact. */
export function beepsThrough(part: Part): readonly Ends[] {
  switch (part.kind) {
    case 'resistor':
    case 'load': {
      const ohm = markedNumber(part);
      return ohm !== null && ohm <= BEEPS_BELOW_OHM ? [['a', 'b']] : [];
    }
    case 'potentiometer': {
      const ohm = markedNumber(part);
      return ohm !== null && ohm <= BEEPS_BELOW_OHM
        ? [
            ['1', '2'],
            ['2', '3'],
          ]
        : [];
    }
    case 'inductor':
    case 'switch':
    case 'jumper':
    case 'fuse':
      return [['a', 'b']];
    case 'transformer':
      return [
        ['p1', 'p2'],
        ['s1', 's2'],
      ];
    case 'changeover':
      return [
        ['com', 'a'],
        ['com', 'b'],
      ];
    case 'jack':
      return [
        ['tip', 'tipSwitch'],
        ['ring', 'ringSwitch'],
      ];
    case 'relay':
      return [['com', 'nc']];
    default:
      return [];
  }
}

/** Nets that a tester may beep between, through coils and small resistors, by the names of their sets. */
export function lowOhmSets(parts: readonly Part[], graph: JoinGraph): UnionFind {
  const low = new UnionFind();
  for (const part of parts)
    for (const [a, b] of beepsThrough(part))
      if (a in part.pins && b in part.pins)
        low.join(graph.setOf(pinText(part.ref, a)), graph.setOf(pinText(part.ref, b)));
  return low;
}
