/**
 * Solves A x = b where only products with A are to be had: the generalised minimal residual method (Saad and Schultz
 * 1986) with modified Gram-Schmidt, without restart.
 *
 * @param multiply writes A v into `out`; both have the length of b
 * @param most dimension of the largest Krylov space
 * @param tolerance residual against b at which the search ends
 * @returns x and the residual that is left, as a part of the norm of b
 */
export function gmres(
  multiply: (v: Float64Array, out: Float64Array) => void,
  b: Float64Array,
  most: number,
  tolerance: number,
): { x: Float64Array; residual: number } {
  const n = b.length;
  const x = new Float64Array(n);
  const size = norm(b);
  if (size === 0) return { x, residual: 0 };
  const basis: Float64Array[] = [b.map((v) => v / size)];
  const columns: Float64Array[] = [];
  const rotations: { c: number; s: number }[] = [];
  const rest = [size];
  const work = new Float64Array(n);
  for (let k = 0; k < most; k += 1) {
    multiply(basis[k]!, work);
    const next = Float64Array.from(work);
    const column = new Float64Array(k + 2);
    for (let i = 0; i <= k; i += 1) {
      const v = basis[i]!;
      const part = dot(next, v);
      column[i] = part;
      for (let j = 0; j < n; j += 1) next[j] = next[j]! - part * v[j]!;
    }
    const length = norm(next);
    column[k + 1] = length;
    rotations.forEach(({ c, s }, i) => {
      const [upper, lower] = [column[i]!, column[i + 1]!];
      column[i] = c * upper + s * lower;
      column[i + 1] = -s * upper + c * lower;
    });
    const radius = Math.hypot(column[k]!, column[k + 1]!);
    if (radius === 0) break;
    const [c, s] = [column[k]! / radius, column[k + 1]! / radius];
    rotations.push({ c, s });
    column[k] = radius;
    column[k + 1] = 0;
    rest.push(-s * rest[k]!);
    rest[k] = c * rest[k]!;
    columns.push(column);
    if (Math.abs(rest[k + 1]!) <= tolerance * size || length <= Number.EPSILON * radius) break;
    basis.push(next.map((v) => v / length));
  }
  const count = columns.length;
  const y = new Float64Array(count);
  for (let i = count - 1; i >= 0; i -= 1) {
    let sum = rest[i]!;
    for (let j = i + 1; j < count; j += 1) sum -= columns[j]![i]! * y[j]!;
    y[i] = sum / columns[i]![i]!;
  }
  for (let i = 0; i < count; i += 1) {
    const v = basis[i]!;
    for (let j = 0; j < n; j += 1) x[j] = x[j]! + y[i]! * v[j]!;
  }
  return { x, residual: Math.abs(rest[count] ?? 0) / size };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += 1) sum += a[i]! * b[i]!;
  return sum;
}

const norm = (a: Float64Array): number => Math.sqrt(dot(a, a));
