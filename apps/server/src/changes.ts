import { EventEmitter, on } from 'node:events';

/** Tells those who have a unit open that it has changed. One server process serves a bench, so that memory will do. */
export class UnitChanges {
  private readonly emitter = new EventEmitter();
  private readonly ending = new AbortController();

  constructor() {
    this.emitter.setMaxListeners(0);
  }

  /** A unit has a new version, committed. */
  tell(unitId: string, version: number): void {
    this.emitter.emit(unitId, version);
  }

  /** Versions of a unit as they come, until the listener goes or the server ends. */
  async *follow(unitId: string, gone: AbortSignal): AsyncGenerator<number> {
    const signal = AbortSignal.any([gone, this.ending.signal]);
    try {
      for await (const [version] of on(this.emitter, unitId, { signal })) yield version as number;
    } catch (error) {
      if (!signal.aborted) throw error;
    }
  }

  /** Lets every listener go: the server stops. */
  end(): void {
    this.ending.abort();
  }
}
