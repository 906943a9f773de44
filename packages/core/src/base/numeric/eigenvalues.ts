export interface Complex {
  readonly re: number;
  readonly im: number;
}

const MOST_SWEEPS = 60;

/**
 * Eigenvalues of a real square matrix, row by row in `values` (destroyed): balancing, reduction to Hessenberg form by
 * elimination, then QR with Francis' double shift (Francis 1961; Wilkinson, The Algebraic Eigenvalue Problem).
 *
 * @returns n eigenvalues in no particular order, or null when an eigenvalue did not converge
 */
export function eigenvalues(n: number, values: Float64Array): Complex[] | null {
  const a = (r: number, c: number) => values[r * n + c]!;
  const set = (r: number, c: number, v: number) => {
    values[r * n + c] = v;
  };
  balance(n, a, set);
  hessenberg(n, a, set);
  return francis(n, a, set);
}

type Get = (r: number, c: number) => number;
type Set = (r: number, c: number, v: number) => void;

/** Scales rows and columns by powers of two until their sums are alike. */
function balance(n: number, a: Get, set: Set): void {
  for (let isChanging = true; isChanging;) {
    isChanging = false;
    for (let i = 0; i < n; i += 1) {
      let [row, column] = [0, 0];
      for (let j = 0; j < n; j += 1) {
        if (j === i) continue;
        column += Math.abs(a(j, i));
        row += Math.abs(a(i, j));
      }
      if (row === 0 || column === 0) continue;
      const factor = 2 ** Math.round(Math.log2(row / column) / 2);
      if ((column * factor + row / factor) / (column + row) > 0.95) continue;
      isChanging = true;
      for (let j = 0; j < n; j += 1) set(i, j, a(i, j) / factor);
      for (let j = 0; j < n; j += 1) set(j, i, a(j, i) * factor);
    }
  }
}

function hessenberg(n: number, a: Get, set: Set): void {
  for (let m = 1; m < n - 1; m += 1) {
    let pivot = m;
    for (let i = m + 1; i < n; i += 1) if (Math.abs(a(i, m - 1)) > Math.abs(a(pivot, m - 1))) pivot = i;
    const x = a(pivot, m - 1);
    if (pivot !== m) {
      for (let j = m - 1; j < n; j += 1) swap(a, set, pivot, j, m, j);
      for (let j = 0; j < n; j += 1) swap(a, set, j, pivot, j, m);
    }
    if (x === 0) continue;
    for (let i = m + 1; i < n; i += 1) {
      const y = a(i, m - 1) / x;
      if (y === 0) continue;
      set(i, m - 1, 0);
      for (let j = m; j < n; j += 1) set(i, j, a(i, j) - y * a(m, j));
      for (let j = 0; j < n; j += 1) set(j, m, a(j, m) + y * a(j, i));
    }
  }
}

function swap(a: Get, set: Set, r1: number, c1: number, r2: number, c2: number): void {
  const kept = a(r1, c1);
  set(r1, c1, a(r2, c2));
  set(r2, c2, kept);
}

function francis(n: number, a: Get, set: Set): Complex[] | null {
  const found: Complex[] = [];
  let norm = 0;
  for (let i = 0; i < n; i += 1) for (let j = Math.max(i - 1, 0); j < n; j += 1) norm += Math.abs(a(i, j));
  let shift = 0;
  let sweeps = 0;
  for (let last = n - 1; last >= 0;) {
    let low = last;
    for (; low > 0; low -= 1) {
      const scale = Math.abs(a(low - 1, low - 1)) + Math.abs(a(low, low)) || norm;
      if (Math.abs(a(low, low - 1)) <= Number.EPSILON * scale) {
        set(low, low - 1, 0);
        break;
      }
    }
    let x = a(last, last);
    if (low === last) {
      found.push({ re: x + shift, im: 0 });
      last -= 1;
      sweeps = 0;
      continue;
    }
    let y = a(last - 1, last - 1);
    let w = a(last, last - 1) * a(last - 1, last);
    if (low === last - 1) {
      found.push(...pair(x, y, w, shift));
      last -= 2;
      sweeps = 0;
      continue;
    }
    if (sweeps >= MOST_SWEEPS) return null;
    if (sweeps === 10 || sweeps === 20) {
      // Wilkinson's exceptional shift.
      shift += x;
      for (let i = 0; i <= last; i += 1) set(i, i, a(i, i) - x);
      const s = Math.abs(a(last, last - 1)) + Math.abs(a(last - 1, last - 2));
      x = 0.75 * s;
      y = x;
      w = -0.4375 * s * s;
    }
    sweeps += 1;
    sweep(n, a, set, low, last, x, y, w);
  }
  return found;
}

