import { newId } from './new-id.ts';
import { API_ROOT, streamEventSchema, type StreamEvent } from '@zemble/contract';

/** What pages of one browser say to each other of the stream that they share. */
type Message =
  /** A page shows a unit, and has its record up to a sequence. */
  | { readonly kind: 'follow'; readonly page: string; readonly unitId: string; readonly sequence: number }
  | { readonly kind: 'leave'; readonly page: string }
  /** The page that holds the stream asks who follows what. */
  | { readonly kind: 'who' }
  | { readonly kind: 'news'; readonly news: StreamEvent };

const CHANNEL = 'zemble-edits';
const LOCK = 'zemble-edits';
/** Pages say again what they follow, and those that were not heard of for longer are gone, ms. */
const HEARTBEAT_MS = 20_000;
const GONE_MS = 3 * HEARTBEAT_MS;
/** Changes of what is followed within this time open one new stream, ms. */
const GATHER_MS = 50;

interface Follower {
  readonly unitId: string;
  readonly sequence: number;
  readonly heardAt: number;
}

/**
 * One stream of edits for all pages of a browser, so that any number of them can be open: the page that holds the lock has
 * it, and passes on what comes; when that page goes, another takes over and reads on from where its followers stand.
 */
export class EditStream {
  // Not by the browser's own function: it is missing where a page came without TLS, as on a phone in the workshop.
  private readonly page = newId();
  private readonly channel = new BroadcastChannel(CHANNEL);
  private readonly onNews: (news: StreamEvent) => void;
  private own: { readonly unitId: string; readonly sequence: () => number } | null = null;
  /** Of every page, this one included, when this page holds the stream. */
  private readonly followers = new Map<string, Follower>();
  private isLeading = false;
  private source: EventSource | null = null;
  private opened = '';
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(onNews: (news: StreamEvent) => void) {
    this.onNews = onNews;
    this.channel.addEventListener('message', ({ data }: MessageEvent<Message>) => this.hear(data));
    setInterval(() => this.sayAgain(), HEARTBEAT_MS);
    addEventListener('pagehide', () =>
      this.channel.postMessage({ kind: 'leave', page: this.page } satisfies Message),
    );
    if ('locks' in navigator) void navigator.locks.request(LOCK, () => this.lead());
    else void this.lead();
  }

  /** Follows a unit until the answer is called; `sequence` tells how far the page has its record. */
  follow(unitId: string, sequence: () => number): () => void {
    const own = { unitId, sequence };
    this.own = own;
    this.sayAgain();
    return () => {
      if (this.own !== own) return;
      this.own = null;
      this.say({ kind: 'leave', page: this.page });
    };
  }

  private say(message: Message): void {
    this.channel.postMessage(message);
    if (this.isLeading) this.hear(message);
  }

  private sayAgain(): void {
    if (this.own)
      this.say({ kind: 'follow', page: this.page, unitId: this.own.unitId, sequence: this.own.sequence() });
    if (this.isLeading) this.gather();
  }

  private hear(message: Message): void {
    switch (message.kind) {
      case 'news':
        this.onNews(message.news);
        return;
      case 'who':
        this.sayAgain();
        return;
      case 'follow': {
        const { page, unitId, sequence } = message;
        this.followers.set(page, { unitId, sequence, heardAt: Date.now() });
        this.gather();
        return;
      }
      case 'leave':
        this.followers.delete(message.page);
        this.gather();
    }
  }

  /** Holds the stream for as long as this page lives. */
  private lead(): Promise<never> {
    this.isLeading = true;
    this.channel.postMessage({ kind: 'who' } satisfies Message);
    this.sayAgain();
    return new Promise(() => undefined);
  }

  private gather(): void {
    if (!this.isLeading) return;
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.open();
    }, GATHER_MS);
  }

  /** Opens the stream anew where other units are followed, each from where its hindmost follower stands. */
  private open(): void {
    const places = new Map<string, number>();
    for (const [page, { unitId, sequence, heardAt }] of this.followers) {
      if (Date.now() - heardAt > GONE_MS) this.followers.delete(page);
      else places.set(unitId, Math.min(sequence, places.get(unitId) ?? sequence));
    }
    const wanted = [...places.keys()].sort().join(' ');
    if (wanted === this.opened && this.source?.readyState !== EventSource.CLOSED) return;
    this.opened = wanted;
    this.source?.close();
    this.source = null;
    if (places.size === 0) return;
    const units = [...places].map(([id, at]) => `${id}:${at}`).join(',');
    this.source = new EventSource(`${API_ROOT}/events?units=${units}`);
    this.source.addEventListener('edits', (event: MessageEvent<string>) => {
      const read = streamEventSchema.safeParse(JSON.parse(event.data));
      if (!read.success) return;
      this.channel.postMessage({ kind: 'news', news: read.data } satisfies Message);
      this.onNews(read.data);
    });
  }
}
