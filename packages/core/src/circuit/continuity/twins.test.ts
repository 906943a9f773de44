import { describe, expect, it } from 'vitest';
import type { Circuit, Part } from '../circuit/index.ts';
import { Board, tracedPartition, untraced } from '../../testing/beeping.ts';
import { randomCircuit } from '../../testing/circuits.ts';
import { formNets, nextBeep, twinDifferences, twinsOf, type Traceable } from './index.ts';

const SHARED = ['vcc', '0'];
/** A circuit and its other channel, a hundred on, with the supplies in common. */
function stereo(left: Circuit): Circuit {
  const right = left.parts
    .filter((p) => !/^V/.test(p.ref))
    .map((p): Part => {
      const [, letters, number] = /^([A-Z]+)(\d+)$/.exec(p.ref)!;
      const pins = Object.entries(p.pins).map(([pin, net]) => [pin, SHARED.includes(net) ? net : `${net}R`]);
      return { ...p, ref: `${letters}${Number(number) + 100}`, pins: Object.fromEntries(pins) };
    });
  return { ...left, parts: [...left.parts, ...right] };
}

/** Traces until all is settled; how many beeps it took, the left channel known from the beginning. */
function traceRight(circuit: Circuit, isTwin: boolean) {
  const board = new Board(circuit);
  const isLeft = (ref: string) => Number(/\d+/.exec(ref)) < 100;
  const { parts } = untraced(circuit);
  const known = parts.map((p, i) => (isLeft(p.ref) ? { ...circuit.parts[i]!, saidPins: undefined } : p));
  const beeps: NonNullable<Traceable['beeps']>[number][] = [];
  // Nets that were said by two names are two nets.
  const names = [
    ...new Set(circuit.parts.filter((p) => isLeft(p.ref)).flatMap((p) => Object.values(p.pins))),
  ];
  names.forEach((name, i) => {
    if (i + 1 < names.length) beeps.push({ says: 'apart', ends: [name, ...names.slice(i + 1)] });
  });
  const traced: Traceable = { ground: '0', parts: known, beeps };
  const twins = twinsOf(known);
  for (let asked = 0; ; asked += 1) {
    const nets = formNets(traced);
    const { question } = nextBeep(traced, nets, isTwin ? { twins } : {});
    if (!question || question.kind === 'together' || question.kind === 'alone')
      return { asked, board, traced, differences: twinDifferences(traced, twins, nets) };
    beeps.push(...board.answer(question));
  }
}

describe('the other channel', () => {
  it('is known by its designators and values, and not by a few that are alike', () => {
    const circuit = stereo(randomCircuit(3, 1));
    expect(twinsOf(circuit.parts).get('C2')).toBe('C102');
    expect(twinsOf(randomCircuit(3, 1).parts).size).toBe(0);
  });

  it('is confirmed in far fewer beeps than it would take alone, and found as it is', () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      const circuit = stereo(randomCircuit(seed, 1));
      const [alone, twin] = [traceRight(circuit, false), traceRight(circuit, true)];
      expect(tracedPartition(twin.traced), `seed ${seed}`).toEqual(twin.board.partition());
      expect(twin.differences, `seed ${seed}`).toEqual([]);
      expect(twin.asked, `seed ${seed}`).toBeLessThan(0.75 * alone.asked);
    }
  });

  it('tells where it differs', () => {
    const same = stereo(randomCircuit(5, 1));
    // One leg of the right channel that lies elsewhere.
    const moved = same.parts.find((p) => p.ref.startsWith('R1') && Object.values(p.pins).includes('0'))!;
    const parts = same.parts.map((p): Part =>
      p === moved
        ? {
            ...p,
            pins: Object.fromEntries(
              Object.entries(p.pins).map(([pin, net]) => [pin, net === '0' ? 'vcc' : net]),
            ),
          }
        : p,
    );
    const { traced, board, differences } = traceRight({ ...same, parts }, true);
    expect(tracedPartition(traced)).toEqual(board.partition());
    expect(differences.some((d) => d.apart.some((pin) => pin.startsWith(moved.ref)))).toBe(true);
  });
});
