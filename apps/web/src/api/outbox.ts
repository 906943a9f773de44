import type { Edit, ProblemDocument } from '@zemble/contract';
import type { AnyAnswer, sendWrite } from './client.ts';
import { ProblemError, UnreachableError } from './client.ts';
import { inOrder, type OutboxStore } from './outbox-store.ts';
import { requestFor, type Entry, type Write } from './act.ts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'conflict' | 'parked';

export interface Conflict {
  readonly write: Write;
  readonly problem: ProblemDocument;
}

export interface OutboxState {
  /** On their way, in order. */
  readonly pending: readonly Write[];
  /** Refused for good: whoever typed them corrects, copies or discards them. */
  readonly parked: readonly Write[];
  readonly state: SaveState;
  readonly conflict: Conflict | null;
  /** What somebody else entered here: never sent under one's own name, until it is handed over or discarded. */
  readonly ofOthers: readonly Write[];
  /** Kept here, and of a form that this version cannot read: as text, to be copied. */
  readonly unreadable: readonly string[];
  /** Why nothing can be kept in this browser; what is entered is then only safe once the server has it. */
  readonly notKept: string | null;
}

/** Who is at this page: null where people have no names, undefined while it is not known. */
export type Me = string | null | undefined;

/** What pages of one browser tell each other of the outbox that they share. */
export type Told = 'changed' | 'waiting' | { readonly answer: AnyAnswer; readonly write: Write };

/** What the outbox needs of the page, so that it can be tried without one. */
export interface OutboxPorts {
  readonly store: OutboxStore;
  readonly send: typeof sendWrite;
  /** Told each answer of the server, and to what; it is done when what is shown holds what was answered. */
  readonly onAnswer: (answer: AnyAnswer, write: Write) => Promise<void>;
  /** Told a write that the server refused for good. */
  readonly onRefused: (write: Write, problem: ProblemDocument) => void;
  readonly wait: (milliseconds: number) => Promise<void>;
  /** A key that nothing had before. */
  readonly newKey: () => string;
  /** A clock that never goes back, ms. */
  readonly now: () => number;
  /** Runs something while no other page of this browser sends. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  /** Whether the server answers at all. */
  readonly isServerThere: () => Promise<boolean>;
  /** Tells the other pages of this browser that the store has changed, or that the server is away. */
  readonly tell: (what: Told) => void;
}

/** An entry at which the server fails so often, while it answers otherwise, is set aside: what stands behind it goes on. */
const MOST_FAILURES = 5;
const FIRST_RETRY_MS = 400;
const LONGEST_RETRY_MS = 30_000;

/**
 * Carries changes to the server, each unit's in the order in which they were made. A change stays in the store, which all
 * pages of a browser share, until the server has acknowledged it; one page sends at a time. What fails for now is tried
 * again after growing pauses, with the same key, so that nothing is lost and nothing is done twice; what the server refuses
 * for good is parked, and stops nothing else. A stale change stops its unit's lane until the user has chosen.
 */
export class Outbox {
  private writes: readonly Write[] = [];
  private conflicts: readonly Conflict[] = [];
  private isWaiting = false;
  /** Whether it is known what is kept: before that, nothing is said to be saved. */
  private isRead = false;
  private notKept: string | null = null;
  private unreadable: readonly string[] = [];
  private me: Me;
  /** How often the server has failed at an entry, by its key. */
  private readonly failures = new Map<string, number>();
  private isRunning = false;
  private isAskedAgain = false;
  /** Units whose oldest change failed for now: how long their lane rests, and until when. No other lane waits for it. */
  private readonly resting = new Map<string, { readonly pauseMs: number; readonly until: number }>();
  /** Ends a pause: something new is there to be sent. */
  private wake: (() => void) | null = null;
  /** Done, but perhaps still in what was just loaded. */
  private readonly done = new Set<string>();
  private snapshot: OutboxState;
  private readonly listeners = new Set<() => void>();
  private readonly ports: OutboxPorts;

