import { isTemporary, type Board, type BoardPlace, type Change } from '@zemble/contract';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { belongsOnBoard, holeWords, wiredRefs } from '../board/index.ts';
import { pickWords, wantedFor, type Drawer } from '../drawer/index.ts';
import {
  activeSet,
  buildLayer,
  placesOf,
  printedParts,
  type ChangedCircuit,
  type MadeChange,
} from '../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit, UnitDocument } from '../../circuit/circuit/index.ts';
import { likelyStored, type Stored } from '../../bench/isolate/index.ts';
import { bearingsOf, checkRatings } from '../../bench/judge/index.ts';
import { problem, ZembleError, type Problem } from '../../base/errors/index.ts';
import { unitOfPackage } from '../../circuit/pinout/index.ts';
import type { BenchStep, Draft } from './bench-step.ts';
import { computed } from './computed.ts';
import { checksBeforePower, powerSteps } from './checks.ts';
import { netOf } from './net.ts';
import { inBenchOrder, type PlannedStep } from './order.ts';
import { isOffBoard } from './part-words.ts';
import { safetySteps } from './safety.ts';
import { undoDrafts } from './undo.ts';
import {
  draftsFor,
  fitDraft,
  PHASE,
  playThrough,
  rankOf,
  socketDraft,
  type Ranked,
  type Scene,
} from './work.ts';

/** What is to be done at the bench. */
export interface Work {
  readonly steps: readonly BenchStep[];
  /** Changes that cannot be made, and why: they are not among the steps. */
  readonly problems: readonly Problem[];
}

/** Which work is asked for. */
export interface WorkWish {
  /** One change instead of all that are planned. */
  readonly change?: string | undefined;
  /** The unit is built from nothing. */
  readonly isWhole?: boolean | undefined;
  /** The change is taken back, also where that is recorded already and only its checks are left. */
  readonly isBack?: boolean | undefined;
  /** What the workshop has: a step that puts a part in says where it lies, or of which two it is made up. */
  readonly drawer?: Drawer | undefined;
  /** Changes that are done already and are still to be checked and powered, with what is planned. */
  readonly alsoDone?: readonly string[] | undefined;
}

/**
 * The bench work of a unit in the order that good hands use: planned changes of the active set, or one change, which is taken
 * back where it is done, or the whole unit from nothing. Throws `change/unknown` for a change that is not there.
 */
export function benchSteps(unit: UnitDocument, wish: WorkWish = {}): Work {
  const { steps, problems } = workFor(unit, wish);
  return { steps: placed(steps, unit.boards ?? []), problems };
}

/** Steps that put a part in, with the holes that it goes into. */
const placed = (steps: readonly BenchStep[], boards: readonly Board[]): readonly BenchStep[] =>
  steps.map((step) => {
    const isPutIn = step.kind === 'fit' || step.kind === 'chip';
    const name = unitOfPackage(step.refs[0] ?? '')?.designator;
    const place = isPutIn
      ? boards.flatMap((b) => b.places).find((p) => p.ref === step.refs[0] || p.ref === name)
      : undefined;
    return place ? { ...step, place: holesWords(place) } : step;
  });

const holesWords = ({ holes }: BoardPlace): string =>
  Object.entries(holes)
    .map(([pin, hole]) => `${pin} at ${holeWords(hole)}`)
    .join('; ');

function workFor(unit: UnitDocument, wish: WorkWish): Work {
  const { change: id, isWhole, isBack, alsoDone, drawer } = wish;
  const changes = unit.circuit.changes ?? [];
  if (isWhole === true) return wholeUnit(unit, drawer);
  if (id !== undefined) {
    const change = changes.find((c) => c.id === id);
    if (!change) throw new ZembleError('change/unknown', { text: id, parts: changes.map((c) => c.id) });
    const isOpen = alsoDone?.includes(id) === true;
    if (isBack === true || (change.state === 'done' && !isOpen))
      return takingBack(asDone(unit, id), change, drawer);
  }
  return plannedWork(unit, wish);
}

