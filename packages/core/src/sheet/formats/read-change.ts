import {
  type Change,
  type FileChange,
  type FilePart,
  type FileStep,
  type LayerValue,
  type Part,
  type PartKind,
  type Step,
} from '@zemble/contract';
import { fitChange } from '../../circuit/changes/index.ts';
import { kindOfRef } from '../../circuit/circuit/index.ts';
import type { Problem } from '../../base/errors/index.ts';
import { readMainValue, readPart, type UnreadPart } from './read-fields.ts';

/**
 * Changes of a file or a record, every text a number in SI units. Fields of a fit are read as those of the part that it is
 * for; what cannot be read is left out and reported with its place.
 */
export function readChanges(
  changes: readonly FileChange[],
  parts: readonly Pick<Part, 'ref' | 'kind'>[],
  problems: Problem[],
): Change[] {
  const kinds = new Map<string, PartKind>(parts.map((p) => [p.ref, p.kind]));
  for (const change of changes)
    for (const step of change.steps) if (step.do === 'add') kinds.set(step.part.ref, step.part.kind);
  const kindOf = (ref: string): PartKind => kinds.get(ref) ?? kindOfRef(ref) ?? 'box';
  return changes.map((change, i) => {
    const where = `changes[${i}] (${change.name})`;
    const steps = change.steps.map((step, k) => readStep(step, `${where}.steps[${k}]`, kindOf, problems));
    return { ...change, steps };
  });
}

function readStep(
  step: FileStep,
  where: string,
  kindOf: (ref: string) => PartKind,
  problems: Problem[],
): Step {
  switch (step.do) {
    case 'fit': {
      const { value: _value, part: _part, ...rest } = step;
      const own = readFit(step, kindOf(step.ref), where, problems);
      return { ...rest, ...own };
    }
    case 'add':
      return { ...step, part: readPart(step.part, `${where}.part`, problems) };
    default:
      return step;
  }
}

/** What a fit says of the part that it puts in, read as fields of that kind. */
function readFit(
  { ref, value, part }: Extract<FileStep, { do: 'fit' }>,
  kind: PartKind,
  where: string,
  problems: Problem[],
): { value?: LayerValue; part?: Readonly<Record<string, unknown>> } {
  const read = readMainValue(value ?? null, kind, `${where}.value`, problems);
  const unread: UnreadPart = { ...part, ref, kind, pins: {} };
  const { ref: _ref, kind: _kind, pins: _pins, ...fields } = readPart(unread, `${where}.part`, problems);
  return {
    ...(read === null ? {} : { value: read }),
    ...(Object.keys(fields).length > 0 ? { part: fields } : {}),
  };
}

/** The planned values that parts of a file have: short for a fit each, of purpose repair. */
export function plannedOf(parts: readonly FilePart[], problems: Problem[]): Change[] {
  return parts.flatMap(({ ref, kind, planned }, i) => {
    const where = `circuit.parts[${i}] (${ref}).planned`;
    const read = readMainValue(planned ?? null, kind, where, problems);
    return read === null ? [] : [fitChange(`planned-${ref}`, new Map([[ref, read]]))];
  });
}
