import type { BenchTicks, UnitResource } from '@zemble/contract';
import { isTemporary } from '@zemble/contract';
import { ledgerOf, reportChanges } from '../../circuit/changes/index.ts';
import { printedText, type Circuit } from '../../circuit/circuit/index.ts';
import { takenOut } from '../drawer/index.ts';

/** Something that is open before a unit can be closed. */
export interface OpenThing {
  /** Its tick says that it is done, where no change does. */
  readonly id: string;
  readonly kind: 'temporary' | 'step' | 'bag' | 'leg';
  /** What is open: a sentence. */
  readonly sentence: string;
  /** What must be done: a sentence. */
  readonly undo: string;
  /** What is pressed when it is done. */
  readonly press: string;
  readonly change?: string;
  readonly refs: readonly string[];
}

type Readings = readonly Pick<
  UnitResource['readings'][number],
  'id' | 'partId' | 'ref' | 'condition' | 'withdrawn' | 'takenAt'
>[];

/**
 * Whether everything is back: temporary changes in force, changes of which only some steps are done, parts that lie in a bag, and
 * parts whose last reading was taken with a leg lifted.
 *
 * @param refs designators of the parts as they came, by their ids in the record
 */
export function openThings(
  circuit: Circuit,
  readings: Readings,
  refs: ReadonlyMap<string, string>,
  ticks: BenchTicks,
): OpenThing[] {
  const reports = reportChanges(circuit);
  const isTicked = (id: string) => Object.hasOwn(ticks, id);
  const temporary = ledgerOf(reports).map(({ id, sentence, undo, refs: at }): OpenThing => ({
    id: `ledger:${id}`,
    kind: 'temporary',
    sentence,
    undo,
    press: 'It is back',
    change: id,
    refs: at,
  }));
  const begun = reports.flatMap(({ change, does }): OpenThing[] => {
    const done = change.steps.filter((s) => s.done !== undefined).length;
    if (change.state !== 'planned' || done === 0) return [];
    const next = does[change.steps.findIndex((s) => s.done === undefined)] ?? '';
    return [
      {
        id: `begun:${change.id}`,
        kind: 'step',
        sentence: `${change.name}: ${done} of ${change.steps.length} steps are done.`,
        undo: next === '' ? 'All of them are ticked: say that it is done.' : `Next: ${next}.`,
        press: 'To the steps',
        change: change.id,
        refs: [],
      },
    ];
  });
  const lasting = new Set((circuit.changes ?? []).filter((c) => !isTemporary(c)).map((c) => c.id));
  const bags = takenOut(circuit)
    .filter(({ changeId, ref }) => lasting.has(changeId) && !isTicked(`bag:${changeId}:${ref}`))
    .map(({ wanted, ref, changeId }): OpenThing => {
      const part = circuit.parts.find((p) => p.ref === ref);
      const printed = part ? printedText(part, wanted.value) : String(wanted.value);
      return {
        id: `bag:${changeId}:${ref}`,
        kind: 'bag',
        sentence: `The old ${ref} ${printed} lies in the bag marked ${ref}.`,
        undo: 'Tie the bag to the unit, or put the part into the drawer.',
        press: 'The bag is with the unit',
        change: changeId,
        refs: [ref],
      };
    });
  return [...temporary, ...begun, ...bags, ...legsOut(readings, refs, ticks)];
}

/** Parts whose last reading was taken with a leg lifted, and of which nobody has said that the leg is back. */
function legsOut(readings: Readings, refs: ReadonlyMap<string, string>, ticks: BenchTicks): OpenThing[] {
  const last = new Map<string, Readings[number]>();
  for (const reading of readings) {
    const ref = reading.ref ?? (reading.partId === null ? undefined : refs.get(reading.partId));
    if (ref === undefined || reading.withdrawn) continue;
    const known = last.get(ref);
    if (!known || known.takenAt <= reading.takenAt) last.set(ref, reading);
  }
  return [...last].flatMap(([ref, { id, condition }]): OpenThing[] =>
    condition !== 'leg lifted' || Object.hasOwn(ticks, `leg:${id}`)
      ? []
      : [
          {
            id: `leg:${id}`,
            kind: 'leg',
            sentence: `${ref} was last read with a leg lifted.`,
            undo: `Solder the leg of ${ref} back, and look at the joint.`,
            press: 'It is soldered',
            refs: [ref],
          },
        ],
  );
}