/** A unit with one change done. */
const asDone = (unit: UnitDocument, id: string): UnitDocument => ({
  ...unit,
  circuit: {
    ...unit.circuit,
    changes: (unit.circuit.changes ?? []).map((c) => (c.id === id ? { ...c, state: 'done' } : c)),
  },
});

/** The changes that are worked on, on the planned layer: those of the active set, or one by itself. */
function plannedWork(unit: UnitDocument, { change: id, drawer, ...wish }: WorkWish): Work {
  const { circuit } = unit;
  const alsoDone = new Set(wish.alsoDone);
  const chosen = id === undefined ? undefined : (circuit.changes ?? []).find((c) => c.id === id);
  const set = chosen?.set ?? activeSet(circuit);
  const { circuit: planned, changes } = buildLayer(
    chosen && chosen.state !== 'planned' && !alsoDone.has(chosen.id)
      ? { ...circuit, changes: circuit.changes!.map((c) => (c.id === id ? { ...c, state: 'planned' } : c)) }
      : circuit,
    'planned',
    set === undefined ? {} : { set },
  );
  const open = changes.filter(
    (m) =>
      (m.change.state === 'planned' || alsoDone.has(m.change.id)) && (id === undefined || m.change.id === id),
  );
  const temporary = chosen && open.length === 0 ? trial(unit, chosen) : [];
  const all = [...open, ...temporary];
  const made = all.filter((m) => m.made.length > 0);
  const problems = all.flatMap((m) => (m.problem ? [m.problem] : []));
  const [first] = made;
  if (!first) return { steps: [], problems };
  const start = first.made[0]!.before;
  const steps = made.flatMap(({ change }) => change.steps.map((step, index) => ({ change, index, step })));
  const final = temporary.length > 0 ? undefined : planned;
  const net = netOf(start, steps);
  if (net.steps.length === 0) return { steps: [], problems: [...problems, ...net.problems] };
  const replaced = new Map(
    [...net.replaced].map(([{ change, index }, those]) => [
      `${change.id}.${index}`,
      those.map((r) => ({ change: r.change.id, step: r.index })),
    ]),
  );
  const arrangedSteps = arranged(unit, start, net.steps, { final, drawer }).map((step): BenchStep => {
    const key = step.ticks && `${step.ticks.change}.${step.ticks.step}`;
    const replaces = key === undefined ? undefined : replaced.get(key);
    if (!replaces) return step;
    const soldered = net.steps.find(({ change, index }) => `${change.id}.${index}` === key)?.step;
    return { ...step, replaces, ...(soldered?.do === 'add' ? { as: soldered } : {}) };
  });
  return { steps: arrangedSteps, problems: [...problems, ...net.problems] };
}

/** A temporary change that is planned, as it would be made to what lies on the bench now. */
function trial({ circuit }: UnitDocument, change: Change): readonly MadeChange[] {
  const others = (circuit.changes ?? []).filter((c) => c.id !== change.id);
  const { changes } = buildLayer(
    { ...circuit, changes: [...others, { ...change, state: 'done' }] },
    'proven',
  );
  return changes.filter((m) => m.change.id === change.id).map((m) => ({ ...m, change }));
}

/** The steps of changes with all that comes before and after. */
function arranged(
  unit: UnitDocument,
  start: ChangedCircuit,
  planned: readonly PlannedStep[],
  { final, drawer }: { readonly final: LayerCircuit | undefined; readonly drawer: Drawer | undefined },
): readonly BenchStep[] {
  const partOf = (ref: string) => start.parts.find((p) => p.ref === ref);
  const ordered = inBenchOrder(start, planned, (step) => rankOf(step, partOf));
  const played = playThrough(start, ordered);
  const end = final ?? played.at(-1)?.after ?? start;
  const scene = sceneOf(end, drawer);
  const drafts = played.flatMap(({ planned: step, before, after }) => draftsFor(step, before, after, scene));
  const own = new Set(planned.map((p) => p.change.id));
  const back = comingBack(unit, own, scene);
  return framed(
    unit,
    end,
    [...drafts, ...back],
    [...ordered.map((p) => `${p.change.id}.${p.index}`), ...back.map(tickOf)],
  );
}

