import type { FileChange, ProblemDocument, WriteAnswer } from '@zemble/contract';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ProblemError, UnreachableError } from './client.ts';
import { Outbox, type OutboxPorts } from './outbox.ts';
import { newId } from './new-id.ts';
import { inOrder } from './outbox-store.ts';
import { applyEntry } from './pending.ts';
import type { Entry, Write } from './act.ts';
import { partialUnit } from '../testing/partial-unit.ts';

const U = newId();
const V = newId();
const P = newId();
const note = (text: string): Entry => ({ type: 'add-note', id: newId(), text });
const stale = (version: number): ProblemDocument => ({
  type: 'about:blank',
  title: 'x',
  status: 409,
  detail: 'x',
  code: 'stale',
  current: { id: P, version },
});
const refusal = (status: number): ProblemError =>
  new ProblemError({ ...stale(1), status, code: 'invalid', detail: 'no such value' });
const good: WriteAnswer = { unitId: U, sequence: 1, edits: [] };

type Answer = WriteAnswer | Error;
let sent: { method: string; path: string; key: string; body: Record<string, unknown> }[];
let answers: Answer[];
let kept: Map<string, Write>;
let refused: string[];
let pauses: number[];
let clock: number;
/** What the server fails on, whenever it is sent. */
let failing: (body: Record<string, unknown>) => boolean;
/** A pause that a test ends by itself. */
let waiting: (() => Promise<void>) | null;
let isFull: boolean;
let unreadable: unknown[];
let counter: number;
/** Keys that are given next. */
let keys: string[];
let isThere: boolean;
/** Whoever waits to send alone, as pages of one browser do. */
let queue: Promise<void>;
let pages: Outbox[];
/** Keys of what was answered, as every page is told. */
let answered: string[];
/** When what was answered is shown. */
let isShown: Promise<void>;

function openPage(): Outbox {
  const ports: OutboxPorts = {
    store: {
      load: () =>
        Promise.resolve({
          writes: [...kept.values()].sort(inOrder),
          unreadable,
        }),
      put(write) {
        if (isFull) return Promise.reject(new DOMException('full', 'QuotaExceededError'));
        counter += write.order === undefined ? 1 : 0;
        const placed = { ...write, order: write.order ?? counter };
        kept.set(write.key, placed);
        return Promise.resolve(placed);
      },
      remove(key) {
        kept.delete(key);
        return Promise.resolve();
      },
    },
    send(method, path, key, body) {
      sent.push({ method, path, key, body: body as Record<string, unknown> });
      if (failing(body as Record<string, unknown>)) return Promise.reject(refusal(500));
      const answer = answers.shift() ?? good;
      return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer);
    },
    onAnswer: (_, { key }) => {
      answered.push(key);
      return isShown;
    },
    onRefused: (_, problem) => refused.push(problem.detail),
    wait(ms) {
      pauses.push(ms);
      if (waiting) return waiting();
      clock += ms;
      return Promise.resolve();
    },
    newKey: () => keys.shift() ?? newId(),
    now: () => clock,
    // The turn is given back a moment after the work is done, as by the browser.
    isServerThere: () => Promise.resolve(isThere),
    alone: (work) => (queue = queue.then(work).then(() => new Promise((resolve) => setTimeout(resolve, 1)))),
    tell: (what) => pages.filter((p) => p !== page).forEach((p) => p.hear(what)),
  };
  const page = new Outbox(ports);
  pages.push(page);
  void page.load();
  return page;
}

/** Resolves when the outbox says it is in the state. */
const until = (outbox: Outbox, state: string) =>
  new Promise<void>((resolve) => {
    const look = () => outbox.getSnapshot().state === state && resolve();
    outbox.subscribe(look);
    look();
  });
const texts = () => sent.map((s) => s.body.text ?? s.body.baseVersion);

beforeEach(() => {
  [sent, answers, refused, pauses, pages, answered] = [[], [], [], [], [], []];
  isShown = Promise.resolve();
  clock = 1;
  failing = () => false;
  waiting = null;
  kept = new Map();
  isFull = false;
  unreadable = [];
  counter = 0;
  keys = [];
  isThere = false;
  queue = Promise.resolve();
});

const PLAN: FileChange = {
  id: 'louder',
  name: 'Louder',
  purpose: 'modification',
  state: 'planned',
  steps: [{ do: 'fit', ref: 'R1', value: 470 }],
};