function pair(x: number, y: number, w: number, shift: number): Complex[] {
  const p = (y - x) / 2;
  const q = p * p + w;
  const root = Math.sqrt(Math.abs(q));
  const centre = x + shift;
  if (q < 0)
    return [
      { re: centre + p, im: root },
      { re: centre + p, im: -root },
    ];
  const z = p + (p < 0 ? -root : root);
  return [
    { re: centre + z, im: 0 },
    { re: z === 0 ? centre : centre - w / z, im: 0 },
  ];
}

/** One double-shifted QR sweep on rows low..last. */
function sweep(
  n: number,
  a: Get,
  set: Set,
  low: number,
  last: number,
  x: number,
  y: number,
  w: number,
): void {
  let [p, q, r] = [0, 0, 0];
  let start = last - 2;
  for (; start >= low; start -= 1) {
    const z = a(start, start);
    const [dx, dy] = [x - z, y - z];
    p = (dx * dy - w) / a(start + 1, start) + a(start, start + 1);
    q = a(start + 1, start + 1) - z - dx - dy;
    r = a(start + 2, start + 1);
    const s = Math.abs(p) + Math.abs(q) + Math.abs(r);
    [p, q, r] = [p / s, q / s, r / s];
    if (start === low) break;
    const u = Math.abs(a(start, start - 1)) * (Math.abs(q) + Math.abs(r));
    const v =
      Math.abs(p) * (Math.abs(a(start - 1, start - 1)) + Math.abs(z) + Math.abs(a(start + 1, start + 1)));
    if (u <= Number.EPSILON * v) break;
  }
  for (let i = start + 2; i <= last; i += 1) {
    set(i, i - 2, 0);
    if (i !== start + 2) set(i, i - 3, 0);
  }
  for (let k = start; k < last; k += 1) {
    let scale = 1;
    if (k !== start) {
      p = a(k, k - 1);
      q = a(k + 1, k - 1);
      r = k !== last - 1 ? a(k + 2, k - 1) : 0;
      scale = Math.abs(p) + Math.abs(q) + Math.abs(r);
      if (scale === 0) continue;
      [p, q, r] = [p / scale, q / scale, r / scale];
    }
    const s = Math.sqrt(p * p + q * q + r * r) * (p < 0 ? -1 : 1);
    if (s === 0) continue;
    if (k === start) {
      if (low !== start) set(k, k - 1, -a(k, k - 1));
    } else set(k, k - 1, -s * scale);
    p += s;
    const [fx, fy, fz] = [p / s, q / s, r / s];
    q /= p;
    r /= p;
    for (let j = k; j < n; j += 1) {
      let sum = a(k, j) + q * a(k + 1, j);
      if (k !== last - 1) {
        sum += r * a(k + 2, j);
        set(k + 2, j, a(k + 2, j) - sum * fz);
      }
      set(k + 1, j, a(k + 1, j) - sum * fy);
      set(k, j, a(k, j) - sum * fx);
    }
    const end = Math.min(last, k + 3);
    for (let i = 0; i <= end; i += 1) {
      let sum = fx * a(i, k) + fy * a(i, k + 1);
      if (k !== last - 1) {
        sum += fz * a(i, k + 2);
        set(i, k + 2, a(i, k + 2) - sum * r);
      }
      set(i, k + 1, a(i, k + 1) - sum * q);
      set(i, k, a(i, k) - sum);
    }
  }
}
