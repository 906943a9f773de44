import type { ProblemDocument, UnitResource } from '@halfsplit/contract';
import { beforeEach, describe, expect, it } from 'vitest';
import { ProblemError, UnreachableError } from './client.ts';
import { Outbox, type OutboxPorts } from './outbox.ts';
import { applyChange, type Change, type Write } from './pending.ts';
import { partialUnit } from '../testing/partial-unit.ts';

const unit = partialUnit({
  id: 'u',
  version: 1,
  parts: [{ id: 'p', version: 3 }],
  readouts: [],
  photos: [],
  readings: [],
});
const note = (text: string): Change => ({ type: 'add-note', text });
const stale = (version: number): ProblemDocument => ({
  type: 'about:blank',
  title: 'x',
  status: 409,
  detail: 'x',
  code: 'stale',
  current: { version },
});

type Answer = UnitResource | Error;
let sent: { method: string; path: string; key: string; body: unknown }[];
let answers: Answer[];
let kept: readonly Write[];
let refused: string[];

function ports(): OutboxPorts {
  return {
    store: { load: () => kept, save: (writes) => (kept = writes) },
    async send(method, path, key, body) {
      sent.push({ method, path, key, body });
      const answer = answers.shift() ?? unit;
      if (answer instanceof Error) throw answer;
      return answer;
    },
    onUnit: () => undefined,
    onRefused: (_, problem) => refused.push(problem.detail),
    wait: () => Promise.resolve(),
  };
}

/** Resolves when the outbox says it is in the state. */
const until = (outbox: Outbox, state: string) =>
  new Promise<void>((resolve) => {
    const look = () => outbox.getSnapshot().state === state && resolve();
    outbox.subscribe(look);
    look();
  });

beforeEach(() => {
  [sent, answers, kept, refused] = [[], [], [], []];
});

describe('outbox', () => {
  it('sends in order, one at a time, and forgets what was acknowledged', async () => {
    const outbox = new Outbox(ports());
    for (const text of ['one', 'two', 'three']) outbox.add('u', note(text));
    await until(outbox, 'saved');
    expect(sent.map((s) => s.body)).toEqual([{ text: 'one' }, { text: 'two' }, { text: 'three' }]);
    expect(kept).toEqual([]);
  });

  it('keeps a change while the server is away and repeats it with the same key', async () => {
    answers = [new UnreachableError('away'), new UnreachableError('away'), unit];
    const outbox = new Outbox(ports());
    outbox.add('u', note('kept'));
    await until(outbox, 'saved');
    expect(sent).toHaveLength(3);
    expect(new Set(sent.map((s) => s.key)).size).toBe(1);
  });

  it('sends what an earlier page left behind', async () => {
    kept = [{ key: 'earlier-key', unitId: 'u', change: note('from before') }];
    const outbox = new Outbox(ports());
    expect(outbox.getSnapshot().pending).toHaveLength(1);
    await outbox.run();
    expect(sent[0]).toMatchObject({ key: 'earlier-key', body: { text: 'from before' } });
    expect(kept).toEqual([]);
  });

  it('drops a change that the server refuses, tells why, and goes on', async () => {
    answers = [
      new ProblemError({ ...stale(1), status: 422, code: 'invalid', detail: 'no such value' }),
      unit,
    ];
    const outbox = new Outbox(ports());
    outbox.add('u', note('bad'));
    outbox.add('u', note('good'));
    await until(outbox, 'saved');
    expect(refused).toEqual(['no such value']);
    expect(sent).toHaveLength(2);
  });

  const change: Change = { type: 'remove-part', partId: 'p', seen: 1 };

  it('stops at a stale change and, for "mine", sends it on the newer version with a new key', async () => {
    answers = [new ProblemError(stale(7)), unit];
    const outbox = new Outbox(ports());
    outbox.add('u', change);
    outbox.add('u', note('after'));
    await until(outbox, 'conflict');
    expect(sent).toHaveLength(1);
    outbox.resolve('mine');
    await until(outbox, 'saved');
    expect(sent.map((s) => s.body)).toEqual([{ baseVersion: 1 }, { baseVersion: 7 }, { text: 'after' }]);
    expect(sent[1]!.key).not.toBe(sent[0]!.key);
  });

  it('for "theirs" drops the stale change and goes on', async () => {
    answers = [new ProblemError(stale(7))];
    const outbox = new Outbox(ports());
    outbox.add('u', change);
    outbox.add('u', note('after'));
    await until(outbox, 'conflict');
    outbox.resolve('theirs');
    await until(outbox, 'saved');
    expect(sent.map((s) => s.body)).toEqual([{ baseVersion: 1 }, { text: 'after' }]);
  });

  it('builds a second change of the same part on the version that the first one made', async () => {
    const outbox = new Outbox(ports());
    outbox.add('u', change);
    outbox.add('u', change);
    await until(outbox, 'saved');
    expect(sent.map((s) => s.body)).toEqual([{ baseVersion: 1 }, { baseVersion: 3 }]);
  });
});

describe('applyChange', () => {
  const part = { ref: 'R1', kind: 'resistor' as const, pins: { a: 'x', b: '0' }, marked: 1000 };
  const start = partialUnit({
    ...unit,
    nudges: {},
    parts: [{ id: 'p', version: 0, position: 0, part }],
  });

  it('shows a change before the server has it', () => {
    expect(
      applyChange(start, { type: 'add-part', tempId: 't', part: { ...part, ref: 'R2' } }).parts,
    ).toHaveLength(2);
    expect(
      applyChange(start, { type: 'update-part', partId: 'p', seen: 0, part: { ...part, marked: 5 } })
        .parts[0]!.part.marked,
    ).toBe(5);
    expect(applyChange(start, { type: 'remove-part', partId: 'p', seen: 0 }).parts).toEqual([]);
    const planned = applyChange(start, {
      type: 'accept-plan',
      changes: [{ partId: 'p', baseVersion: 0, planned: 9 }],
      reason: 'x',
    });
    expect(planned.parts[0]!.part.planned).toBe(9);
    const read = applyChange(start, {
      type: 'add-reading',
      tempId: 't',
      partId: 'p',
      seen: 0,
      value: 7,
      condition: 'leg lifted',
      takenAt: '2026-01-01T00:00:00Z',
    });
    expect(read.readings).toMatchObject([{ partId: 'p', value: 7, withdrawn: false }]);
    expect(start.parts[0]!.part.marked).toBe(1000);
  });
});
