import type { Readout } from '@zemble/contract';
import { namesIn } from '../../circuit/changes/index.ts';
import {
  netsOf,
  readoutFields,
  unknownReadoutNames,
  type Circuit,
  type Setting,
} from '../../circuit/circuit/index.ts';
import { tracedNames } from '../../circuit/continuity/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';

/** What is wrong with readouts: nets, parts, readouts and settings that are not there, and what is missing or unknown. */
export const checkReadouts = (
  circuit: Circuit,
  readouts: readonly Readout[],
  settings: readonly Setting[] = [],
): Problem[] => readouts.flatMap((r) => checkReadout(circuit, r, readouts, settings));

function checkReadout(
  circuit: Circuit,
  readout: Readout,
  readouts: readonly Readout[],
  settings: readonly Setting[],
): Problem[] {
  // What a change adds can be read too, where the change is made.
  const { refs, nets: made } = namesIn(circuit.changes ?? []);
  const nets = new Set([...netsOf(circuit), ...made, ...tracedNames(circuit).keys()]);
  const parts = new Set([...circuit.parts.map((p) => p.ref), ...refs]);
  const where = `Readout "${readout.name}"`;
  const undefinedBecause = (detail: string) =>
    problem('readout/not-defined', { where: `"${readout.name}"`, detail });
  const checkName = (name: string, of: string): Problem[] => {
    switch (of) {
      case 'net':
        return nets.has(name) ? [] : [problem('circuit/unknown-net', { net: name, where })];
      case 'net or source':
        if (nets.has(name) && parts.has(name))
          return [undefinedBecause(`"${name}" is a net and a part: give one of them another name`)];
        return nets.has(name) || parts.has(name)
          ? []
          : [problem('circuit/unknown-net', { net: name, where })];
      case 'readout':
        return readouts.some((r) => r.id === name) ? [] : [undefinedBecause(`there is no readout "${name}"`)];
      case 'setting':
        return settings.some((s) => s.id === name) ? [] : [undefinedBecause(`there is no setting "${name}"`)];
      default:
        return parts.has(name) ? [] : [problem('circuit/unknown-part', { ref: name, where })];
    }
  };
  return [
    ...readoutFields(readout).flatMap(({ name, field, value }) => {
      if (value === undefined)
        return field.isNeeded === true ? [undefinedBecause(`"${name}" is missing`)] : [];
      if (field.type === 'name' && typeof value === 'string') return checkName(value, field.of);
      if (field.type === 'settings' && Array.isArray(value))
        return value.flatMap((id) => checkName(String(id), 'setting'));
      return [];
    }),
    ...unknownReadoutNames(readout).map((u) =>
      problem('circuit/unknown-field', {
        where,
        text: u.name,
        detail: `readout of kind ${readout.kind}`,
        resembles: u.resembles,
      }),
    ),
  ];
}
