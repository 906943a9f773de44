import { ApiError } from './errors.ts';

/**
 * Lets so many of something heavy run at a time; more wait in the order in which they came, and one beyond those is refused, so
 * that no flood of them takes what all others need.
 */
export class AtATime {
  private readonly most: number;
  private readonly mostWaiting: number;
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(most: number, mostWaiting: number) {
    this.most = most;
    this.mostWaiting = mostWaiting;
  }

  /** Runs the work when its turn has come. Throws 429 where too many wait already. */
  async run<T>(work: () => Promise<T>): Promise<T> {
    if (this.running >= this.most) {
      if (this.waiting.length >= this.mostWaiting)
        throw new ApiError(
          'too-many',
          'Too many of these are asked for at once.',
          'Wait a moment, then ask again.',
        );
      // Whoever ends hands its place on.
      await new Promise<void>((resolve) => this.waiting.push(resolve));
    } else this.running += 1;
    try {
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.running -= 1;
    }
  }
}