/** What is lifted, clipped on or unplugged for a while comes back before power: the last work of all. */
function comingBack({ circuit }: UnitDocument, own: ReadonlySet<string>, scene: Scene): readonly Ranked[] {
  const inForce = buildLayer(circuit, 'proven').changes.filter(
    ({ change, made }) =>
      isTemporary(change) && change.state === 'done' && made.length > 0 && !own.has(change.id),
  );
  return inForce.flatMap(({ change, made }) =>
    undoDrafts(change, made, scene).map((draft, i) => ({ ...draft, rank: PHASE.fit + BACK_RANK + i / 100 })),
  );
}
/** Behind every part and wire. */
const BACK_RANK = 50;

const sceneOf = (circuit: LayerCircuit, drawer: Drawer | undefined): Scene => ({
  bearings: computed(() => bearingsOf(new AnalysisSession(circuit))) ?? new Map(),
  warnings: new Map(checkRatings(circuit).map((p) => [p.ref ?? '', p.message])),
  fetched: (part) => {
    const wanted = wantedFor(part, part.value);
    return wanted && pickWords(drawer ?? [], wanted);
  },
});

/** Work between safety and power: in the order of its ranks, those that change the circuit in the order given. */
function framed(
  unit: UnitDocument,
  end: LayerCircuit,
  drafts: readonly Ranked[],
  order: readonly string[],
): readonly BenchStep[] {
  const hazards = unit.unit.hazards ?? [];
  const work = inRank(drafts, order);
  const refs = [...new Set(work.flatMap((d) => d.refs))];
  const nets = [...new Set(work.flatMap((d) => d.nets))];
  return linked([
    ...safetySteps({ hazards, stored: storedIn(unit) }, refs),
    ...work,
    ...checksBeforePower(end, nets),
    ...powerSteps(end, hazards),
  ]);
}

/** What was said at intake of the largest capacitor, and what the circuit has. */
const storedIn = ({ circuit, intake, unit }: UnitDocument): readonly Stored[] => {
  const likely = likelyStored(circuit, unit.hazards ?? []);
  const said = intake?.stored;
  return said ? [said, ...likely.filter((s) => s.isCautious !== true)] : likely;
};

/**
 * By rank, but what carries the ticks stays in its order, each no earlier than the one before it; what belongs to a tick comes
 * where its own rank says, before the tick or behind it, and never before what was done to the same part ahead of it.
 */
function inRank(drafts: readonly Ranked[], order: readonly string[]): readonly Ranked[] {
  const ticked = drafts
    .filter((d) => d.ticks !== undefined)
    .sort((a, b) => order.indexOf(tickOf(a)) - order.indexOf(tickOf(b)));
  const times: number[] = [];
  for (const tick of ticked) times.push(Math.max(tick.rank, times.at(-1) ?? 0));
  const placed = drafts.map((draft) => {
    const own = ticked.findIndex((tick) => tickOf(tick) === tickOf(draft));
    if (draft.ticks !== undefined) return { draft, time: times[own]!, turn: 3 * own + 1 };
    const isBefore = draft.rank <= ticked[own]!.rank;
    const earliest = Math.max(
      0,
      ...ticked
        .slice(0, own)
        .flatMap((t, i) => (t.refs.some((r) => draft.refs.includes(r)) ? [times[i]!] : [])),
    );
    const time = isBefore
      ? Math.min(Math.max(draft.rank, earliest), times[own]!)
      : Math.max(draft.rank, times[own]!);
    return { draft, time, turn: 3 * own + (isBefore ? 0 : 2) };
  });
  return placed.sort((a, b) => a.time - b.time || a.turn - b.turn).map((p) => p.draft);
}

/** The step of a change that a draft belongs to, whether it ticks it or prepares it: what stands behind the first colon of its id. */
const tickOf = ({ id }: Draft): string => id.slice(id.indexOf(':') + 1);