  constructor(ports: OutboxPorts) {
    this.ports = ports;
    this.snapshot = this.stateNow();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  getSnapshot = (): OutboxState => this.snapshot;

  /**
   * Takes a change in: shown at once, kept as soon as the browser has it, then sent; under a key, where it was tried under
   * that. Done when the browser has it, or has said that it keeps nothing (`notKept`).
   */
  async add(unitId: string, change: Entry, key?: string): Promise<void> {
    await this.take(unitId, change, key);
    void this.run();
  }

  /** Whether something is neither kept in this browser nor on the server: it would be lost with the page. */
  hasUnkept(): boolean {
    return this.writes.some((w) => this.unkept.has(w.key));
  }

  /** Says who is at the page: what others entered is not sent under this name. */
  setMe(me: Me): void {
    if (this.me === me) return;
    this.me = me;
    this.publish();
    void this.run();
  }

  private take(unitId: string, change: Entry, key = this.ports.newKey()): Promise<void> {
    const whose = typeof this.me === 'string' ? { personId: this.me } : {};
    const write: Write = { key, unitId, change, ...whose };
    this.unkept.add(key);
    this.set([...this.writes, write]);
    return this.keep(write);
  }

  /** What another page, the one that sends, tells. */
  hear(told: Told): void {
    if (told === 'waiting') {
      this.isWaiting = true;
      this.publish();
      return;
    }
    // One after the other: what was answered is shown before it is gone from what is kept.
    this.heard = this.heard.then(async () => {
      if (told !== 'changed') return this.ports.onAnswer(told.answer, told.write);
      await this.read();
      void this.run();
    });
  }

  private heard: Promise<void> = Promise.resolve();

  /** Reads what is kept, by this page or another, and sends what there is. */
  async load(): Promise<void> {
    await this.read();
    await this.run();
  }

  private async read(): Promise<void> {
    try {
      const { writes, unreadable } = await this.ports.store.load();
      const kept = new Map(writes.filter((w) => !this.done.has(w.key)).map((w) => [w.key, w]));
      // What this page has just made may not be in the store yet.
      const own = this.writes.filter((w) => !kept.has(w.key) && this.unkept.has(w.key));
      this.conflicts = this.conflicts.filter((c) => kept.has(c.write.key) || this.unkept.has(c.write.key));
      this.set([...[...kept.values()].sort(inOrder), ...own]);
      this.unreadable = unreadable.map((record) => JSON.stringify(record));
    } catch (error) {
      this.notKept = whyNotKept(error);
    }
    this.isRead = true;
    this.publish();
  }

  private readonly unkept = new Set<string>();

  private async keep(write: Write): Promise<void> {
    this.unkept.add(write.key);
    try {
      const placed = await this.ports.store.put(write);
      this.unkept.delete(write.key);
      this.writes = this.writes.map((w) =>
        w.key === write.key && w.order === undefined ? { ...w, order: placed.order } : w,
      );
      if (this.notKept !== null) this.notKept = null;
    } catch (error) {
      this.notKept = whyNotKept(error);
    }
    this.publish();
    this.ports.tell('changed');
  }

  /** Sends what there is; a call while it is sending has it look again. */
  async run(): Promise<void> {
    this.isAskedAgain = true;
    this.wake?.();
    if (this.isRunning) return;
    this.isRunning = true;
    try {
      // Asked while the turn is being given back, it takes another.
      while (this.isAskedAgain)
        await this.ports.alone(async () => {
          while (this.isAskedAgain) {
            this.isAskedAgain = false;
            await this.drain();
          }
        });
    } finally {
      this.isRunning = false;
      this.publish();
    }
  }

  /** Sends every lane until nothing is left, or all that is left waits for a choice. A lane that failed for now rests alone. */
  private async drain(): Promise<void> {
    for (;;) {
      const write = this.next();
      if (write) await this.send(write);
      else if (!(await this.rest())) return;
    }
  }

  private async send(write: Write): Promise<void> {
    const { unitId } = write;
    if ((await this.attempt(write)) !== 'later') {
      this.resting.delete(unitId);
      return;
    }
    const last = this.resting.get(unitId)?.pauseMs ?? FIRST_RETRY_MS / 2;
    const pauseMs = Math.min(LONGEST_RETRY_MS, last * 2);
    this.resting.set(unitId, { pauseMs, until: this.ports.now() + pauseMs });
  }

  /** Waits until a lane may be tried again, or something new is there to be sent. False when nothing rests. */
  private async rest(): Promise<boolean> {
    const waiting = new Set(
      this.writes.filter((w) => w.refusal === undefined && this.isMine(w)).map((w) => w.unitId),
    );
    const ends = [...this.resting].flatMap(([unitId, { until }]) => (waiting.has(unitId) ? [until] : []));
    if (ends.length === 0) return false;
    this.hear('waiting');
    this.ports.tell('waiting');
    let isWoken = false;
    const woken = new Promise<void>((resolve) => {
      this.wake = () => {
        isWoken = true;
        resolve();
      };
    });
    const soonest = Math.min(...ends);
    await Promise.race([this.ports.wait(Math.max(0, soonest - this.ports.now())), woken]);
    this.wake = null;
    // A pause that ended by itself before its time: the network is back, and nobody need wait any longer.
    if (!isWoken && this.ports.now() < soonest)
      for (const [unitId, { pauseMs }] of this.resting) this.resting.set(unitId, { pauseMs, until: 0 });
    return true;
  }

  /** The oldest change of a unit whose lane is free. */
  private next(): Write | undefined {
    const stopped = new Set(this.conflicts.map((c) => c.write.unitId));
    const now = this.ports.now();
    return this.writes.find(
      (w) =>
        w.refusal === undefined &&
        this.isMine(w) &&
        !stopped.has(w.unitId) &&
        (this.resting.get(w.unitId)?.until ?? 0) <= now,
    );
  }

  /** Whether it may be sent by who is here: it is theirs, or nobody's. */
  private isMine({ personId }: Write): boolean {
    return personId === undefined || personId === this.me || this.me === null;
  }

  private async attempt(write: Write): Promise<'done' | 'later' | 'conflict'> {
    this.publish();
    const { method, path, body } = requestFor(write);
    try {
      const answer = await this.ports.send(method, path, write.key, body);
      this.ports.tell({ answer, write });
      // It stays until what the server has is shown: in between, a next entry would be on top of what was before.
      await this.ports.onAnswer(answer, write);
      await this.drop(write.key);
      return 'done';
    } catch (error) {
      if (!(error instanceof ProblemError)) return (await this.isHopeless(write, error)) ? 'done' : 'later';
      const { problem } = error;
      if (problem.code === 'stale') {
        this.conflicts = [...this.conflicts, { write, problem }];
        this.publish();
        return 'conflict';
      }
      if (isForNow(problem.status)) return 'later';
      await this.park(write, problem);
      return 'done';
    }
  }

  /** Whether the server fails at just this entry, again and again: then it is set aside, as one that was refused. */
  private async isHopeless(write: Write, error: unknown): Promise<boolean> {
    if (!(error instanceof UnreachableError) || error.status === null) return false;
    const failures = (this.failures.get(write.key) ?? 0) + 1;
    this.failures.set(write.key, failures);
    if (failures < MOST_FAILURES || !(await this.ports.isServerThere())) return false;
    this.failures.delete(write.key);
    await this.park(write, {
      type: 'about:blank',
      title: 'The server failed',
      status: error.status,
      detail: `The server failed at this ${MOST_FAILURES} times, while it answers otherwise.`,
      code: 'server-error',
      hint: 'Try it again later, or copy what you entered and discard it; what stood behind it goes on.',
    });
    return true;
  }

  private async park(write: Write, problem: ProblemDocument): Promise<void> {
    const parked = { ...write, refusal: problem };
    this.set(this.writes.map((w) => (w.key === write.key ? parked : w)));
    this.ports.onRefused(write, problem);
    await this.keep(parked);
  }

  /** Edits that came back by any way: what they carried is on the server. */
  settled(edits: readonly Edit[]): void {
    const keys = new Set(edits.map((e) => e.key));
    for (const write of this.writes) if (keys.has(write.key)) void this.drop(write.key);
  }

  /** Ends a conflict: drop the change ("theirs"), or send it on top of what is there now ("mine"). */
  async resolve(choice: 'mine' | 'theirs'): Promise<void> {
    const [conflict] = this.conflicts;
    if (!conflict) return;
    const { write, problem } = conflict;
    this.conflicts = this.conflicts.filter((c) => c !== conflict);
    if (choice === 'theirs') await this.drop(write.key);
    else {
      // In its old place and under its old key: the server has carried nothing out under it.
      const { rebased } = await import('./rebased.ts');
      const change = rebased(write.change, (problem.current ?? {}) as object);
      const mine = { ...write, change };
      this.set(this.writes.map((w) => (w.key === write.key ? mine : w)));
      await this.keep(mine);
    }
    this.publish();
    await this.run();
  }

  /** Sends a parked change again, as it was or corrected. */
  async again(key: string, change?: Entry): Promise<void> {
    const parked = this.writes.find((w) => w.key === key);
    if (!parked) return;
    // Kept under its new key before the old one goes: a page that is closed in between loses nothing.
    await this.take(parked.unitId, change ?? parked.change);
    await this.drop(key);
    await this.run();
  }

  /** Sends what somebody else entered here under one's own name. */
  async handOver(key: string): Promise<void> {
    const write = this.writes.find((w) => w.key === key);
    if (!write) return;
    const { personId: _theirs, ...rest } = write;
    const mine = typeof this.me === 'string' ? { ...rest, personId: this.me } : rest;
    this.set(this.writes.map((w) => (w.key === key ? mine : w)));
    await this.keep(mine);
    await this.run();
  }

  /** Lets a parked change go. */
  discard(key: string): Promise<void> {
    return this.drop(key);
  }

  private async drop(key: string): Promise<void> {
    this.done.add(key);
    this.unkept.delete(key);
    this.set(this.writes.filter((w) => w.key !== key));
    await this.ports.store.remove(key).catch(() => undefined);
    this.ports.tell('changed');
  }

  private set(writes: readonly Write[]): void {
    // Something has got through: the server is back.
    if (this.writes.some((w) => !writes.some((kept) => kept.key === w.key))) this.isWaiting = false;
    this.writes = writes;
    this.publish();
  }

  private stateNow(): OutboxState {
    const last = this.snapshot as OutboxState | undefined;
    const open = this.writes.filter((w) => w.refusal === undefined);
    const isHeld = (w: Write) => !this.isMine(w) && this.me !== undefined;
    const pending = kept(
      last?.pending,
      open.filter((w) => !isHeld(w)),
    );
    const ofOthers = kept(last?.ofOthers, open.filter(isHeld));
    const parked = kept(
      last?.parked,
      this.writes.filter((w) => w.refusal !== undefined),
    );
    const [conflict = null] = this.conflicts;
    const state: SaveState = conflict
      ? 'conflict'
      : pending.length > 0
        ? this.isWaiting && (this.notKept !== null || !this.hasUnkept())
          ? 'waiting'
          : 'saving'
        : parked.length + ofOthers.length > 0
          ? 'parked'
          : this.isRead
            ? 'saved'
            : 'saving';
    return { pending, parked, ofOthers, unreadable: this.unreadable, state, conflict, notKept: this.notKept };
  }

  private publish(): void {
    this.snapshot = this.stateNow();
    for (const listener of this.listeners) listener();
  }
}

/** A list as it was before, where it holds the same: whoever depends on it has nothing to do. */
const kept = (before: readonly Write[] | undefined, now: readonly Write[]): readonly Write[] =>
  before?.length === now.length && now.every((write, i) => isSameEntry(write, before[i]!)) ? before : now;
/** Its place in the store changes nothing of what it does. */
const isSameEntry = (a: Write, b: Write): boolean =>
  a.key === b.key && a.change === b.change && a.refusal === b.refusal && a.personId === b.personId;

const UNAUTHORIZED = 401;
const TOO_MANY = 429;
const TIMEOUT = 408;
const SERVER_ERROR = 500;
/** What may pass by itself, or when somebody has signed in again. */
const isForNow = (status: number): boolean =>
  status >= SERVER_ERROR || status === TOO_MANY || status === UNAUTHORIZED || status === TIMEOUT;

function whyNotKept(error: unknown): string {
  const isFull = error instanceof DOMException && error.name === 'QuotaExceededError';
  return isFull
    ? 'The disk of this device is full: what you enter is only safe once it says saved.'
    : 'This browser keeps nothing, as in a private window: what you enter is only safe once it says saved.';
}
