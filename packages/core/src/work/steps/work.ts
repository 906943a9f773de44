import type { Change } from '@zemble/contract';
import { bodyOf, lookOf } from '../bodies/index.ts';
import { applyStep, readPin, unmeasuredPart, type ChangedCircuit } from '../../circuit/changes/index.ts';
import { resolvePart, type LayerPart } from '../../circuit/circuit/index.ts';
import type { Bearing } from '../../bench/judge/index.ts';
import { netWords } from './net-words.ts';
import type { Draft, Ticks } from './bench-step.ts';
import type { PlannedStep } from './order.ts';
import {
  assemblyRank,
  fitCaution,
  isOffBoard,
  isSocketed,
  legsWords,
  nameOf,
  SOCKET_RANK,
} from './part-words.ts';

/** A draft with when it is done among the others, lower first. */
export interface Ranked extends Draft {
  readonly rank: number;
}

/** Where the phases of the work begin; parts are in between by their height. */
export const PHASE = { takeOut: 100, clean: 200, unsolder: 300, cut: 400, link: 500, fit: 600 } as const;

/** What is known while a step is described. */
export interface Scene {
  readonly bearings: ReadonlyMap<string, Bearing>;
  /** What the circuit would ask too much of a part, or what hangs in the air at it, a sentence by designator. */
  readonly warnings: ReadonlyMap<string, string>;
  /** Where a part that goes in comes from, in words. */
  readonly fetched: (part: LayerPart) => string | undefined;
}

/** When the step of a change that is ticked is done. */
export function rankOf({ step }: PlannedStep, partOf: (ref: string) => LayerPart | undefined): number {
  switch (step.do) {
    case 'remove':
      return PHASE.takeOut;
    case 'lift':
    case 'move':
      return PHASE.unsolder;
    case 'cut':
      return PHASE.cut;
    case 'join':
      return PHASE.link;
    case 'add':
      return PHASE.fit + assemblyRank(resolvePart(step.part, 'marked'));
    case 'fit': {
      const part = partOf(step.ref);
      return PHASE.fit + (part ? assemblyRank(part) : 0);
    }
  }
}

const heatWords = 'Two seconds of iron at a time; a pad that is held too long comes off.';

/** How a part comes out: clipped where it is scrap, unsoldered whole where it is kept. */
function takeOutWords(
  part: LayerPart,
  isScrap: boolean,
): { readonly say: string; readonly why: string; readonly caution: string } {
  const legs = Object.keys(part.pins).length;
  if (isSocketed(part))
    return {
      say: `Take ${nameOf(part)} out of its socket, straight up; if it is soldered in, clip every leg and pull them one at a time.`,
      why: 'A leg that bends under the body is a fault for the next evening.',
      caution: 'Mark where pin 1 was before it is out.',
    };
  if (isOffBoard(part))
    return {
      say: `Unsolder the wires of ${nameOf(part)}, each marked with its colour and lug.`,
      why: 'The lugs look alike when the wires are off.',
      caution: heatWords,
    };
  return isScrap
    ? {
        say: `Take ${nameOf(part)} out: it is scrap, so clip its ${legs} legs at the body and pull them one at a time; the body goes into the bag marked ${part.ref}.`,
        why: 'A leg by itself comes out with one touch of the iron; a whole part needs all its pads hot at once.',
        caution: heatWords,
      }
    : {
        say: `Take ${nameOf(part)} out whole: fresh solder on each joint, then braid or sucker; it goes into the bag marked ${part.ref}.`,
        why: 'It is kept, so that the work can be undone.',
        caution: heatWords,
      };
}

const cleanDraft = (id: string, ref: string, nets: readonly string[]): Ranked => ({
  id: `clean:${id}`,
  kind: 'clean',
  say: `Clear the holes of ${ref} with braid, and wipe the flux off.`,
  why: 'A leg that is pushed through a plugged hole lifts the pad on the other side.',
  refs: [ref],
  nets: [...new Set(nets)],
  rank: PHASE.clean,
});

/** A step with what is amiss with its part behind its other cautions. */
function warned(draft: Ranked, warnings: Scene['warnings']): Ranked {
  const amiss = draft.refs.flatMap((ref) => warnings.get(ref) ?? []);
  if (amiss.length === 0) return draft;
  const caution = [draft.caution, `Before it is soldered: ${amiss.join(' ')}`].filter((c) => c !== undefined);
  return { ...draft, caution: caution.join(' ') };
}

