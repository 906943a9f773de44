import { describe, expect, it } from 'vitest';
import { informationBound, tracedPartition, traceBoard } from '../../testing/beeping.ts';
import { randomCircuit, seeded } from '../../testing/circuits.ts';

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
