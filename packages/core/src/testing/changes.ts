import type { Step } from '@zemble/contract';
import { applyStep, type ChangedCircuit } from '../circuit/changes/apply.ts';
import { resolvePart, type Circuit } from '../circuit/circuit/index.ts';
import { seededRandom } from '../base/numeric/index.ts';

/** A circuit as it was found, ready for steps to be made to it. */
export const changed = (circuit: Circuit): ChangedCircuit => ({
  ground: circuit.ground,
  parts: circuit.parts.map((p) => resolvePart(p, 'found')),
  renamed: new Map(),
  loose: [],
  came: new Map(circuit.parts.map((p) => [p.ref, p])),
  unmeasured: new Map(),
});

/** Steps that can be made one after another, each chosen from the circuit as it is by then. */
export function randomSteps(circuit: Circuit, seed: number): Step[] {
  const random = seededRandom(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  let now = changed(circuit);
  const steps: Step[] = [];
  for (let i = 0; i < 6; i += 1) {
    const pins = now.parts.flatMap((p) =>
      Object.entries(p.pins).map(([pin, net]) => ({ ref: p.ref, pin, net })),
    );
    const nets = [...new Set(pins.map((p) => p.net))];
    const at = pick(pins);
    const others = pins.filter((p) => p.net === at.net && p !== at);
    const tried: Step[] = [
      { do: 'fit', ref: at.ref, value: 1000 * (i + 1) },
      {
        do: 'add',
        part: { ref: `X${seed}_${i}`, kind: 'resistor', pins: { a: pick(nets), b: pick(nets) }, marked: 47 },
      },
      {
        do: 'add',
        part: {
          ref: `Y${seed}_${i}`,
          kind: 'capacitor',
          pins: { a: pick(nets), b: `new${i}` },
          marked: 1e-9,
        },
      },
      { do: 'remove', ref: at.ref },
      { do: 'lift', pin: `${at.ref}.${at.pin}` },
      {
        do: 'cut',
        net: at.net,
        pins: others.slice(0, Math.ceil(others.length / 2)).map((p) => `${p.ref}.${p.pin}`),
        as: `cut${i}`,
      },
      { do: 'join', net: at.net, to: pick(nets) },
      { do: 'move', pin: `${at.ref}.${at.pin}`, to: pick([...nets, `far${i}`]) },
    ];
    const step = pick(tried);
    const outcome = applyStep(now, step);
    if (!outcome.ok) continue;
    steps.push(step);
    now = outcome.circuit;
  }
  return steps;
}
