import type { PartKind } from '@zemble/contract';
import type { LayerPart } from './layer.ts';
import type { Part } from './part.ts';

/** What a control stands at: a travel 0..1, a position by its name, closed or open, a plug in or out. */
export type ControlState = number | boolean | string;

/** The position of a control; undefined for a part that is none. */
export function controlState(part: LayerPart | Part): ControlState | undefined {
  switch (part.kind) {
    case 'potentiometer':
      return part.position ?? USUAL_TRAVEL;
    case 'changeover':
      return part.position ?? 'a';
    case 'switch':
    case 'jumper':
    case 'fuse':
      return part.closed ?? true;
    case 'jack':
      return part.inserted ?? false;
    default:
      return undefined;
  }
}

/** Kinds that stand somewhere: a knob, a contact, a throw, a plug. */
export const isControl = (kind: PartKind): boolean => CONTROLS.has(kind);
const CONTROLS: ReadonlySet<PartKind> = new Set([
  'potentiometer',
  'changeover',
  'switch',
  'jumper',
  'fuse',
  'jack',
]);

/** Where a control stands, as a word beside it: "at 50 %", "closed", "at a", "no plug"; empty for a part that is none. */
export function controlWords(part: LayerPart | Part): string {
  const state = controlState(part);
  if (typeof state === 'number') return `at ${Math.round(100 * state)} %`;
  if (typeof state === 'string') return state === 'open' ? 'open' : `at ${state}`;
  if (state === undefined) return '';
  if (part.kind === 'jack') return state ? 'plug in' : 'no plug';
  return state ? 'closed' : 'open';
}

/** Travel of a potentiometer of which nothing is said: the middle. */
const USUAL_TRAVEL = 0.5;
const ON = /^(?:closed|on|in|inserted|true)$/i;
const OFF = /^(?:open|off|out|false)$/i;

/** A control at another position; undefined when the part cannot take it. */
export function withControl(part: LayerPart, state: ControlState): LayerPart | undefined {
  switch (part.kind) {
    case 'potentiometer':
      return typeof state === 'number' && state >= 0 && state <= 1 ? { ...part, position: state } : undefined;
    case 'changeover':
      return state === 'a' || state === 'b' || state === 'open' ? { ...part, position: state } : undefined;
    case 'switch':
    case 'jumper':
    case 'fuse': {
      const closed = flagOf(state);
      return closed === undefined ? undefined : { ...part, closed };
    }
    case 'jack': {
      const inserted = flagOf(state);
      return inserted === undefined ? undefined : { ...part, inserted };
    }
    default:
      return undefined;
  }
}

function flagOf(state: ControlState): boolean | undefined {
  if (typeof state === 'boolean') return state;
  if (typeof state !== 'string') return undefined;
  return ON.test(state) ? true : OFF.test(state) ? false : undefined;
}
