import { EventEmitter, on } from 'node:events';
import { Client } from 'pg';

/** Channel on which a transaction tells, as it commits, whose record it has changed. */
export const EDITS_CHANNEL = 'zemble_edits';

const FIRST_RETRY_MS = 200;
const LONGEST_RETRY_MS = 5000;
/** Told to every follower when notices may have been missed. */
const ANY = '*';

/**
 * Tells which units have new edits, whichever server process on this database made them (PostgreSQL's LISTEN and NOTIFY).
 * A notice carries no edit: who follows reads on from where it stands, so that nothing is missed when a connection drops.
 */
export class EditsFeed {
  private readonly url: string;
  private readonly emitter = new EventEmitter();
  private readonly ending = new AbortController();
  /** Notices that have come: what is read after one has come holds what it tells of. */
  notices = 0;
  private client: Client | null = null;
  private retryMs = FIRST_RETRY_MS;

  private constructor(url: string) {
    this.url = url;
    this.emitter.setMaxListeners(0);
  }

  /** Listens on a database; throws when it cannot be reached the first time. */
  static async open(url: string): Promise<EditsFeed> {
    const feed = new EditsFeed(url);
    await feed.listen();
    return feed;
  }

  private async listen(): Promise<void> {
    const client = new Client({ connectionString: this.url });
    client.on('notification', ({ payload }) => this.tell(payload ?? ANY));
    client.on('error', () => undefined);
    client.on('end', () => this.again(client));
    await client.connect();
    await client.query(`LISTEN ${EDITS_CHANNEL}`);
    this.client = client;
    this.retryMs = FIRST_RETRY_MS;
  }

  private tell(payload: string): void {
    this.notices += 1;
    this.emitter.emit('edit', payload);
  }

  /** Connects anew after growing pauses, and has everybody look for what was missed. */
  private again(lost: Client): void {
    if (this.ending.signal.aborted || this.client !== lost) return;
    this.client = null;
    const attempt = () => {
      if (this.ending.signal.aborted) return;
      this.listen().then(
        () => this.tell(ANY),
        () => {
          this.retryMs = Math.min(LONGEST_RETRY_MS, this.retryMs * 2);
          setTimeout(attempt, this.retryMs).unref();
        },
      );
    };
    setTimeout(attempt, this.retryMs).unref();
  }

  /** Ids of the units followed that may have new edits, as it is told, until the follower goes or the server ends. */
  async *follow(unitIds: ReadonlySet<string>, gone: AbortSignal): AsyncGenerator<readonly string[]> {
    const signal = AbortSignal.any([gone, this.ending.signal]);
    try {
      for await (const [told] of on(this.emitter, 'edit', { signal })) {
        const id = String(told);
        if (id === ANY) yield [...unitIds];
        else if (unitIds.has(id)) yield [id];
      }
    } catch (error) {
      if (!signal.aborted) throw error;
    }
  }

  /** Lets every follower go: the server stops. */
  async close(): Promise<void> {
    this.ending.abort();
    const { client } = this;
    this.client = null;
    await client?.end();
  }
}
