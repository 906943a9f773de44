import type { LayerPart } from '../../../circuit/circuit/index.ts';
import type { Place } from './place.ts';

/** How the names of two channels tell them apart: left and right, L and R, 1 and 2. */
const SIDES: readonly (readonly [RegExp, string])[] = [
  [/left/i, 'right'],
  [/right/i, 'left'],
  [/(?<=[a-z])l(?=\d*$)|^l(?=\d*$)/i, 'r'],
  [/(?<=[a-z])r(?=\d*$)|^r(?=\d*$)/i, 'l'],
  [/1$/, '2'],
  [/2$/, '1'],
];

/** The net of the other channel that a name has a twin in; undefined where it has none. */
export function twinNet(place: Place, net: string): string | undefined {
  const nets = new Set(place.circuit.parts.flatMap((p) => Object.values(p.pins)));
  return SIDES.map(([side, instead]) =>
    side.test(net) ? net.replace(side, (was) => sameCase(was, instead)) : net,
  ).find((name) => name !== net && nets.has(name));
}

const sameCase = (like: string, text: string): string => {
  if (like === like.toUpperCase()) return text.toUpperCase();
  return like[0] === like[0]!.toUpperCase() ? text[0]!.toUpperCase() + text.slice(1) : text;
};

/** Steps between the designators of two channels: R12 and R112, R101 and R201. */
const HUNDREDS = [100, -100];

/**
 * The same part of the other channel: alike in kind and value, its designator a hundred away, or at nets that are the twins of
 * its own. Parts that share a net in series are neighbours and no twins.
 */
export function twinOf(place: Place): LayerPart | null {
  const { part } = place;
  if (!part) return null;
  const isAlike = (p: LayerPart) => p !== part && p.kind === part.kind && p.value === part.value;
  const [, letters = '', digits = ''] = /^([A-Z]+)(\d+)$/i.exec(part.ref) ?? [];
  const byNumber = place.circuit.parts.filter(
    (p) => isAlike(p) && HUNDREDS.some((step) => p.ref === `${letters}${Number(digits) + step}`),
  );
  const pins = Object.entries(part.pins);
  const byNets = place.circuit.parts.filter(
    (p) =>
      isAlike(p) &&
      pins.some(([name, net]) => p.pins[name] !== net) &&
      pins.every(([name, net]) => p.pins[name] === net || p.pins[name] === twinNet(place, net)),
  );
  return byNumber[0] ?? byNets[0] ?? null;
}
