import type { Step } from '@zemble/contract';
import { netsOf, type Circuit } from '../circuit/index.ts';
import { namesIn } from './places.ts';

type Named = Pick<Circuit, 'parts' | 'ground' | 'changes'> & {
  /** Nets that were joined to others: their names are still known. */
  readonly renamed?: ReadonlyMap<string, string>;
};

/** Designators and nets that a circuit does not have yet, its planned and its temporary changes counted in. */
export class FreeNames {
  private readonly refs: Set<string>;
  private readonly nets: Set<string>;

  /** @param circuits the circuit as it came with its changes, and what was made of it */
  constructor(...circuits: readonly Named[]) {
    const brought = circuits.map((c) => namesIn(c.changes ?? []));
    const refs = circuits.flatMap((c) => c.parts.map((p) => p.ref));
    this.refs = new Set([...refs, ...brought.flatMap((b) => b.refs)].map((ref) => ref.toUpperCase()));
    this.nets = new Set([
      ...circuits.flatMap((c) => [...netsOf(c), ...(c.renamed?.keys() ?? [])]),
      ...brought.flatMap((b) => b.nets),
    ]);
  }

  /** Takes the names that steps bring in. */
  take(steps: readonly Step[]): void {
    const { refs, nets } = namesIn([{ steps }]);
    for (const ref of refs) this.refs.add(ref.toUpperCase());
    for (const net of nets) this.nets.add(net);
  }

  /** The next designator that is free, "R31", taken from now on. */
  ref(letters: string): string {
    const own = new RegExp(`^${letters}(\\d+)$`, 'i');
    const numbers = [...this.refs].map((ref) => Number(own.exec(ref)?.[1] ?? 0));
    const ref = `${letters}${Math.max(0, ...numbers) + 1}`;
    this.refs.add(ref.toUpperCase());
    return ref;
  }

  /** A net that is not there yet, taken from now on: as wished; otherwise a number at its end counts on, or is put there. */
  net(wish: string): string {
    const [, stem = wish, digits = ''] = /^(.*?)(\d*)$/.exec(wish) ?? [];
    for (let n = digits === '' ? 1 : Number(digits); ; n += 1) {
      const net = n === 1 && digits === '' ? wish : `${stem}${n}`;
      if (this.nets.has(net)) continue;
      this.nets.add(net);
      return net;
    }
  }
}
