import type { Part } from '../circuit/index.ts';

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
