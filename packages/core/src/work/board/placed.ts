import type { Board, Hole, Wire } from '@zemble/contract';
import { bodyOf, PITCH_MM, stanceOf, type Body, type Stance } from '../bodies/index.ts';
import { isModelled, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import {
  dualSpot,
  findPin,
  fitDual,
  numberOfPin,
  pinByNumber,
  pinoutOf,
  turned,
  unitOfPackage,
} from '../../circuit/pinout/index.ts';

/** A pin of a part in a hole. */
export interface PlacedPin {
  readonly ref: string;
  readonly pin: string;
  /** Undefined for a pin of a package that none of its units uses. */
  readonly net: string | undefined;
  readonly hole: Hole;
  /** Its number in its package, where that is known. */
  readonly number: number | undefined;
}

/** A package or part as it lies on a board. */
export interface PlacedBody {
  /** Designator of the package: U1 for U1A and U1B. */
  readonly name: string;
  readonly refs: readonly string[];
  readonly part: LayerPart;
  readonly body: Body;
  readonly pins: readonly PlacedPin[];
  readonly stance: Stance;
  /** A dual in-line package whose holes are not those of one: mirrored, or none at all. */
  readonly misfit?: 'mirrored' | 'pattern';
}

/** What cannot be read of a place. */
export interface MisreadPlace {
  readonly ref: string;
  readonly why: string;
  readonly holes: readonly Hole[];
}

/** Kinds that stand beside the board. */
const OFF_BOARD: ReadonlySet<string> = new Set(['supply', 'signal', 'load', 'speaker', 'headphone']);

/** Parts that a wire of the wiring map reaches. */
export function wiredRefs(circuit: LayerCircuit, wires: readonly Wire[]): ReadonlySet<string> {
  const ends = wires.flatMap(({ from, to }) => [from, to]).filter((end) => !/^board\./i.test(end));
  return new Set(
    ends.flatMap((end) => {
      const found = findPin(circuit.parts, end);
      return found.ok ? [found.ref] : [];
    }),
  );
}

/** Whether a part belongs on a board: it is there to be soldered in, and no wire leads to it. */
export const belongsOnBoard = (part: LayerPart, wired: ReadonlySet<string>): boolean =>
  !OFF_BOARD.has(part.kind) && !wired.has(part.ref) && (part.kind === 'box' || isModelled(part));

const packageOf = (ref: string): string => unitOfPackage(ref)?.designator ?? ref;

/** The parts that a place is of: one, or the units of a package that it names by their designator. */
function partsOf(circuit: LayerCircuit, ref: string): readonly LayerPart[] {
  const own = circuit.parts.filter((p) => p.ref === ref);
  return own.length > 0
    ? own
    : circuit.parts.filter((p) => unitOfPackage(p.ref)?.designator === ref.toUpperCase());
}

/** A pin by the name that a place has for it; undefined where the part has none of that name. */
function pinNamed(
  circuit: LayerCircuit,
  parts: readonly LayerPart[],
  ref: string,
  key: string,
  hole: Hole,
): PlacedPin | undefined {
  const found = findPin(circuit.parts, `${ref}.${key}`);
  if (found.ok) {
    const part = circuit.parts.find((p) => p.ref === found.ref)!;
    return { ref: found.ref, pin: found.pin, net: found.net, hole, number: numberOfPin(part, found.pin) };
  }
  // A pin that its package has and the part does not use.
  const [first] = parts;
  const number = Number(key);
  const pins = first && pinoutOf(first)?.variant.pins;
  if (!first || !Number.isInteger(number) || !pins || number < 1 || number > pins.length) return undefined;
  const isUsed =
    pinByNumber(first, number) !== undefined && parts.some((p) => p.pins[pins[number - 1]!] !== undefined);
  return isUsed ? undefined : { ref: first.ref, pin: key, net: undefined, hole, number };
}

/** The parts of a board as they are placed, and what cannot be read of it. */
export function readPlaces(
  circuit: LayerCircuit,
  board: Pick<Board, 'places'>,
): { readonly bodies: readonly PlacedBody[]; readonly misread: readonly MisreadPlace[] } {
  const misread: MisreadPlace[] = [];
  const groups = new Map<string, { parts: LayerPart[]; pins: PlacedPin[] }>();
  const seen = new Set<string>();
  for (const { ref, holes } of board.places) {
    const parts = partsOf(circuit, ref);
    const all = Object.values(holes);
    if (parts.length === 0) {
      misread.push({ ref, why: `${ref} is on the board, and the circuit has no such part`, holes: all });
      continue;
    }
    const twice = parts.find((p) => seen.has(p.ref));
    if (twice) {
      misread.push({ ref: twice.ref, why: `${twice.ref} is on the board twice`, holes: all });
      continue;
    }
    for (const p of parts) seen.add(p.ref);
    const pins: PlacedPin[] = [];
    for (const [key, hole] of Object.entries(holes)) {
      const pin = pinNamed(circuit, parts, ref, key, hole);
      if (pin) pins.push(pin);
      else
        misread.push({
          ref,
          why: `${ref} has no pin "${key}"; its pins are ${parts.flatMap((p) => Object.keys(p.pins)).join(', ')}`,
          holes: [hole],
        });
    }
    const name = packageOf(parts[0]!.ref);
    const group = groups.get(name) ?? { parts: [], pins: [] };
    groups.set(name, { parts: [...group.parts, ...parts], pins: [...group.pins, ...pins] });
  }
  for (const { parts, pins } of groups.values())
    for (const part of parts) {
      const open = Object.keys(part.pins).filter((pin) => !isPlaced(pins, part, pin));
      if (open.length > 0)
        misread.push({
          ref: part.ref,
          why: `${part.ref} has no hole for ${open.length === 1 ? 'its pin' : 'its pins'} ${open.join(', ')}`,
          holes: pins.map((p) => p.hole),
        });
    }
  const bodies = [...groups].flatMap(([name, { parts, pins }]) =>
    pins.length === 0 ? [] : [placedBody(name, parts, distinctPins(pins))],
  );
  return { bodies, misread };
}

/** Whether a pin has a hole: its own, or that of another unit of its package that has the same pin. */
const isPlaced = (pins: readonly PlacedPin[], part: LayerPart, pin: string): boolean => {
  const number = numberOfPin(part, pin);
  return pins.some(
    (p) => (p.ref === part.ref && p.pin === pin) || (number !== undefined && p.number === number),
  );
};

/** Pins of units that share one are one pin where they are in one hole. */
function distinctPins(pins: readonly PlacedPin[]): PlacedPin[] {
  const seen = new Set<string>();
  return pins.filter(({ ref, pin, number, hole }) => {
    const key = number === undefined ? `${ref}.${pin}` : `${packageOf(ref)} ${number} ${hole.join()}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

const inMm = ([column, row]: Hole) => ({ x: column * PITCH_MM, y: row * PITCH_MM });

const byNumber = (pins: readonly PlacedPin[]): PlacedPin[] =>
  [...pins].sort((a, b) => (a.number ?? Infinity) - (b.number ?? Infinity));

function placedBody(name: string, parts: readonly LayerPart[], pins: readonly PlacedPin[]): PlacedBody {
  const part = parts[0]!;
  const body = bodyOf(part);
  const refs = parts.map((p) => p.ref);
  const holes = pins.map((p) => p.hole);
  const plain = { name, refs, part, body, pins };
  const outline = pinoutOf(part)?.outline;
  if (body.mounting !== 'dual in line' || !outline)
    return { ...plain, stance: stanceOf(body, holes.map(inMm)) };
  const numbered = new Map(
    pins.flatMap((p) => (p.number === undefined ? [] : [[p.number, p.hole] as const])),
  );
  const fit = numbered.size === 0 ? undefined : fitDual(outline.pins, numbered);
  if (!fit || fit === 'mirrored')
    return {
      ...plain,
      stance: stanceOf(
        body,
        byNumber(pins).map((p) => inMm(p.hole)),
      ),
      ...(fit === undefined
        ? {}
        : { misfit: fit === 'mirrored' ? ('mirrored' as const) : ('pattern' as const) }),
    };
  const whole = Array.from({ length: outline.pins }, (_, i): Hole => {
    const [x, y] = turned(dualSpot(outline.pins, i + 1), fit.quarters);
    return [fit.origin[0] + x, fit.origin[1] + y];
  });
  return { ...plain, stance: stanceOf(body, whole.map(inMm)) };
}