describe('outbox', () => {
  it('sends in order, one at a time, and forgets what was acknowledged', async () => {
    const outbox = openPage();
    for (const text of ['one', 'two', 'three']) outbox.add(U, note(text));
    await until(outbox, 'saved');
    expect(texts()).toEqual(['one', 'two', 'three']);
    expect(kept.size).toBe(0);
  });

  it('sends what is entered while its turn is being given back', async () => {
    const outbox = openPage();
    for (let i = 0; i < 20; i += 1) {
      outbox.add(U, note(`${i}`));
      await new Promise((resolve) => setTimeout(resolve, i % 3));
    }
    await until(outbox, 'saved');
    expect(texts()).toEqual(Array.from({ length: 20 }, (_, i) => `${i}`));
  });

  it('lets no unit wait for another one’s change that the server fails on again and again', async () => {
    const outbox = openPage();
    // The first unit's change meets a fault of the server each time; what is made of others goes out between its pauses.
    const poison = note('poison');
    const isPoison = (body: Record<string, unknown>) => body.text === 'poison';
    let failures = 6;
    failing = (body) => isPoison(body) && failures-- > 0;
    outbox.add(U, poison);
    outbox.add(U, note('behind it'));
    for (const text of ['one', 'two', 'three']) outbox.add(V, note(text));
    await until(outbox, 'saved');
    const order = texts();
    expect(order.filter((t) => t !== 'poison')).toEqual(['one', 'two', 'three', 'behind it']);
    expect(order.indexOf('three')).toBeLessThan(order.lastIndexOf('poison'));
    expect(order.filter((t) => t === 'poison')).toHaveLength(7);
    expect(pauses.at(-1)).toBe(400 * 2 ** 5);
  });

  it('sends what is entered during a pause at once, and does not try what rests before its time', async () => {
    const outbox = openPage();
    failing = (body) => body.text === 'poison';
    let end: () => void = () => undefined;
    waiting = () => new Promise((resolve) => (end = resolve));
    outbox.add(U, note('poison'));
    await until(outbox, 'waiting');
    outbox.add(V, note('meanwhile'));
    await vi.waitFor(() => expect(texts()).toContain('meanwhile'));
    expect(texts().filter((t) => t === 'poison')).toHaveLength(1);
    failing = () => false;
    waiting = null;
    clock += 400;
    end();
    await until(outbox, 'saved');
    expect(texts()).toEqual(['poison', 'meanwhile', 'poison']);
  });

  it('keeps a change while the server is away, fails or asks to wait, and repeats it with the same key', async () => {
    answers = [new UnreachableError('away'), refusal(429), refusal(503), new UnreachableError('odd'), good];
    const outbox = openPage();
    outbox.add(U, note('kept'));
    await until(outbox, 'saved');
    expect(sent).toHaveLength(5);
    expect(new Set(sent.map((s) => s.key)).size).toBe(1);
    expect(pauses).toEqual([400, 800, 1600, 3200]);
    expect(refused).toEqual([]);
  });

  it('sends what an earlier page left behind', async () => {
    const key = newId();
    kept.set(key, { key, unitId: U, change: note('from before') });
    const outbox = openPage();
    // Nothing is said to be saved before it is known what is kept.
    expect(outbox.getSnapshot().state).toBe('saving');
    await until(outbox, 'saved');
    expect(sent[0]).toMatchObject({ key, body: { text: 'from before' } });
    expect(kept.size).toBe(0);
  });

  it('parks what the server refuses for good, with its reason, and stops nothing else', async () => {
    answers = [refusal(422), good];
    const outbox = openPage();
    outbox.add(U, note('bad'));
    outbox.add(U, note('good'));
    await until(outbox, 'parked');
    expect(refused).toEqual(['no such value']);
    expect(texts()).toEqual(['bad', 'good']);
    const [parked] = outbox.getSnapshot().parked;
    expect(parked).toMatchObject({ change: { text: 'bad' }, refusal: { detail: 'no such value' } });
    // It outlives the page, and can be sent again or let go.
    const later = openPage();
    await later.load();
    expect(later.getSnapshot().parked).toHaveLength(1);
    await later.again(parked!.key, note('better'));
    await until(later, 'saved');
    expect(texts()).toEqual(['bad', 'good', 'better']);
  });

  it('shows and sends what two pages enter, each once, whoever sends it', async () => {
    const [one, two] = [openPage(), openPage()];
    answers = [new UnreachableError('away')];
    for (let i = 0; i < 5; i += 1) {
      one.add(U, note(`one ${i}`));
      two.add(U, note(`two ${i}`));
    }
    await until(one, 'saved');
    await until(two, 'saved');
    const all = texts().slice(1);
    expect(new Set(all).size).toBe(10);
    expect(all).toHaveLength(10);
    expect(all.filter((t) => String(t).startsWith('one'))).toEqual([0, 1, 2, 3, 4].map((i) => `one ${i}`));
    expect(kept.size).toBe(0);
  });

  it('shows an entry on every page until what the server made of it is shown there', async () => {
    const [one, two] = [openPage(), openPage()];
    let show = (): void => undefined;
    isShown = new Promise((resolve) => {
      show = resolve;
    });
    two.add(U, note('typed here'));
    // Both pages are told the answer, whichever of them sent it; neither has the entry gone before it is there otherwise.
    await vi.waitFor(() => expect(answered).toHaveLength(2));
    for (const page of [one, two]) expect(page.getSnapshot().pending).toHaveLength(1);
    show();
    await until(one, 'saved');
    await until(two, 'saved');
    expect(texts()).toEqual(['typed here']);
  });

  it('says at once where this browser keeps nothing, and sends it all the same', async () => {
    isFull = true;
    const outbox = openPage();
    outbox.add(U, note('on a full disk'));
    await until(outbox, 'saved');
    expect(outbox.getSnapshot().notKept).toContain('The disk of this device is full');
    expect(texts()).toEqual(['on a full disk']);
  });

  it('knows what would be lost with the page, until this browser has it', async () => {
    const outbox = openPage();
    await until(outbox, 'saved');
    answers = [new UnreachableError('away')];
    // The server stays away: no pause ends.
    waiting = () => new Promise(() => undefined);
    outbox.hear('waiting');
    const isKept = outbox.add(U, note('a'));
    expect(outbox.hasUnkept()).toBe(true);
    // “Kept here” is said of what is kept.
    expect(outbox.getSnapshot().state).toBe('saving');
    await isKept;
    expect(outbox.hasUnkept()).toBe(false);
    expect(outbox.getSnapshot().state).toBe('waiting');
    expect([...kept.values()].map((w) => w.change)).toMatchObject([{ text: 'a' }]);
  });

  it('forgets what came back by the stream before its answer did', async () => {
    answers = [new UnreachableError('the answer was lost')];
    const outbox = openPage();
    outbox.add(U, note('sent'));
    const { key } = outbox.getSnapshot().pending[0]!;
    outbox.settled([{ unitId: U, sequence: 5, key, effects: [] }]);
    expect(outbox.getSnapshot().pending).toEqual([]);
    await until(outbox, 'saved');
  });

  const change: Entry = { type: 'remove-part', partId: P, seen: 1 };

  it('stops one unit at a stale change and goes on with the others; "mine" is put on what is there now', async () => {
    answers = [new ProblemError(stale(7)), good];
    const outbox = openPage();
    outbox.add(U, change);
    outbox.add(U, note('after'));
    outbox.add(V, note('elsewhere'));
    await until(outbox, 'conflict');
    await vi.waitFor(() => expect(texts()).toEqual([1, 'elsewhere']));
    await outbox.resolve('mine');
    await until(outbox, 'saved');
    expect(texts()).toEqual([1, 'elsewhere', 7, 'after']);
  });

  it('for "theirs" drops the stale change and goes on', async () => {
    answers = [new ProblemError(stale(7))];
    const outbox = openPage();
    outbox.add(U, change);
    outbox.add(U, note('after'));
    await until(outbox, 'conflict');
    await outbox.resolve('theirs');
    await until(outbox, 'saved');
    expect(texts()).toEqual([1, 'after']);
  });

  it('ends a plan that was changed twice meanwhile, on top of each', async () => {
    answers = [
      new ProblemError(stale(4)),
      new ProblemError({ ...stale(9), current: { id: P, version: 9 } }),
      good,
    ];
    const outbox = openPage();
    outbox.add(U, { type: 'update-change', changeId: P, seen: 0, change: PLAN });
    await until(outbox, 'conflict');
    await outbox.resolve('mine');
    await until(outbox, 'conflict');
    await outbox.resolve('mine');
    await until(outbox, 'saved');
    expect(sent.at(-1)!.body).toEqual({ baseVersion: 9, change: PLAN });
  });
});

