import type { Part } from '../../circuit/circuit/index.ts';
import type { Companions } from './companions.ts';
import type { SymbolSheet } from './symbol-sheet.ts';
import type { Placement } from './symbols.ts';

/** What of a strip that is kept for wires its parts take at either end. */
const STRIP_ENDS = 4;

/** Places of figures on a sheet: who waits for whom, whether all of a figure has room, and bringing what goes with a part. */
export class FigurePlaces {
  private readonly companions: Companions;
  private readonly byRef: ReadonlyMap<string, Part>;
  private readonly sheet: SymbolSheet;
  private readonly leaders = new Map<string, readonly string[]>();

  constructor(companions: Companions, byRef: ReadonlyMap<string, Part>, sheet: SymbolSheet) {
    this.companions = companions;
    this.byRef = byRef;
    this.sheet = sheet;
    for (const [leader, list] of companions.byLeader)
      for (const { ref } of list) this.leaders.set(ref, [...(this.leaders.get(ref) ?? []), leader]);
  }

  /** Whether a part's place is beside another that has none yet; of two that go by each other the first reached is put. */
  waits({ ref }: Part): boolean {
    const goesBy = (other: string) =>
      this.companions.byLeader.get(ref)?.some((c) => c.ref === other) === true;
    return (
      this.leaders
        .get(ref)
        ?.some((leader) => this.byRef.has(leader) && !this.sheet.at(leader) && !goesBy(leader)) === true
    );
  }

  /** Whether there is room for all that stands beside a part in its figure. */
  hasRoom({ ref }: Part, at: Placement): boolean {
    return this.open(ref).every(({ part, places }) =>
      places(at, this.sheet.at).some((place) => this.sheet.isFree(part, place)),
    );
  }

  /** Puts what stands beside a part in its figure, each in the first of its places that is free. */
  bring({ ref }: Part, at: Placement, put: (part: Part, at: Placement) => void): void {
    for (const { part, places } of this.open(ref)) {
      const free = places(at, this.sheet.at).find((place) => this.sheet.isFree(part, place));
      if (free) put(part, free);
    }
    const columns = this.companions.kept.get(ref);
    if (columns === undefined) return;
    const [left, right] = [at.x - columns + STRIP_ENDS, at.x - STRIP_ENDS];
    this.sheet.keep({ left, right, top: at.y - 1, bottom: at.y + 1 });
  }

  /** What goes with a part and has no place yet. */
  private open(leader: string) {
    return (this.companions.byLeader.get(leader) ?? []).flatMap(({ ref, places }) => {
      const part = this.byRef.get(ref);
      return part && !this.sheet.at(ref) ? [{ part, places }] : [];
    });
  }
}
