import type { LayerPart } from './layer.ts';

/** What a control stands at: a travel 0..1, a position by its name, closed or open, a plug in or out. */
export type ControlState = number | boolean | string;

/** The position of a control; undefined for a part that is none. */
export function controlState(part: LayerPart): ControlState | undefined {
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
