import type { PartKind } from '@zemble/contract';
import { problem, type Problem } from '../../base/errors/index.ts';
import { KINDS } from './kinds.ts';
import { isModelled, type LayerCircuit, type LayerPart } from './layer.ts';
import { netsOf } from './part.ts';
import { UnionFind } from './union-find.ts';

/** Pairs of nets that a part joins for direct current: well, or only by the insulation of an open contact. */
interface Joints {
  readonly closed: readonly (readonly [string, string])[];
  readonly open: readonly (readonly [string, string])[];
}

const NONE: Joints = { closed: [], open: [] };

function jointsOf(part: LayerPart, ground: string): Joints {
  const nets = (pairs: readonly (readonly [string, string])[]) =>
    pairs.flatMap(([a, b]) => {
      const [netA, netB] = [part.pins[a], part.pins[b]];
      return netA === undefined || netB === undefined ? [] : [[netA, netB] as const];
    });
  const paths = KINDS[part.kind].dcPaths;
  if (part.value === 'open') return { closed: [], open: nets(paths) };
  if (part.value === 'short') return { closed: nets(chain(KINDS[part.kind].pins)), open: [] };
  switch (part.kind) {
    case 'switch':
    case 'jumper':
    case 'fuse':
      return part.closed === false ? { closed: [], open: nets(paths) } : { closed: nets(paths), open: [] };
    case 'changeover': {
      const at = part.position ?? 'a';
      return {
        closed: nets(paths.filter(([, throwPin]) => throwPin === at)),
        open: nets(paths.filter(([, throwPin]) => throwPin !== at)),
      };
    }
    case 'jack': {
      const switched = [['tip', 'tipSwitch'] as const, ['ring', 'ringSwitch'] as const];
      const shorted = [['ring', 'sleeve'] as const];
      if (part.inserted !== true) return { closed: nets(switched), open: nets(shorted) };
      return part.plug === 'stereo'
        ? { closed: [], open: nets([...switched, ...shorted]) }
        : { closed: nets(shorted), open: nets(switched) };
    }
    case 'relay':
      // Which contact is made follows from the solution: both are taken as contacts that may be.
      return { closed: nets([['coilA', 'coilB']]), open: nets(paths.slice(1)) };
    case 'capacitor':
      return part.leakage === undefined ? NONE : { closed: nets([['a', 'b']]), open: [] };
    case 'opamp': {
      const { out } = part.pins;
      return { closed: [...nets(paths), ...(out === undefined ? [] : [[ground, out] as const])], open: [] };
    }
    default:
      return { closed: nets(paths), open: [] };
  }
}

const chain = (pins: readonly string[]) => pins.slice(1).map((pin, i) => [pins[i]!, pin] as const);

/** Nets that hang together for direct current and do not reach the ground. */
export interface Island {
  readonly nets: readonly string[];
  readonly parts: readonly string[];
}

/**
 * Groups of nets that hang together for direct current and float: without a path to the ground through resistances, coils,
 * sources, junctions and closed contacts. A group that open contacts alone hold, and that no source is part of, is at rest
 * behind their insulation (1 Tohm) and is none: what a switch has taken out of the circuit is no fault.
 */
function floatingGroups(circuit: LayerCircuit, modelled: readonly LayerPart[]): string[][] {
  const closed = new UnionFind();
  const held = new UnionFind();
  for (const part of modelled) {
    const joints = jointsOf(part, circuit.ground);
    for (const [a, b] of joints.closed) {
      closed.join(a, b);
      held.join(a, b);
    }
    for (const [a, b] of joints.open) held.join(a, b);
  }
  const isGrounded = (net: string) => closed.find(net) === closed.find(circuit.ground);
  const driven = new Set(
    modelled
      .filter((p) => p.kind === 'supply' || p.kind === 'signal')
      .map((p) => closed.find(p.pins.plus ?? '')),
  );
  const groups = new Map<string, string[]>();
  for (const net of netsOf({ ground: circuit.ground, parts: modelled })) {
    if (isGrounded(net)) continue;
    const isHeld = held.find(net) === held.find(circuit.ground) && !driven.has(closed.find(net));
    if (!isHeld) groups.set(closed.find(net), [...(groups.get(closed.find(net)) ?? []), net]);
  }
  return [...groups.values()];
}

