import type { ProblemDocument, UnitResource } from '@halfsplit/contract';
import type { sendWrite } from './client.ts';
import { newKey, ProblemError, UnreachableError } from './client.ts';
import { rebased, requestFor, type Change, type Write } from './pending.ts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'conflict';

export interface Conflict {
  readonly write: Write;
  readonly problem: ProblemDocument;
}

export interface OutboxState {
  readonly pending: readonly Write[];
  readonly state: SaveState;
  readonly conflict: Conflict | null;
}

/** What the outbox needs of the page, so that it can be tried without one. */
export interface OutboxPorts {
  readonly store: { load(): readonly Write[]; save(writes: readonly Write[]): void };
  readonly send: typeof sendWrite;
  /** Told each unit as the server answered it. */
  readonly onUnit: (unit: UnitResource) => void;
  /** Told a write that the server refused, with its reason. */
  readonly onRefused: (write: Write, problem: ProblemDocument) => void;
  readonly wait: (milliseconds: number) => Promise<void>;
}

const FIRST_RETRY_MS = 400;
const LONGEST_RETRY_MS = 5000;

/**
 * Carries changes to the server in order, one at a time. A change stays in the store until the server has
 * acknowledged it; while the server is away it is tried again, always with the same key, so that nothing is lost
 * and nothing is done twice. A stale change stops the queue until the user has chosen.
 */
export class Outbox {
  private writes: readonly Write[];
  private state: SaveState = 'saved';
  private conflict: Conflict | null = null;
  private snapshot: OutboxState;
  private isRunning = false;
  private readonly listeners = new Set<() => void>();
  private readonly ownVersions = new Map<string, number>();
  private readonly ports: OutboxPorts;

  constructor(ports: OutboxPorts) {
    this.ports = ports;
    this.writes = ports.store.load();
    this.snapshot = {
      pending: this.writes,
      state: this.writes.length > 0 ? 'waiting' : 'saved',
      conflict: null,
    };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  getSnapshot = (): OutboxState => this.snapshot;

  add(unitId: string, change: Change): void {
    this.update([...this.writes, { key: newKey(), unitId, change }]);
    void this.run();
  }

  /** Sends what is there; called once at the start for what an earlier page left. */
  async run(): Promise<void> {
    if (this.isRunning || this.conflict) return;
    this.isRunning = true;
    let retryMs = FIRST_RETRY_MS;
    try {
      for (let write = this.writes[0]; write; write = this.writes[0]) {
        const outcome = await this.attempt(write);
        if (outcome === 'conflict' && this.conflict) return;
        if (outcome === 'unreachable') {
          this.setState('waiting');
          await this.ports.wait(retryMs);
          retryMs = Math.min(LONGEST_RETRY_MS, retryMs * 2);
        } else {
          retryMs = FIRST_RETRY_MS;
        }
      }
      this.setState('saved');
    } finally {
      this.isRunning = false;
    }
  }

  private async attempt(write: Write): Promise<'done' | 'unreachable' | 'conflict'> {
    if (this.state !== 'waiting') this.setState('saving');
    const request = requestFor(write, (id, seen) => Math.max(seen, this.ownVersions.get(id) ?? 0));
    try {
      const unit = await this.ports.send(request.method, request.path, write.key, request.body);
      this.remember(unit, write.change);
      this.ports.onUnit(unit);
      this.drop(write);
      return 'done';
    } catch (error) {
      if (error instanceof UnreachableError) return 'unreachable';
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.code === 'stale') {
        this.conflict = { write, problem: error.problem };
        this.setState('conflict');
        return 'conflict';
      }
      this.drop(write);
      this.ports.onRefused(write, error.problem);
      return 'done';
    }
  }

  /** Versions that this browser's own writes made: the next write to the same thing builds on them. */
  private remember(unit: UnitResource, change: Change): void {
    const touched = new Set<string>([unit.id]);
    if ('partId' in change && change.partId !== undefined) touched.add(change.partId);
    if ('readoutId' in change && change.readoutId !== undefined) touched.add(change.readoutId);
    if (change.type === 'accept-plan') for (const c of change.changes) touched.add(c.partId);
    if ('photoId' in change) touched.add(change.photoId);
    const things = [unit, ...unit.parts, ...unit.readouts, ...unit.photos];
    if (change.type === 'undo') for (const thing of things) touched.add(thing.id);
    for (const thing of things) {
      if (touched.has(thing.id)) this.ownVersions.set(thing.id, thing.version);
    }
  }

  /** Ends a conflict: drop the change ("theirs"), or send it on top of the newer version ("mine"). */
  resolve(choice: 'mine' | 'theirs'): void {
    const { conflict } = this;
    if (!conflict) return;
    this.conflict = null;
    const { current } = conflict.problem;
    const version = (current as { version?: number } | undefined)?.version;
    if (choice === 'theirs' || version === undefined) this.drop(conflict.write);
    else {
      const change = rebased(conflict.write.change, version);
      this.update(this.writes.map((w) => (w === conflict.write ? { ...w, key: newKey(), change } : w)));
    }
    this.setState('saving');
    void this.run();
  }

  private drop(write: Write): void {
    this.update(this.writes.filter((w) => w !== write));
  }

  private update(writes: readonly Write[]): void {
    this.writes = writes;
    this.ports.store.save(writes);
    this.publish();
  }

  private setState(state: SaveState): void {
    this.state = state;
    this.publish();
  }

  private publish(): void {
    this.snapshot = { pending: this.writes, state: this.state, conflict: this.conflict };
    for (const listener of this.listeners) listener();
  }
}
