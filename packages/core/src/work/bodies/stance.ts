import { PITCH_MM, type Body } from './body.ts';
import type { Standing } from './in-the-way.ts';
import { circle, rectangle, type PointMm, type Polygon } from './polygon.ts';

/** How a part stands on its holes. */
export interface Stance extends Standing {
  readonly kind: 'lying' | 'standing' | 'upright';
  readonly heightMm: number;
}

/** A lead bends down this far from its body at the least, mm (common practice: one to two wire diameters and more). */
const BEND_MM = 1;
/** Wire of a lead, mm. */
const LEAD_MM = 0.6;
/** How much of its leads a part can use on each side, mm. */
const LEAD_LENGTH_MM = 25;
/** How far the leads of a part that stands on them can be bent out on each side, mm. */
const SPREAD_MM = 20;

const middleOf = (points: readonly PointMm[]): PointMm => ({
  x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
  y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
});
const apart = (a: PointMm, b: PointMm): number => Math.hypot(a.x - b.x, a.y - b.y);
const lead = (from: PointMm, to: PointMm): Polygon[] =>
  apart(from, to) === 0
    ? []
    : [
        rectangle(
          middleOf([from, to]),
          { x: to.x - from.x, y: to.y - from.y },
          apart(from, to) + LEAD_MM,
          LEAD_MM,
        ),
      ];

/** Why a part cannot stand on holes as it is placed: a sentence without its subject; undefined where it can. */
export function whyNotOn(body: Body, points: readonly PointMm[]): string | undefined {
  const span = spanOf(points);
  switch (body.mounting) {
    case 'none':
      return 'is not made for a board of holes: say the pitch of its leads, or wire it to the board';
    case 'axial':
      return span > body.lengthMm + 2 * LEAD_LENGTH_MM
        ? `reaches over ${Math.floor(body.lengthMm + 2 * LEAD_LENGTH_MM)} mm at most, and its holes are ${Math.round(span)} mm apart`
        : undefined;
    case 'radial': {
      const most = body.leadPitchMm + 2 * SPREAD_MM;
      if (body.bends) return span > most ? tooWide(most, span) : undefined;
      return Math.abs(span - body.leadPitchMm) > PITCH_MM / 2 ? stiff(body, span) : undefined;
    }
    case 'row': {
      const most = (points.length - 1) * Math.max(PITCH_MM, body.leadPitchMm) + 2 * SPREAD_MM;
      return span > most ? tooWide(most, span) : undefined;
    }
    case 'dual in line':
      return undefined;
  }
}
const tooWide = (most: number, span: number) =>
  `has legs that spread over ${Math.floor(most)} mm at most, and its holes are ${Math.round(span)} mm apart`;
const stiff = ({ leadPitchMm }: Body, span: number) =>
  `has stiff pins ${leadPitchMm} mm apart, and its holes are ${Math.round(span * 10) / 10} mm apart`;

/** The distance of the two points that lie farthest apart. */
function spanOf(points: readonly PointMm[]): number {
  let span = 0;
  for (let i = 0; i < points.length; i += 1)
    for (let j = 0; j < i; j += 1) span = Math.max(span, apart(points[i]!, points[j]!));
  return span;
}

/**
 * How a part lies or stands over its holes: an axial part lies where its holes are far enough apart for its body and both
 * bends, and else stands on the first; anything else stands upright over the middle of its holes, its leads bent to them.
 *
 * @param points middles of its holes in the order of its pins, of a dual in-line package by their numbers, mm; one at least
 */
export function stanceOf(body: Body, points: readonly PointMm[]): Stance {
  const [first, ...others] = points as readonly [PointMm, ...PointMm[]];
  const last = others.at(-1) ?? first;
  const along = farthestPair(points);
  const { lengthMm, widthMm, heightMm } = body;
  const pins = points.map((p) => circle(p, LEAD_MM));
  if (body.mounting === 'axial') {
    const lies = apart(first, last) >= lengthMm + 2 * BEND_MM;
    return lies
      ? {
          kind: 'lying',
          body: rectangle(middleOf([first, last]), along, lengthMm, widthMm),
          leads: lead(first, last),
          pins,
          heightMm,
        }
      : {
          kind: 'standing',
          body: circle(first, widthMm),
          leads: lead(first, last),
          pins,
          heightMm: lengthMm + 2 * BEND_MM,
        };
  }
  const middle = body.mounting === 'dual in line' ? boxMiddle(points) : middleOf(points);
  const shape =
    body.mounting === 'dual in line'
      ? dualBody(points, body)
      : body.isRound
        ? circle(middle, Math.max(lengthMm, widthMm))
        : rectangle(middle, along, rowLength(body, points), widthMm);
  return {
    kind: 'upright',
    body: shape,
    leads: body.mounting === 'dual in line' ? [] : points.flatMap((p) => lead(p, middle)),
    pins,
    heightMm,
  };
}

/** A row of lugs or pins is as long as it has pins; a case with three legs is as long as it is. */
const rowLength = ({ mounting, lengthMm, leadPitchMm }: Body, points: readonly PointMm[]): number =>
  mounting === 'row' && points.length > 3 ? Math.max(lengthMm, points.length * leadPitchMm) : lengthMm;

function farthestPair(points: readonly PointMm[]): PointMm {
  let best = { x: 1, y: 0 };
  let span = 0;
  for (const p of points)
    for (const q of points) {
      const far = apart(p, q);
      if (far > span + 1e-9) [span, best] = [far, { x: q.x - p.x, y: q.y - p.y }];
    }
  return best;
}

const boxOf = (points: readonly PointMm[]) => ({
  left: Math.min(...points.map((p) => p.x)),
  right: Math.max(...points.map((p) => p.x)),
  top: Math.min(...points.map((p) => p.y)),
  bottom: Math.max(...points.map((p) => p.y)),
});
const boxMiddle = (points: readonly PointMm[]): PointMm => {
  const { left, right, top, bottom } = boxOf(points);
  return { x: (left + right) / 2, y: (top + bottom) / 2 };
};

/** The body of a dual in-line package lies between its rows, along them: from its first pin to its second. */
function dualBody(points: readonly PointMm[], { lengthMm, widthMm }: Body): Polygon {
  const [first, second = { x: 0, y: 1 }] = points as readonly [PointMm, ...PointMm[]];
  return rectangle(boxMiddle(points), { x: second.x - first.x, y: second.y - first.y }, lengthMm, widthMm);
}
