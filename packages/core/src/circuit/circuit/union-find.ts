/** Disjoint sets of names, with path halving. */
export class UnionFind {
  private readonly parent = new Map<string, string>();

  find(name: string): string {
    let at = name;
    for (;;) {
      const up = this.parent.get(at);
      if (up === undefined || up === at) return at;
      const next = this.parent.get(up) ?? up;
      this.parent.set(at, next);
      at = next;
    }
  }

  /** Joins two sets; false when they were one already. */
  join(a: string, b: string): boolean {
    const ra = this.find(a);
    const rb = this.find(b);
    if (ra === rb) return false;
    this.parent.set(rb, ra);
    return true;
  }
}
