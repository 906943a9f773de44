import type { Step } from '@zemble/contract';
import { resolvePart, withControl, type Circuit, type ControlState, type Part } from '../circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';

/**
 * A circuit with its controls at other positions, those that changes add included. Throws `circuit/unknown-part` for one
 * that is not there, and `circuit/bad-value` for a position that it cannot take.
 */
export function withControls(circuit: Circuit, controls: Readonly<Record<string, ControlState>>): Circuit {
  const left = new Set(Object.keys(controls));
  const states = new Map(Object.entries(controls));
  const turn = (part: Part): Part => {
    const state = states.get(part.ref);
    if (state === undefined) return part;
    left.delete(part.ref);
    const turned = withControl(resolvePart(part, 'marked'), state);
    if (!turned)
      throw new ZembleError('circuit/bad-value', {
        ref: part.ref,
        detail: `it cannot stand at ${String(state)}`,
      });
    const { value: _value, ...fields } = turned;
    return { ...part, ...fields } as Part;
  };
  const turnIn = (step: Step): Step => (step.do === 'add' ? { ...step, part: turn(step.part) } : step);
  const parts = circuit.parts.map(turn);
  const changes = circuit.changes?.map((c) => ({ ...c, steps: c.steps.map(turnIn) }));
  const [gone] = left;
  if (gone !== undefined) throw new ZembleError('circuit/unknown-part', { ref: gone, where: 'The setting' });
  return { ...circuit, parts, ...(changes ? { changes } : {}) };
}

/** A circuit with another of its sets active. Throws `change/unknown-set`. */
export function withActiveSet(circuit: Circuit, id: string): Circuit {
  if (!circuit.sets?.some((s) => s.id === id)) throw new ZembleError('change/unknown-set', { text: id });
  return { ...circuit, sets: circuit.sets.map((s) => ({ ...s, active: s.id === id })) };
}
