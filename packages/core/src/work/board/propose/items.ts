import type { Hole } from '@zemble/contract';
import { bodyOf, PITCH_MM, stanceOf, whyNotOn, type Body, type Stance } from '../../bodies/index.ts';
import { KINDS, type LayerCircuit, type LayerPart } from '../../../circuit/circuit/index.ts';
import { dualSpot, pinoutOf, turned, unitOfPackage } from '../../../circuit/pinout/index.ts';
import type { BoardStyle } from '@zemble/contract';

/** A way in which a part can be put on holes, relative to its first pin. */
export interface Variant {
  /** Hole of each pin of the item, in its order. */
  readonly holes: readonly Hole[];
  readonly stance: Stance;
}

/** A part or package to be placed. */
export interface Item {
  /** What its place is called: its designator, or that of its package. */
  readonly ref: string;
  /** The name of each pin in its place. */
  readonly keys: readonly string[];
  /** Number of the net of each pin; pins that nothing may touch have numbers of their own. */
  readonly nets: readonly number[];
  readonly body: Body;
  /** An electrolytic: heat shortens its life. */
  readonly isTender: boolean;
  readonly variants: readonly Variant[];
}

/** Nets of the circuit by number, and the items. */
export interface Inventory {
  readonly items: readonly Item[];
  /** Names of the nets that parts have, by their number; numbers after them are pins that nothing may touch. */
  readonly nets: readonly string[];
  /** Why a part cannot be placed, a sentence each. */
  readonly refused: readonly string[];
  /** Parts whose order of pins was taken for the usual one of several. */
  readonly assumed: readonly string[];
}

/** An axial part lies over this many holes more than it needs at most, to reach a row further on. */
const STRETCH = 4;
/** Legs of a part that stands upright are bent out by this many holes at most. */
const BENT = 2;

/** What is to be placed, from the parts that belong on a board. */
export function inventoryOf(
  circuit: LayerCircuit,
  parts: readonly LayerPart[],
  style: BoardStyle,
): Inventory {
  const nets = [...new Set([circuit.ground, ...parts.flatMap((p) => Object.values(p.pins))])];
  const number = new Map(nets.map((net, i) => [net, i]));
  let alone = nets.length;
  const refused: string[] = [];
  const assumed: string[] = [];
  const items: Item[] = [];
  const seen = new Set<string>();
  for (const part of parts) {
    const name = unitOfPackage(part.ref)?.designator;
    const units =
      name === undefined ? [part] : parts.filter((p) => unitOfPackage(p.ref)?.designator === name);
    if (seen.has(part.ref)) continue;
    for (const unit of units) seen.add(unit.ref);
    const body = bodyOf(part);
    const pins = pinsOf(part, units, body);
    const variants = body.mounting === 'none' ? [] : variantsOf(body, pins, style);
    if (variants.length === 0) {
      refused.push(whyRefused(part, body));
      continue;
    }
    const known = pinoutOf(part);
    if (known?.isAssumed === true) assumed.push(`${part.ref} as ${known.variant.name}`);
    items.push({
      ref: units.length > 1 ? name! : part.ref,
      keys: pins.map((p) => (units.length > 1 ? String(p.number) : p.key)),
      nets: pins.map(({ net }) => (net === undefined ? (alone += 1) - 1 : number.get(net)!)),
      body,
      isTender: part.kind === 'capacitor' && body.isRound === true,
      variants,
    });
  }
  return { items, nets, refused, assumed };
}

function whyRefused(part: LayerPart, body: Body): string {
  const { words } = KINDS[part.kind];
  const why =
    body.mounting === 'none' ? 'it is not made for a board of holes' : 'its leads fit no holes of this board';
  return `${part.ref} is a ${words}: ${why}. Wire it to the board ("from": "${part.ref}.${Object.keys(part.pins)[0] ?? 'a'}", "to": "board.…"), or say its size ("body": { "leadPitchMm": … }).`;
}

