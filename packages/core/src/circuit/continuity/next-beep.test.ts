import { describe, expect, it } from 'vitest';
import { contradictionsOf, formNets, nextBeep } from './index.ts';
import { apartSets } from './nets.ts';
import { informationBound, traceAndMend, tracedPartition, traceBoard } from '../../testing/beeping.ts';
import { circuitOf, randomCircuit, seeded } from '../../testing/circuits.ts';

/** Small circuits for the most part, as boards are that are traced by hand; every twentieth a larger one. */
const stagesOf = (seed: number) => (seed % 20 === 0 ? 3 : 1);

describe('the next beep', () => {
  it('finds 500 random circuits back with few more answers than their information asks for', () => {
    const ratios = Array.from({ length: 500 }, (_, i) => {
      const seed = i + 1;
      const { board, traced, asked } = traceBoard(randomCircuit(seed, stagesOf(seed)), { isProven: false });
      expect(tracedPartition(traced), `seed ${seed}`).toEqual(board.partition());
      return asked / informationBound(board, traced.ground);
    });
    expect(ratios.reduce((a, b) => a + b, 0) / ratios.length).toBeLessThan(1.3);
  }, 120_000);

  it('contradicts nothing where no answer was wrong, and proves every net', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const { board, traced, contradictions } = traceBoard(randomCircuit(seed, 1));
      expect(contradictions, `seed ${seed}`).toEqual([]);
      expect(tracedPartition(traced)).toEqual(board.partition());
    }
  });

  it('ends right in 98 of 100 where two answers were wrong and what an alert names is measured again', () => {
    let right = 0;
    const RUNS = 60;
    for (let seed = 1; seed <= RUNS; seed += 1) {
      const random = seeded(seed);
      const flips = new Set([Math.floor(random() * 60), Math.floor(random() * 60)]);
      let count = 0;
      const { found, truth } = traceAndMend(randomCircuit(seed, 1), { isWrong: () => flips.has(count++) });
      if (found.join() === truth.join()) right += 1;
    }
    expect(right / RUNS).toBeGreaterThanOrEqual(0.98);
  }, 120_000);

  it('never comes back for ever where the tester beeps through a coil or a few ohms', () => {
    const circuit = circuitOf(
      'V1 9V vcc 0\nR1 1k vcc a\nR2 2k2 a 0\nC1 100n a b\nR3 47k b 0\nR5 4k7 vcc2 c\nR7 4R7 vcc vcc2\nL1 10m c out\nR6 10k out 0\nC2 10u polarised vcc2 0',
    );
    const { asked } = traceAndMend(circuit, { lowOhm: ['R7', 'L1'] });
    expect(Math.max(...asked.values())).toBeLessThanOrEqual(2);
  });

  it('takes the ends of what was beeped through for two nets', () => {
    const parts = circuitOf('R7 4R7 x y\nR1 1k z 0\nV1 9V z 0').parts.map((p) => ({ ...p, saidPins: {} }));
    const beeps = [
      { says: 'together' as const, ends: ['R7.a', 'R7.b'], through: 'R7' },
      { says: 'one of' as const, ends: ['R7.b', 'R7.a', 'R1.a'], through: 'R7' },
    ];
    const traced = { ground: '0', parts, beeps };
    const nets = formNets(traced);
    const { isApart } = apartSets(traced, nets.points, nets.graph);
    expect(isApart(nets.graph.setOf('R7.a'), nets.graph.setOf('R7.b'))).toBe(true);
    expect(contradictionsOf(traced, nets)).toEqual([]);
    const { question } = nextBeep(traced, nets, { held: 'R7.b' });
    expect(question!.hold === 'R7.b' && question!.over.includes('R7.a')).toBe(false);
  });

  it('notices answers that were wrong, one in fifty of them, wherever they made the circuit another one', () => {
    let wrong = 0;
    let noticed = 0;
    for (let seed = 1; seed <= 200; seed += 1) {
      const random = seeded(seed);
      const { board, traced, contradictions } = traceBoard(randomCircuit(seed, 1), {
        isWrong: () => random() < 0.02,
      });
      const isRight = JSON.stringify(tracedPartition(traced)) === JSON.stringify(board.partition());
      if (isRight && contradictions.length === 0) continue;
      wrong += 1;
      if (contradictions.length > 0) noticed += 1;
    }
    expect(wrong).toBeGreaterThan(50);
    expect(noticed / wrong).toBeGreaterThan(0.95);
  }, 120_000);
});