/** Every step needs the one before it of its own part, and all that makes it safe; power needs every check, a check all work. */
function linked(drafts: readonly Draft[]): readonly BenchStep[] {
  const isWork = (d: Draft) => !FRAME.has(d.kind);
  const before = drafts
    .filter((d) => ['safe', 'discharge', 'dead', 'photograph', 'mark', 'loosen'].includes(d.kind))
    .map((d) => d.id);
  const work = drafts.filter(isWork).map((d) => d.id);
  const checks = drafts.filter((d) => d.kind === 'check').map((d) => d.id);
  let lastPower: string | undefined;
  return drafts.map(({ ...draft }, i): BenchStep => {
    const needs = (() => {
      if (draft.kind === 'check') return work.length > 0 ? work : before;
      if (draft.kind === 'power') return lastPower === undefined ? checks : [lastPower];
      const at = before.indexOf(draft.id);
      if (at >= 0) return at === 0 ? [] : [before[at - 1]!];
      const own = drafts
        .slice(0, i)
        .filter((d) => isWork(d) && shares(d, draft))
        .map((d) => d.id);
      return [...before.slice(-1), ...own];
    })();
    if (draft.kind === 'power') lastPower = draft.id;
    const { rank: _rank, ...plain } = draft as Draft & { readonly rank?: number };
    return { ...plain, needs };
  });
}

const FRAME: ReadonlySet<string> = new Set([
  'safe',
  'discharge',
  'dead',
  'photograph',
  'mark',
  'loosen',
  'check',
  'power',
]);

/** Whether two steps are at one part, or the first lays copper or wire where the second puts something. */
const shares = (first: Draft, second: Draft): boolean =>
  first.refs.some((ref) => second.refs.includes(ref)) ||
  ((first.kind === 'link' || first.kind === 'cut') && first.nets.some((net) => second.nets.includes(net)));

/** A change that is done, taken back: its inverses, the last first. */
function takingBack(unit: UnitDocument, change: Change, drawer: Drawer | undefined): Work {
  const { circuit, changes } = buildLayer(unit.circuit, 'proven');
  const made = changes.find((m) => m.change.id === change.id);
  if (!made || made.made.length === 0) return { steps: [], problems: made?.problem ? [made.problem] : [] };
  const { made: steps } = made;
  const later = standingOn(changes.slice(changes.indexOf(made) + 1), change);
  const end = later.length > 0 ? endOnTop(circuit, change) : withoutChange(unit.circuit, change.id);
  const drafts = undoDrafts(change, steps, sceneOf(end, drawer));
  return {
    steps: framed(unit, end, drafts, drafts.map(tickOf)),
    problems: later.map((l) => problem('change/stood-on', { text: change.name, detail: l.name })),
  };
}

/** Changes that came later and are at parts or nets that a change brought. */
function standingOn(later: readonly MadeChange[], change: Change): readonly Change[] {
  const own = placesOf(change);
  const brought = new Set([
    ...change.steps.flatMap((s) => (s.do === 'add' ? [s.part.ref] : s.do === 'fit' ? [s.ref] : [])),
    ...change.steps.flatMap((s) => (s.do === 'cut' ? [s.as] : [])),
    ...own.nets.filter((net) => change.steps.some((s) => s.do === 'move' && s.to === net)),
  ]);
  return later
    .map((m) => m.change)
    .filter((c) => {
      const { refs, nets } = placesOf(c);
      return [...refs, ...nets].some((place) => brought.has(place));
    });
}

/** The circuit as it lies on the bench once a change is taken back on which none stands. */
const withoutChange = (circuit: Circuit, id: string): LayerCircuit =>
  buildLayer({ ...circuit, changes: (circuit.changes ?? []).filter((c) => c.id !== id) }, 'proven').circuit;

