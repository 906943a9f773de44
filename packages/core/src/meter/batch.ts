import type { Part } from '../circuit/index.ts';
import { judgeReading } from './verdict.ts';

/** What makes parts sisters of one batch, beside their kind: same maker, series and type, where these are written down. */
const SAME = ['maker', 'series', 'model', 'type'] as const;

/**
 * Parts of the same batch as a bad one: of its kind, electrolytic or not as it is, and alike in what is written down of
 * maker, series and type. One bad part of a batch makes its sisters suspect (common practice).
 */
export function sistersOf(part: Part, parts: readonly Part[]): Part[] {
  const isPolarised = part['polarised'] === true;
  return parts.filter(
    (p) =>
      p.ref !== part.ref &&
      p.kind === part.kind &&
      (p['polarised'] === true) === isPolarised &&
      SAME.every(
        (field) => part[field] === undefined || p[field] === undefined || part[field] === p[field],
      ) &&
      isAlike(part, p),
  );
}

/** Plain resistors and films are sisters only when a series or maker says so; electrolytics of one unit always are. */
function isAlike(a: Part, b: Part): boolean {
  if (a['polarised'] === true) return true;
  return SAME.some((field) => a[field] !== undefined && a[field] === b[field]);
}

/** Parts that were not measured yet, of the same batch as one that was found out of its tolerance. */
export function batchSuspects(parts: readonly Part[]): Part[] {
  const isFound = (p: Part) => p.found !== null && p.found !== undefined;
  const bad = parts.filter((p) => {
    if (!isFound(p)) return false;
    const { kind } = judgeReading(p, { value: p.found!, condition: 'leg lifted' });
    return kind !== 'in' && kind !== 'edge' && kind !== 'no marking';
  });
  return [...new Set(bad.flatMap((p) => sistersOf(p, parts)))].filter((p) => !isFound(p));
}
