import { ohmic, VT, type Element } from './element.ts';

/** From every net to the ground, so that it has a voltage, S. */
const HOLDING_S = 1e-12;
const VOLTMETER_OHM = 10e6;

/** Solves a dense system by Gauss with exchange of rows; both are destroyed. */
export function gauss(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let k = 0; k < n; k += 1) {
    let top = k;
    for (let r = k + 1; r < n; r += 1) if (Math.abs(a[r]![k]!) > Math.abs(a[top]![k]!)) top = r;
    [a[k], a[top]] = [a[top]!, a[k]!];
    [b[k], b[top]] = [b[top]!, b[k]!];
    for (let r = k + 1; r < n; r += 1) {
      const factor = a[r]![k]! / a[k]![k]!;
      if (factor === 0) continue;
      for (let c = k; c < n; c += 1) a[r]![c]! -= factor * a[k]![c]!;
      b[r]! -= factor * b[k]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k -= 1) {
    let sum = b[k]!;
    for (let c = k + 1; c < n; c += 1) sum -= a[k]![c]! * x[c]!;
    x[k] = sum / a[k]![k]!;
  }
  return x;
}

/** Voltages with a current driven into a net, by net; null where Newton's method does not come to rest. */
export class Nodal {
  private readonly elements: readonly Element[];
  private readonly ground: string;
  private readonly index = new Map<string, number>();
  private last: number[];

  constructor(elements: readonly Element[], ground: string) {
    this.elements = elements;
    this.ground = ground;
    for (const element of elements)
      for (const net of element.nets)
        if (net !== ground && !this.index.has(net)) this.index.set(net, this.index.size);
    this.last = new Array<number>(this.index.size).fill(0);
  }

  has(net: string): boolean {
    return this.index.has(net);
  }

  at(x: readonly number[], net: string): number {
    const k = this.index.get(net);
    return k === undefined ? 0 : x[k]!;
  }

  /** Voltages with a meter's resistance at a net, from those without it or with less gain in the amplifiers. */
  solvePowered(net: string | null, start: readonly number[] | null): number[] | null {
    const loaded =
      net === null
        ? this
        : new Nodal([...this.elements, ...ohmic(net, this.ground, VOLTMETER_OHM)], this.ground);
    return loaded.newton(start ?? new Array<number>(this.index.size).fill(0), '', 0, HOLDING_S);
  }

  solve(into: string, ampere: number): number[] | null {
    let x = [...this.last];
    for (const hold of [1e-6, 1e-9, HOLDING_S]) {
      const next =
        this.newton(x, into, ampere, hold) ??
        (hold > HOLDING_S ? null : this.newton(new Array<number>(x.length).fill(0), into, ampere, hold));
      if (next) x = next;
      else if (hold === HOLDING_S) return null;
    }
    this.last = x;
    return x;
  }

  private newton(start: readonly number[], into: string, ampere: number, hold: number): number[] | null {
    const n = start.length;
    const x = [...start];
    for (let round = 0; round < 400; round += 1) {
      const a = Array.from({ length: n }, (_, k) => {
        const row = new Array<number>(n).fill(0);
        row[k] = hold;
        return row;
      });
      const b = x.map((v) => -hold * v);
      const target = this.index.get(into);
      if (target !== undefined) b[target]! += ampere;
      for (const { nets, law } of this.elements) {
        const at = nets.map((net) => this.index.get(net) ?? -1);
        const { i, g } = law(at.map((k) => (k < 0 ? 0 : x[k]!)));
        at.forEach((row, r) => {
          if (row < 0) return;
          b[row]! -= i[r]!;
          at.forEach((column, c) => {
            if (column >= 0) a[row]![column]! += g[r]![c]!;
          });
        });
      }
      const step = gauss(a, b);
      if (step.some((s) => !Number.isFinite(s))) return null;
      let share = 1;
      for (const { nets, stepV, inputV } of this.elements) {
        if (inputV !== undefined) {
          const [plus, minus] = nets as [string, string];
          const move = Math.abs(this.at(step, plus) - this.at(step, minus));
          const before = Math.abs(this.at(x, plus) - this.at(x, minus));
          const most = Math.max(inputV, 0.7 * before);
          if (move > most) share = Math.min(share, most / move);
        }
        if (stepV === undefined) continue;
        const moves = nets.map((net) => this.at(step, net));
        const values = nets.map((net) => this.at(x, net));
        for (let p = 0; p < nets.length; p += 1)
          for (let q = 0; q < p; q += 1) {
            const [before, move] = [values[p]! - values[q]!, moves[p]! - moves[q]!];
            const isNear = Math.max(Math.abs(before), Math.abs(before + move)) > 8 * VT;
            if (isNear && Math.abs(move) > stepV)
              share = Math.min(share, Math.max(stepV / Math.abs(move), 0.02));
          }
      }
      let largest = 0;
      for (let k = 0; k < n; k += 1) {
        x[k]! += share * step[k]!;
        largest = Math.max(largest, Math.abs(share * step[k]!) / (1e-7 + 1e-7 * Math.abs(x[k]!)));
      }
      if (share === 1 && largest < 1) return x;
    }
    return null;
  }
}