/** What hands leave of a circuit when they take a change back under others: its parts are out, its cuts bridged, all else stays. */
function endOnTop(circuit: LayerCircuit, change: Change): LayerCircuit {
  const out = new Set(change.steps.flatMap((s) => (s.do === 'add' ? [s.part.ref] : [])));
  const bridged = new Map(change.steps.flatMap((s) => (s.do === 'cut' ? [[s.as, s.net] as const] : [])));
  const parts = circuit.parts
    .filter((p) => !out.has(p.ref))
    .map((p) => ({
      ...p,
      pins: Object.fromEntries(Object.entries(p.pins).map(([pin, net]) => [pin, bridged.get(net) ?? net])),
    }));
  return { ...circuit, parts };
}

/** A unit that is built from nothing: board first, then the parts by their height, wires, chips. */
function wholeUnit(unit: UnitDocument, drawer: Drawer | undefined): Work {
  const circuit = buildLayer(unit.circuit, 'planned').circuit;
  const scene = sceneOf(circuit, drawer);
  const wired = wiredRefs(circuit, unit.wires ?? []);
  const [board] = unit.boards ?? [];
  const parts = printedParts(unit.circuit, 'planned').filter(
    (p) => belongsOnBoard(p, wired) || wired.has(p.ref) || isOffBoard(p),
  );
  const drafts = parts
    .filter((p) => p.kind !== 'supply' && p.kind !== 'signal' && p.kind !== 'load')
    .flatMap((part) => [
      ...socketDraft(part.ref, part),
      fitDraft(part.ref, part, scene, 'It belongs to the unit.', 'new'),
    ]);
  const work = [...(board ? boardDrafts(board) : []), ...drafts, ...wireDrafts(unit)].sort(
    (a, b) => a.rank - b.rank,
  );
  if (work.length === 0) return { steps: [], problems: [] };
  const prepare: Draft = {
    id: 'prepare',
    kind: 'mark',
    say: 'Lay all parts out by the list and measure each before it goes in.',
    why: 'A wrong value is found in a second now, and in an evening later.',
    refs: work.flatMap((d) => d.refs),
    nets: [],
  };
  const nets = [...new Set(work.flatMap((d) => d.nets))];
  const hazards = unit.unit.hazards ?? [];
  return {
    steps: linked([prepare, ...work, ...checksBeforePower(circuit, nets), ...powerSteps(circuit, hazards)]),
    problems: [],
  };
}

/** Cuts and links of a board, before any part. */
function boardDrafts(board: Board): Ranked[] {
  const cuts = board.cuts.map((hole): Ranked => ({
    id: `${board.id}:cut:${hole.join()}`,
    kind: 'cut',
    say: `Cut the strip at ${holeWords(hole)}, seen from the parts' side, and check with a lens that no hair of copper is left.`,
    why: 'A cut is easy while nothing is on the board.',
    refs: [],
    nets: [],
    rank: PHASE.cut,
  }));
  const links = board.links.map(({ from, to }): Ranked => ({
    id: `${board.id}:link:${from.join()}-${to.join()}`,
    kind: 'link',
    say: `Fit the link from ${holeWords(from)} to ${holeWords(to)}.`,
    why: 'Links lie under the parts, so they come before them.',
    refs: [],
    nets: [],
    rank: PHASE.link,
  }));
  return [...cuts, ...links];
}

/** Wires of the wiring map. */
const wireDrafts = ({ wires = [] }: UnitDocument): Ranked[] =>
  wires.map((wire) => ({
    id: `wire:${wire.id}`,
    kind: 'wire',
    say: `Wire ${wire.from} to ${wire.to}${wire.colour === undefined ? '' : `, ${wire.colour}`}${wire.length === undefined ? '' : `, ${typeof wire.length === 'number' ? `${wire.length} mm` : wire.length}`}.`,
    why: wire.note ?? 'Wires off the board come last, so that the board lies flat until then.',
    refs: [wire.from, wire.to].flatMap((end) =>
      end.includes('.') && !end.startsWith('board.') ? [end.slice(0, end.lastIndexOf('.'))] : [],
    ),
    nets: wire.net === undefined ? [] : [wire.net],
    rank: PHASE.fit + WIRES_RANK,
  }));
const WIRES_RANK = 10.5;
