import {
  areInTheWay,
  boxesMeet,
  boxOf,
  depthOfOverlap,
  distanceApart,
  PITCH_MM,
  type BoxMm,
  type Polygon,
  type Standing,
} from '../../bodies/index.ts';
import type { Item } from './items.ts';

/** A variant of an item with what is asked of it again and again. */
export interface Shape {
  readonly item: number;
  readonly index: number;
  readonly columns: readonly number[];
  readonly rows: readonly number[];
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  /** Holes that its body or its leads cover, relative to its first pin. */
  readonly covered: readonly (readonly [number, number])[];
}

/** Electrolytics stay this far from what gets hot, mm (common practice: a hole). */
const CLEAR_OF_HEAT_MM = PITCH_MM;
/** What is proposed keeps clear of what the check just allows, mm. */
const TOUCHING_MM = 0.25;
/** Bodies reach this many holes beyond what their pins span at most; offsets beyond it are packed apart. */
const REACH = 512;

const moved = (polygon: Polygon, dx: number, dy: number): Polygon =>
  polygon.map(({ x, y }) => ({ x: x + dx * PITCH_MM, y: y + dy * PITCH_MM }));
const movedStanding = ({ body, leads, pins }: Standing, dx: number, dy: number): Standing => ({
  body: moved(body, dx, dy),
  leads: leads.map((p) => moved(p, dx, dy)),
  pins: pins.map((p) => moved(p, dx, dy)),
});

/** Which ways of placing two items are in one another's way, worked out once for each distance between them. */
export class Clashes {
  readonly shapes: readonly (readonly Shape[])[];
  private readonly boxes: readonly BoxMm[];
  private readonly standings: readonly Standing[];
  private readonly owners: readonly Item[];
  private readonly known = new Map<number, boolean>();

  constructor(items: readonly Item[]) {
    let index = 0;
    const standings: Standing[] = [];
    const owners: Item[] = [];
    this.shapes = items.map((item, i) =>
      item.variants.map(({ holes, stance }): Shape => {
        standings.push(stance);
        owners.push(item);
        const [columns, rows] = [holes.map(([c]) => c), holes.map(([, r]) => r)];
        return {
          item: i,
          index: (index += 1) - 1,
          columns,
          rows,
          left: Math.min(...columns),
          right: Math.max(...columns),
          top: Math.min(...rows),
          bottom: Math.max(...rows),
          covered: coveredBy(stance),
        };
      }),
    );
    this.standings = standings;
    this.owners = owners;
    this.boxes = standings.map((s, i) => boxAround(s, owners[i]!));
  }

  /** Whether two shapes are in one another's way, the second at a distance in holes from the first. */
  clash(a: number, b: number, dx: number, dy: number): boolean {
    const [one, other] = [this.boxes[a]!, this.boxes[b]!];
    if (!boxesMeet(one, other, dx * PITCH_MM, dy * PITCH_MM)) return false;
    const key = ((a * this.boxes.length + b) * REACH + dx + REACH / 2) * REACH + dy + REACH / 2;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const clash = this.meet(a, b, dx, dy);
    this.known.set(key, clash);
    return clash;
  }

  private meet(a: number, b: number, dx: number, dy: number): boolean {
    const [one, other] = [this.standings[a]!, movedStanding(this.standings[b]!, dx, dy)];
    if (areInTheWay(one, other, TOUCHING_MM)) return true;
    const [p, q] = [this.owners[a]!, this.owners[b]!];
    const isHeated = (p.body.isHot === true && q.isTender) || (q.body.isHot === true && p.isTender);
    return isHeated && distanceApart(one.body, other.body) < CLEAR_OF_HEAT_MM;
  }
}

/** The box of a part, with room about what gets hot. */
function boxAround(standing: Standing, { body: { isHot } }: Item): BoxMm {
  const { left, right, top, bottom } = boxOf(standing);
  const room = isHot === true ? 2 * CLEAR_OF_HEAT_MM : 0;
  return { left: left - room, right: right + room, top: top - room, bottom: bottom + room };
}

const HOLE_MM = 0.8;

function coveredBy(stance: Standing): (readonly [number, number])[] {
  const points = [stance.body, ...stance.leads].flat();
  const [left, right] = [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))];
  const [top, bottom] = [Math.min(...points.map((p) => p.y)), Math.max(...points.map((p) => p.y))];
  const found: (readonly [number, number])[] = [];
  for (let c = Math.floor(left / PITCH_MM); c <= Math.ceil(right / PITCH_MM); c += 1)
    for (let r = Math.floor(top / PITCH_MM); r <= Math.ceil(bottom / PITCH_MM); r += 1) {
      const half = HOLE_MM / 2;
      const [x, y] = [c * PITCH_MM, r * PITCH_MM];
      const hole: Polygon = [
        { x: x - half, y: y - half },
        { x: x + half, y: y - half },
        { x: x + half, y: y + half },
        { x: x - half, y: y + half },
      ];
      if ([stance.body, ...stance.leads].some((p) => depthOfOverlap(p, hole) > 0)) found.push([c, r]);
    }
  return found;
}