const modelledIn = (circuit: LayerCircuit) => circuit.parts.filter(isModelled);

/** The net of a floating group where something was taken away; undefined where there is none. */
const looseIn = (group: readonly string[], circuit: LayerCircuit): string | undefined =>
  group.find((net) => circuit.loose?.includes(net) === true);

/**
 * Nets that rest behind the insulation of the air, one of each group that would float without it: where a leg was lifted, a
 * track cut or a part taken out. It insulates as an open contact does. What was left floating by that is no fault.
 */
export function hangingNets(circuit: LayerCircuit): string[] {
  if (!circuit.loose || circuit.loose.length === 0) return [];
  return floatingGroups(circuit, modelledIn(circuit)).flatMap((group) => looseIn(group, circuit) ?? []);
}

/** Islands that float: groups of nets of which nothing sets the voltage, and of which nothing was taken away. */
export function floatingIslands(circuit: LayerCircuit): Island[] {
  const modelled = modelledIn(circuit);
  return floatingGroups(circuit, modelled)
    .filter((group) => looseIn(group, circuit) === undefined)
    .map((nets) => ({
      nets,
      parts: modelled.filter((p) => Object.values(p.pins).some((n) => nets.includes(n))).map((p) => p.ref),
    }));
}

/** Kinds through which direct current flows only beyond some voltage, or one way. */
const JUNCTION_KINDS: readonly PartKind[] = ['diode', 'zener', 'led', 'bjt', 'jfet', 'mosfet'];

/**
 * One net of each group of nets that resistances, coils, sources and closed contacts join, without the ground's: what is
 * to be held by a little something where junctions alone lead on, or nothing does.
 */
export function ohmicIslands(circuit: LayerCircuit): string[] {
  const joined = new UnionFind();
  const modelled = modelledIn(circuit);
  for (const part of modelled) {
    const { value } = part;
    const isJunction = JUNCTION_KINDS.includes(part.kind) && value !== 'short';
    if (isJunction) continue;
    for (const [a, b] of jointsOf(part, circuit.ground).closed) joined.join(a, b);
  }
  const held = new Set([joined.find(circuit.ground)]);
  return netsOf({ ground: circuit.ground, parts: modelled }).filter((net) => {
    const island = joined.find(net);
    if (held.has(island)) return false;
    held.add(island);
    return true;
  });
}

/** Each floating island as a problem that names its most touched net and its parts. */
export function floatingProblems(circuit: LayerCircuit): Problem[] {
  const touches = (net: string) => circuit.parts.filter((p) => Object.values(p.pins).includes(net)).length;
  return floatingIslands(circuit).map(({ nets, parts }) => {
    const net = nets.reduce((a, b) => (touches(b) > touches(a) ? b : a));
    return problem('circuit/no-dc-path', { net, parts });
  });
}

/** Ideal voltage sources in a ring with one another or with coils of bare wire: nothing sets their current. */
export function sourceLoops(circuit: LayerCircuit): Problem[] {
  const joined = new UnionFind();
  const found: Problem[] = [];
  const coils = circuit.parts.filter((p) => p.kind === 'inductor' && !(p.dcr ?? 0));
  for (const { pins } of coils) if (pins.a !== undefined && pins.b !== undefined) joined.join(pins.a, pins.b);
  const ideal = circuit.parts.filter(
    (p) => (p.kind === 'supply' || p.kind === 'signal') && !(p.resistance ?? 0),
  );
  for (const part of ideal) {
    const { plus, minus } = part.pins;
    if (plus === undefined || minus === undefined || joined.join(plus, minus)) continue;
    const touches = (p: LayerPart) => Object.values(p.pins).some((n) => joined.find(n) === joined.find(plus));
    const ring = [...ideal, ...coils].filter((p) => p === part || touches(p));
    found.push(problem('circuit/source-loop', { ref: part.ref, parts: ring.map((p) => p.ref) }));
  }
  return found;
}