/** The bench steps of one step of a change; the last of them carries its tick. */
export function draftsFor(
  planned: PlannedStep,
  before: ChangedCircuit,
  after: ChangedCircuit,
  scene: Scene,
): readonly Ranked[] {
  const { warnings } = scene;
  const { change, step, index } = planned;
  const id = `${change.id}.${index}`;
  const tick: { readonly ticks: Ticks; readonly done: Draft['done'] } = {
    ticks: { change: change.id, step: index },
    done: step.done,
  };
  // What is printed on it is what hands see, not what it measures.
  const old = step.do === 'fit' || step.do === 'remove' ? unmeasuredPart(before, step.ref) : undefined;
  const why = reasonOf(change);
  switch (step.do) {
    case 'remove':
      return [{ ...takenOut(id, old!, change), ...tick }, cleanDraft(id, old!.ref, Object.values(old!.pins))];
    case 'fit': {
      const part = after.parts.find((p) => p.ref === step.ref)!;
      return [
        takenOut(id, old!, change),
        ...(isSocketed(part) || isOffBoard(part) ? [] : [cleanDraft(id, part.ref, Object.values(part.pins))]),
        { ...warned(fitDraft(id, part, scene, why, 'instead'), warnings), ...tick },
      ];
    }
    case 'add': {
      const part = after.parts.find((p) => p.ref === step.part.ref)!;
      return [
        ...socketDraft(id, part),
        { ...warned(fitDraft(id, part, scene, why, 'new'), warnings), ...tick },
      ];
    }
    case 'lift': {
      const at = readPin(before, step.pin);
      const net = at.ok ? at.net : '';
      return [
        {
          id: `do:${id}`,
          kind: 'unsolder',
          say: `Lift ${step.pin} out of ${netWords(before, net)}: heat the joint and pull that leg only.`,
          why,
          refs: at.ok ? [at.ref] : [],
          nets: [net],
          caution: 'Leave the leg where it cannot touch anything.',
          rank: PHASE.unsolder,
          ...tick,
        },
      ];
    }
    case 'move': {
      const at = readPin(before, step.pin);
      const from = at.ok ? at.net : '';
      return [
        {
          id: `do:${id}`,
          kind: 'unsolder',
          say: `Take ${step.pin} off ${netWords(before, from)} and put it on ${netWords(after, step.to)}.`,
          why,
          refs: at.ok ? [at.ref] : [],
          nets: [from, step.to],
          rank: PHASE.unsolder,
          ...tick,
        },
      ];
    }
    case 'cut':
      return [
        {
          id: `do:${id}`,
          kind: 'cut',
          say: `Cut the track of ${step.net} so that ${step.pins.join(', ')} ${step.pins.length === 1 ? 'is' : 'are'} on a piece of ${step.pins.length === 1 ? 'its' : 'their'} own (${step.as}): two cuts a millimetre apart, lift the sliver, then check that it does not beep.`,
          why,
          refs: [...new Set(step.pins.map((p) => p.slice(0, p.lastIndexOf('.'))))],
          nets: [step.net, step.as],
          caution: 'Scrape the lacquer off beside the cut for the way back, and note it on the photo.',
          rank: PHASE.cut,
          ...tick,
        },
      ];
    case 'join':
      return [
        {
          id: `do:${id}`,
          kind: 'link',
          say: `Wire ${netWords(before, step.net)} to ${netWords(before, step.to)}, insulated, flat on the board.`,
          why,
          refs: [],
          nets: [step.net, step.to],
          rank: PHASE.link,
          ...tick,
        },
      ];
  }
}

const reasonOf = ({ name, why }: Change): string =>
  why === undefined || why === '' ? `It belongs to: ${name}.` : `${name}: ${why}`;

function takenOut(id: string, part: LayerPart, change: Change): Ranked {
  return {
    id: `out:${id}`,
    kind: 'take out',
    ...takeOutWords(part, change.purpose === 'repair'),
    refs: [part.ref],
    nets: [...new Set(Object.values(part.pins))],
    rank: PHASE.takeOut,
  };
}

/** The socket of a chip or valve that goes in anew. */
export function socketDraft(id: string, part: LayerPart): Ranked[] {
  if (!isSocketed(part)) return [];
  return [
    {
      id: `socket:${id}`,
      kind: 'fit',
      say: `Fit the socket of ${part.ref}, its notch where pin 1 will be.`,
      why: 'A chip in a socket is changed in a second, and no iron comes near it.',
      refs: [part.ref],
      nets: [...new Set(Object.values(part.pins))],
      caution: 'The notch of the socket is what everybody goes by later.',
      rank: PHASE.fit + SOCKET_RANK,
    },
  ];
}

/** A part that goes in. */
export function fitDraft(
  id: string,
  part: LayerPart,
  { bearings, fetched }: Scene,
  why: string,
  as: 'new' | 'instead',
): Ranked {
  const look = lookOf(part);
  const caution = fitCaution(part, bearings.get(part.ref));
  const from = fetched(part);
  const kind = isSocketed(part) ? 'chip' : isOffBoard(part) ? 'wire' : 'fit';
  const verb = { chip: 'Put', wire: 'Wire', fit: 'Fit' }[kind];
  const where = kind === 'chip' ? `${legsWords(part)}, into its socket` : legsWords(part);
  const printed = look.words === '' ? '' : ` (${look.words})`;
  const height = bodyOf(part).heightMm;
  return {
    id: `do:${id}`,
    kind,
    say: `${verb} ${nameOf(part)}${printed}${as === 'instead' ? ', in the place of the old one' : ''}${from === undefined ? '' : `, ${from}`}: ${where}.`,
    why: kind === 'fit' ? `${why} Low parts go in first: it is ${Math.round(height)} mm high.` : why,
    refs: [part.ref],
    nets: [...new Set(Object.values(part.pins))],
    ...(caution === undefined ? {} : { caution }),
    rank: PHASE.fit + assemblyRank(part),
  };
}

/** The circuits before and after each of some steps, made one after the other; steps that cannot be made are left out. */
export function playThrough(
  start: ChangedCircuit,
  steps: readonly PlannedStep[],
): readonly {
  readonly planned: PlannedStep;
  readonly before: ChangedCircuit;
  readonly after: ChangedCircuit;
}[] {
  let now = start;
  return steps.flatMap((planned) => {
    const made = applyStep(now, planned.step);
    if (!made.ok) return [];
    const before = now;
    now = made.circuit;
    return [{ planned, before, after: now }];
  });
}
