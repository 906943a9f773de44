import type { IntakeData } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { preparePath } from './path.ts';
import { weightsFor } from './weights.ts';
import {
  causeOf,
  convictDamage,
  intakeSentences,
  withCheck,
  withDamage,
  withoutDamage,
  withProof,
} from './cause.ts';

const AT = '2026-01-01T10:00:00Z';
const LATER = '2026-01-01T11:00:00Z';

describe('it was this', () => {
  it('ends the search with its cause when a first check found it, and says so in the log', () => {
    const before: IntakeData = { words: 'dead', checks: { volume: 'fine' } };
    const after = withCheck(before, 'cables', 'was it', AT);
    expect(causeOf(after)).toMatchObject({ check: 'cables', kind: 'cable' });
    expect(intakeSentences(before, after)).toEqual([
      'It was the cable. Found by a first check: both ends of every cable really plugged; another cable tried.',
    ]);
    const proved = withProof(after, causeOf(after)!, 'right', LATER);
    expect(causeOf(proved)).toMatchObject({ proof: { outcome: 'right', at: LATER } });
    expect(intakeSentences(after, proved)[0]).toMatch(/^Proved, it is right now\. It was the cable/);
  });

  it('goes on when it was not that, and when the check is taken back', () => {
    const found = withCheck({}, 'cables', 'was it', AT);
    const refuted = withProof(found, causeOf(found)!, 'not it', LATER);
    expect(causeOf(refuted)).toBeNull();
    expect(refuted.checks).toEqual({ cables: 'fine' });
    expect(intakeSentences(found, refuted)[0]).toMatch(/^It was not that: It was the cable/);
    const back = withCheck(found, 'cables', null, LATER);
    expect([causeOf(back), back.checks]).toEqual([null, {}]);
    expect(intakeSentences(found, back)).toEqual([
      expect.stringMatching(/^No longer convicted: It was the cable/),
    ]);
  });

  it('does not end with a block: one of its parts is the cause', () => {
    const block = { blockId: 'amp', words: 'Amplifier is guilty', at: AT };
    expect(causeOf({ convicted: [block] })).toBeNull();
    expect(causeOf({ convicted: [block, { ref: 'Q3', words: 'Q3: c-e short', at: LATER }] })).toMatchObject({
      ref: 'Q3',
    });
  });
});

describe('damage that is seen', () => {
  const damage = { defect: 'burnt' as const, target: 'R7', photoId: 'p', x: 0.4, y: 0.5, at: AT };
  const path = {
    blocks: [
      { id: 'a', parts: ['R7'] },
      { id: 'b', parts: ['R8'] },
    ],
    links: [],
  };

  it('raises suspicion of what it is at: its part, block or point', () => {
    const unit = (intake: IntakeData) => ({
      unit: {},
      circuit: { ground: '0', parts: [] },
      readouts: [],
      path,
      intake,
    });
    const [a, b] = weightsFor(preparePath(path), unit(withDamage({}, damage)));
    expect(a! / b!).toBeGreaterThan(5);
    const [c, d] = weightsFor(preparePath(path), unit(withDamage({}, { ...damage, target: 'b' })));
    expect(d! / c!).toBeGreaterThan(5);
  });

  it('is kept, can be convicted, and goes with what was convicted for it', () => {
    const seen = withDamage({}, damage);
    expect(intakeSentences({}, seen)).toEqual(['Seen on the board: burnt at R7.']);
    const found = convictDamage(seen, damage, { ref: 'R7', blockId: 'a' }, LATER);
    expect(causeOf(found)).toMatchObject({ defect: 'burnt', ref: 'R7', words: 'burnt at R7' });
    expect(intakeSentences(seen, found)).toEqual(['Convicted: burnt at R7.']);
    const gone = withoutDamage(found, damage);
    expect([gone.damage, gone.convicted]).toEqual([[], []]);
  });
});
