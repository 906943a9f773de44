import type { Change } from '@zemble/contract';
import { placesOf, undoSentences, type MadeChange } from '../../circuit/changes/index.ts';
import type { StepKind } from './bench-step.ts';
import { fitCaution } from './part-words.ts';
import { PHASE, type Ranked, type Scene } from './work.ts';

const KINDS: Readonly<Record<string, StepKind>> = {
  fit: 'fit',
  add: 'take out',
  remove: 'fit',
  lift: 'link',
  cut: 'link',
  join: 'unsolder',
  move: 'unsolder',
};

/** The way back of a change, its last step first: each takes one step back. */
export function undoDrafts(change: Change, made: MadeChange['made'], { bearings }: Scene): Ranked[] {
  const sentences = undoSentences(change, made[0]!.before);
  return change.steps
    .map((step, index) => ({ step, index }))
    .reverse()
    .map(({ step, index }, i): Ranked => {
      const { inverse, before } = made[index]!;
      const part =
        inverse.do === 'refit' || inverse.do === 'put back'
          ? (inverse.unmeasured ?? inverse.part)
          : undefined;
      const places = placesOf({ steps: [step] });
      const caution = part ? fitCaution(part, bearings.get(part.ref)) : undefined;
      const nets = part
        ? Object.values(part.pins)
        : before.parts.filter((p) => places.refs.includes(p.ref)).flatMap((p) => Object.values(p.pins));
      return {
        id: `back:${change.id}.${index}`,
        kind: KINDS[step.do]!,
        say: sentences[i]!,
        why: `It takes back: ${change.name}.`,
        refs: places.refs,
        nets: [...new Set([...places.nets, ...nets])],
        ...(caution === undefined ? {} : { caution }),
        ticks: { change: change.id, step: index },
        // In this order, whatever they are.
        rank: PHASE.takeOut + i,
      };
    });
}
