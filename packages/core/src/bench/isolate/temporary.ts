import type { Step } from '@zemble/contract';
import { FreeNames, resolveLayer } from '../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit } from '../../circuit/circuit/index.ts';
import { CONDITIONS } from './evidence.ts';
import type { Path } from './path.ts';

/** Something that a test is made with and that must come back: what goes on the ledger. */
export interface Temporary {
  readonly name: string;
  /** The condition under which everything is seen while it is in force. */
  readonly condition?: string;
  /** What it does to the circuit; nothing where the parts are not traced. */
  readonly steps: readonly Step[];
}

const LOADS: ReadonlySet<string> = new Set(['speaker', 'load', 'headphone']);

/**
 * What has to come back after a test under a condition: a block that was disconnected, a load that was taken off or that a
 * dummy stands in for. Null for a condition that leaves nothing behind, as "warm", and for a block that is not there.
 *
 * @param circuit as it came, with its changes; the steps are those of the bench as it lies now
 */
export function temporaryFor(
  condition: string,
  path: Pick<Path, 'blocks'>,
  circuit: Circuit,
): Temporary | null {
  const now = resolveLayer(circuit, 'proven');
  if (condition.startsWith(CONDITIONS.disconnected)) {
    const id = condition.slice(CONDITIONS.disconnected.length);
    const block = path.blocks.find((b) => b.id === id);
    return block
      ? {
          name: `${block.name} disconnected`,
          condition,
          steps: cutOff(block.parts, now, new FreeNames(circuit, now)),
        }
      : null;
  }
  const loads = now.parts.filter((p) => LOADS.has(p.kind));
  const refs = loads.map((p) => p.ref).join(', ');
  if (condition === CONDITIONS.unloaded)
    return {
      name: `${refs || 'Load'} taken off`,
      condition,
      steps: loads.map(({ ref }) => ({ do: 'remove', ref })),
    };
  if (condition !== CONDITIONS.dummyLoad) return null;
  const names = new FreeNames(circuit, now);
  const steps = loads.flatMap((load): Step[] => {
    const ohm = typeof load.value === 'number' ? load.value : 're' in load ? load.re : undefined;
    if (ohm === undefined) return [];
    const dummy = { ref: names.ref('R'), kind: 'resistor', pins: load.pins, marked: ohm } as const;
    return [
      { do: 'remove', ref: load.ref },
      { do: 'add', part: dummy },
    ];
  });
  return { name: `Dummy load${refs === '' ? '' : ` for ${refs}`}`, condition, steps };
}

/** A fuse that is taken out to be measured. */
export function fuseOut(refs: readonly string[], circuit: Circuit): Temporary {
  const fuses = resolveLayer(circuit, 'proven').parts.filter((p) => p.kind === 'fuse');
  const meant = fuses.filter((p) => refs.includes(p.ref));
  const out = meant.length > 0 ? meant : fuses.length === 1 ? fuses : [];
  const words = out.map((p) => p.ref).join(', ') || 'Fuse';
  return { name: `${words} taken out`, steps: out.map(({ ref }) => ({ do: 'remove', ref })) };
}

/** Every net that some parts share with others, but for the ground, opened between the two. */
function cutOff(refs: readonly string[], { parts, ground }: LayerCircuit, names: FreeNames): Step[] {
  const own = parts.filter((p) => refs.includes(p.ref));
  const rest = new Set(parts.filter((p) => !refs.includes(p.ref)).flatMap((p) => Object.values(p.pins)));
  const pins = new Map<string, string[]>();
  for (const part of own)
    for (const [pin, net] of Object.entries(part.pins))
      if (net !== ground && rest.has(net)) pins.set(net, [...(pins.get(net) ?? []), `${part.ref}.${pin}`]);
  return [...pins].map(([net, at]) => ({ do: 'cut', net, pins: at, as: names.net(`${net}_off`) }));
}