describe('what several entries and several people need', () => {
  const away = () => {
    answers = Array.from({ length: 50 }, () => new UnreachableError('away'));
    waiting = () => new Promise(() => undefined);
  };
  /** The page that waited is closed, and the server is back. */
  const back = () => {
    answers = [];
    waiting = null;
    pages = [];
    queue = Promise.resolve();
    sent = [];
  };

  it('sends in the order in which it was entered, though the keys say another: a clock went back', async () => {
    away();
    const first = openPage();
    keys = ['ffffffff-0000-7000-8000-000000000000', '00000000-0000-7000-8000-000000000000'];
    first.add(U, note('first'));
    first.add(U, note('then'));
    await until(first, 'waiting');
    back();
    const second = openPage();
    await second.load();
    await until(second, 'saved');
    expect(texts()).toEqual(['first', 'then']);
  });

  it('sends under nobody’s name but that of who entered it, until it is handed over or let go', async () => {
    away();
    const ann = openPage();
    ann.setMe('ann');
    ann.add(U, note('of ann'));
    ann.add(U, note('of ann too'));
    await until(ann, 'waiting');
    back();
    const bob = openPage();
    bob.setMe('bob');
    await bob.load();
    bob.add(U, note('of bob'));
    await vi.waitFor(() => expect(texts()).toEqual(['of bob']));
    await vi.waitFor(() => expect(bob.getSnapshot().ofOthers).toHaveLength(2));
    expect(bob.getSnapshot().pending).toEqual([]);
    const [one, other] = bob.getSnapshot().ofOthers;
    await bob.handOver(one!.key);
    await bob.discard(other!.key);
    await until(bob, 'saved');
    expect(texts()).toEqual(['of bob', 'of ann']);
    expect(kept.size).toBe(0);
  });

  it('waits with what somebody entered as long as nobody knows who is here', async () => {
    away();
    const ann = openPage();
    ann.setMe('ann');
    ann.add(U, note('of ann'));
    await until(ann, 'waiting');
    back();
    const page = openPage();
    await page.load();
    expect(texts()).toEqual([]);
    // It is shown on, as it was before.
    expect(page.getSnapshot().pending).toHaveLength(1);
    page.setMe('ann');
    await until(page, 'saved');
    expect(texts()).toEqual(['of ann']);
  });

  it('sets aside what the server fails at five times while it answers others, and goes on behind it', async () => {
    const failure = () => new UnreachableError('The server answered 500.', 500);
    const outbox = openPage();
    isThere = true;
    answers = [failure(), failure(), failure(), failure(), failure(), good];
    outbox.add(U, note('breaks'));
    outbox.add(U, note('behind'));
    await until(outbox, 'parked');
    expect(texts()).toEqual([...Array.from({ length: 5 }, () => 'breaks'), 'behind']);
    expect(outbox.getSnapshot().parked).toMatchObject([{ refusal: { code: 'server-error' } }]);
  });

  it('sets nothing aside while the server is away, or fails at everything', async () => {
    const outbox = openPage();
    answers = [...Array.from({ length: 9 }, () => new UnreachableError('500', 500)), good];
    outbox.add(U, note('kept'));
    await until(outbox, 'saved');
    expect(outbox.getSnapshot().parked).toEqual([]);
  });

  it('keeps the lists that it tells as long as they hold the same', async () => {
    away();
    const outbox = openPage();
    outbox.add(U, note('one'));
    const { pending, parked } = outbox.getSnapshot();
    await until(outbox, 'waiting');
    await outbox.load();
    expect(outbox.getSnapshot().pending).toBe(pending);
    expect(outbox.getSnapshot().parked).toBe(parked);
  });

  it('says what it cannot read, and goes on saying it after the next entry', async () => {
    unreadable = [{ key: 'x', change: { type: 'of a later version' } }];
    const outbox = openPage();
    await outbox.load();
    outbox.add(U, note('next'));
    await until(outbox, 'saved');
    expect(outbox.getSnapshot().unreadable).toEqual([JSON.stringify(unreadable[0])]);
  });
});

