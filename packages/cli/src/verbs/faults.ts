import {
  faultDictionary,
  HARDLY_TELLS,
  measuredInEvidence,
  measuringMinutes,
  resolveLayer,
  searchParts,
  searchQuantities,
  tellingReadings,
  type Quantity,
} from '@zemble/core';
import { loadBench } from '../file.ts';
import { NoAnswer } from '../no-answer.ts';
import type { Options } from '../options.ts';

/** Next measurements that are printed: those that tell most a minute. */
const SHOWN_NEXT = 5;

/** `faults FILE [--layer marked]` */
export async function faults(options: Options): Promise<unknown> {
  const unit = await loadBench(options);
  const circuit = resolveLayer(unit.circuit, options.layer());
  const { measured, leftOut } = measuredInEvidence(unit);
  const quantities = searchQuantities(
    circuit,
    measured.map((m) => m.quantity),
  );
  const found = searchParts(
    faultDictionary(circuit, quantities),
    quantities,
    measured.map((m) => m.value),
    measured.map((m) => m.isSure === true),
  );
  if (found.sound.every((value) => value === null))
    throw new NoAnswer(
      'The circuit has no operating point, so nothing that was measured can be compared with it: `zemble op` says why.',
    );
  const [first] = found.groups;
  const isStuck = (found.next[0]?.bits ?? 0) < HARDLY_TELLS && (first?.members.length ?? 0) > 1;
  const readings = isStuck ? tellingReadings(circuit, first!.members) : [];
  const netOf = (q: Quantity) => (q.kind === 'dcv' || q.kind === 'level' ? q.net : `${q.red} to ${q.black}`);
  return {
    faults: found.groups
      .flatMap((g) => g.members)
      .map(({ ref, mode, probability }) => ({ ref, fault: mode, chance: probability }))
      .sort((a, b) => b.chance - a.chance),
    nothing: found.nothingWrong,
    somethingElse: found.somethingElse,
    ...(found.isUnexplained ? { unexplained: true } : {}),
    next: [
      ...found.next.map(({ quantity, bits, why, isAgain }) => ({
        net: netOf(quantity),
        quantity: quantity.kind,
        bits,
        minutes: measuringMinutes(unit, quantity),
        why,
        ...(isAgain ? { again: true } : {}),
      })),
      ...readings.map(({ quantity, ref, bits, why }) => ({
        net: netOf(quantity),
        quantity: quantity.kind,
        part: ref,
        bits,
        minutes: measuringMinutes(unit, quantity),
        why,
      })),
    ]
      .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
      .slice(0, SHOWN_NEXT),
    ...(found.unexplained.length > 0
      ? {
          doubtful: found.unexplained.map((i) => ({
            net: netOf(quantities[i]!),
            quantity: quantities[i]!.kind,
            reading: measured[i]!.value,
          })),
        }
      : {}),
    ...(leftOut.length > 0 ? { ignored: leftOut } : {}),
    ...(found.uncomputed.length > 0 ? { notComputed: found.uncomputed } : {}),
  };
}
