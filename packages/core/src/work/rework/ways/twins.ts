import { channelTwins, type ChannelTwins } from '../../../circuit/changes/index.ts';
import { netsOf, type LayerPart } from '../../../circuit/circuit/index.ts';
import type { Place } from './place.ts';

const known = new WeakMap<Place['circuit'], ChannelTwins>();

function twinsAt({ circuit }: Place): ChannelTwins {
  const made = known.get(circuit) ?? channelTwins(circuit);
  known.set(circuit, made);
  return made;
}

/** The net of the other channel: by the channels of the circuit, else by a 1 or 2 at the end of its name; undefined where there is none. */
export function twinNet(place: Place, net: string): string | undefined {
  const [, stem, digit] = /^(.*)([12])$/.exec(net) ?? [];
  const named = digit === undefined ? undefined : `${stem}${digit === '1' ? 2 : 1}`;
  const isThere = named !== undefined && netsOf(place.circuit).includes(named);
  return twinsAt(place).nets.get(net) ?? (isThere ? named : undefined);
}

/** Steps between the designators of two channels: R12 and R112. */
const HUNDREDS = [100, -100];

/** The same part of the other channel: its twin, or one that is alike and a hundred away; null where it has none. */
export function twinOf(place: Place): LayerPart | null {
  const { part, circuit } = place;
  if (!part) return null;
  const twin = twinsAt(place).parts.get(part.ref);
  const [, letters = '', digits = ''] = /^([A-Z]+)(\d+)$/i.exec(part.ref) ?? [];
  const far = HUNDREDS.map((step) => `${letters}${Number(digits) + step}`);
  return (
    circuit.parts.find((p) => p.ref === twin) ??
    circuit.parts.find((p) => far.includes(p.ref) && p.kind === part.kind && p.value === part.value) ??
    null
  );
}