interface ItemPin {
  readonly key: string;
  readonly number: number | undefined;
  readonly net: string | undefined;
}

/** The pins of an item in the order of its legs; all of a package, those that nothing uses too. */
function pinsOf(part: LayerPart, units: readonly LayerPart[], body: Body): readonly ItemPin[] {
  const known = pinoutOf(part);
  const isInRow = body.mounting === 'row' || body.mounting === 'dual in line';
  if (!known || !isInRow) {
    const order = KINDS[part.kind].pins.filter((pin) => part.pins[pin] !== undefined);
    const names = [...order, ...Object.keys(part.pins).filter((pin) => !order.includes(pin))];
    return names.map((key, i) => ({ key, number: i + 1, net: part.pins[key] }));
  }
  return known.variant.pins.map((entry, i): ItemPin => {
    const [, unit, name = entry] = /^([A-D])\.(.+)$/.exec(entry) ?? [];
    const own = units.find(
      (p) =>
        (unit === undefined || (unitOfPackage(p.ref)?.unit ?? 'A') === unit) && p.pins[name] !== undefined,
    );
    return own
      ? { key: name, number: i + 1, net: own.pins[name] }
      : { key: String(i + 1), number: i + 1, net: undefined };
  });
}

const inMm = ([c, r]: Hole) => ({ x: c * PITCH_MM, y: r * PITCH_MM });

/** All ways in which an item can be put on holes, those that look the same once. */
function variantsOf(body: Body, pins: readonly ItemPin[], style: BoardStyle): readonly Variant[] {
  const shapes =
    body.mounting === 'dual in line'
      ? dualShapes(pins)
      : pins.length === 2
        ? twoLegged(body)
        : pins.length === 1
          ? [[[0, 0] as Hole]]
          : rowShapes(pins.length, style);
  const fitting = shapes.filter((holes) => whyNotOn(body, holes.map(inMm)) === undefined);
  const found = new Map<string, Variant>();
  for (const holes of fitting)
    for (let quarters = 0; quarters < 4; quarters += 1) {
      const placed = holes.map((hole) => turned(hole, quarters) as Hole);
      if (style === 'strip' && body.mounting === 'dual in line' && quarters % 2 === 1) continue;
      const [dx, dy] = placed[0]!;
      const moved = placed.map(([c, r]): Hole => [c - dx, r - dy]);
      const key = moved.join(' ');
      if (!found.has(key)) found.set(key, { holes: moved, stance: stanceOf(body, moved.map(inMm)) });
    }
  return [...found.values()];
}

function twoLegged(body: Body): Hole[][] {
  const pitch = Math.max(1, Math.round(body.leadPitchMm / PITCH_MM));
  const [least, most] =
    body.mounting === 'axial'
      ? [1, pitch + STRETCH]
      : body.bends
        ? [Math.max(1, Math.min(pitch, Math.floor(body.leadPitchMm / PITCH_MM))), pitch + BENT]
        : [pitch, pitch];
  return Array.from({ length: most - least + 1 }, (_, i): Hole[] => [
    [0, 0],
    [0, least + i],
  ]);
}

/** Legs in a row: each on a strip of its own, or along one with room for a cut; three also in a triangle. */
function rowShapes(count: number, style: BoardStyle): Hole[][] {
  const line = (step: number): Hole[] => Array.from({ length: count }, (_, i): Hole => [0, i * step]);
  const triangles: Hole[][] =
    count === 3
      ? [
          [
            [0, 0],
            [1, 1],
            [0, 2],
          ],
          [
            [0, 0],
            [-1, 1],
            [0, 2],
          ],
          [
            [0, 0],
            [0, 1],
            [0, 3],
          ],
          [
            [0, 0],
            [0, 2],
            [0, 3],
          ],
        ]
      : [];
  return style === 'pads' ? [line(1), ...triangles] : [line(1), line(2), ...triangles];
}

const dualShapes = (pins: readonly ItemPin[]): Hole[][] => [
  pins.map((p) => dualSpot(pins.length, p.number!) as Hole),
];
