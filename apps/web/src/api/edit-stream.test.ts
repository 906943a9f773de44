import type { StreamEvent } from '@zemble/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EditStream } from './edit-stream.ts';

/** Pages of one browser talk over channels of one name; what one says all others hear. */
class Channel {
  static open: Channel[] = [];
  private readonly listeners: ((event: { data: unknown }) => void)[] = [];
  constructor(readonly name: string) {
    Channel.open.push(this);
  }
  addEventListener(_: string, listener: (event: { data: unknown }) => void): void {
    this.listeners.push(listener);
  }
  postMessage(data: unknown): void {
    for (const other of Channel.open)
      if (other !== this && other.name === this.name) for (const hear of other.listeners) hear({ data });
  }
}

/** The one lock of the browser: who asks first holds it, the others wait for it to be given back. */
class Locks {
  private readonly waiting: (() => Promise<unknown>)[] = [];
  private isHeld = false;
  request(_: string, work: () => Promise<unknown>): Promise<void> {
    this.waiting.push(work);
    if (!this.isHeld) this.give();
    return Promise.resolve();
  }
  give(): void {
    const next = this.waiting.shift();
    this.isHeld = next !== undefined;
    void next?.();
  }
}

class Source {
  static readonly CLOSED = 2;
  static opened: Source[] = [];
  readyState = 1;
  private readonly listeners: ((event: { data: string }) => void)[] = [];
  constructor(readonly url: string) {
    Source.opened.push(this);
  }
  addEventListener(_: string, listener: (event: { data: string }) => void): void {
    this.listeners.push(listener);
  }
  close(): void {
    this.readyState = Source.CLOSED;
  }
  send(news: unknown): void {
    for (const hear of this.listeners) hear({ data: JSON.stringify(news) });
  }
}

const [A, B] = ['01890a5d-ac96-774b-bcce-b302099a8057', '01890a5d-ac96-774b-bcce-b302099a8058'];
const news = (unitId: string): StreamEvent => ({ unitId, reload: true, sequence: 9 });
const followed = () => decodeURIComponent(Source.opened.at(-1)!.url.split('units=')[1]!).split(',').sort();

let locks: Locks;
/** What each page does when it is hidden for good. */
let hides: (() => void)[];
beforeEach(() => {
  vi.useFakeTimers();
  Channel.open = [];
  Source.opened = [];
  locks = new Locks();
  vi.stubGlobal('BroadcastChannel', Channel);
  vi.stubGlobal('EventSource', Source);
  vi.stubGlobal('navigator', { locks });
  hides = [];
  vi.stubGlobal('addEventListener', (_: string, hide: () => void) => hides.push(hide));
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function page() {
  const heard: StreamEvent[] = [];
  return { stream: new EditStream((n) => heard.push(n)), heard };
}
const gather = () => vi.advanceTimersByTime(100);

describe('one stream for all pages of a browser', () => {
  it('follows the units of every page from where the hindmost stands, and passes on what comes', () => {
    const [one, two, three] = [page(), page(), page()];
    one.stream.follow(A, () => 5);
    two.stream.follow(A, () => 3);
    three.stream.follow(B, () => 0);
    gather();
    expect(followed()).toEqual([`${A}:3`, `${B}:0`]);
    Source.opened.at(-1)!.send(news(A));
    for (const { heard } of [one, two, three]) expect(heard).toEqual([news(A)]);
    expect(Source.opened.filter((s) => s.readyState === 1)).toHaveLength(1);
  });

  it('leaves a unit that no page shows any more', () => {
    const [one, two] = [page(), page()];
    one.stream.follow(A, () => 1);
    const leave = two.stream.follow(B, () => 1);
    gather();
    expect(followed()).toEqual([`${A}:1`, `${B}:1`]);
    leave();
    gather();
    expect(followed()).toEqual([`${A}:1`]);
  });

  it('is opened anew by another page, from where it stands then, when the one that held it goes', () => {
    const [one, two] = [page(), page()];
    one.stream.follow(A, () => 1);
    let at = 1;
    two.stream.follow(B, () => at);
    gather();
    const before = Source.opened.length;
    at = 7;
    hides[0]!();
    // The browser gives the lock of a page that is gone to the next.
    Channel.open.shift();
    locks.give();
    gather();
    expect(Source.opened.length).toBe(before + 1);
    expect(followed()).toEqual([`${B}:7`]);
    Source.opened.at(-1)!.send(news(B));
    expect(two.heard).toEqual([news(B)]);
  });

  it('takes nothing in that it cannot read', () => {
    const one = page();
    one.stream.follow(A, () => 1);
    gather();
    Source.opened.at(-1)!.send({ unitId: 'nonsense', edits: [] });
    expect(one.heard).toEqual([]);
  });
});