describe('applyEntry', () => {
  const part = { ref: 'R1', kind: 'resistor' as const, pins: { a: 'x', b: '0' }, marked: 1000 };
  const start = partialUnit({
    id: 'u',
    readings: [],
    nudges: {},
    changes: [],
    parts: [{ id: 'p', version: 0, position: 0, part }],
  });

  it('shows a change before the server has it', () => {
    expect(applyEntry(start, { type: 'add-part', id: 't', part: { ...part, ref: 'R2' } }).parts).toHaveLength(
      2,
    );
    expect(
      applyEntry(start, { type: 'update-part', partId: 'p', seen: 0, part: { ...part, marked: 5 } }).parts[0]!
        .part.marked,
    ).toBe(5);
    expect(applyEntry(start, { type: 'remove-part', partId: 'p', seen: 0 }).parts).toEqual([]);
    const planned = applyEntry(start, { type: 'add-change', id: 'c', change: PLAN });
    expect(planned.changes).toMatchObject([{ id: 'c', version: 0, position: 0, change: PLAN }]);
    const dropped = { ...PLAN, state: 'dropped' } as const;
    expect(
      applyEntry(planned, { type: 'update-change', changeId: 'c', seen: 0, change: dropped }).changes,
    ).toMatchObject([{ version: 1, change: { state: 'dropped' } }]);
    const read = applyEntry(start, {
      type: 'add-reading',
      id: 't',
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
