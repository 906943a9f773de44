import { isPolarised, type Part } from '../../circuit/circuit/index.ts';
import { judgeReading } from './verdict.ts';

/** What makes parts sisters of one batch, beside their kind: same maker, series and type, where these are written down. */
const batchOf = ({ maker, series, model, type }: Part) => [maker, series, model, type];

/**
 * Parts of the same batch as a bad one: of its kind, electrolytic or not as it is, and alike in what is written down of
 * maker, series and type. One bad part of a batch makes its sisters suspect (common practice).
 */
export function sistersOf(part: Part, parts: readonly Part[]): Part[] {
  const own = batchOf(part);
  return parts.filter(
    (p) =>
      p.ref !== part.ref &&
      p.kind === part.kind &&
      isPolarised(p) === isPolarised(part) &&
      batchOf(p).every((word, i) => word === undefined || own[i] === undefined || word === own[i]) &&
      isAlike(part, p),
  );
}

/** Plain resistors and films are sisters only when a series or maker says so; electrolytics of one unit always are. */
function isAlike(a: Part, b: Part): boolean {
  if (isPolarised(a)) return true;
  const other = batchOf(b);
  return batchOf(a).some((word, i) => word !== undefined && word === other[i]);
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
