import type { PartKind } from '@zemble/contract';
import type { ControlState, LayerPart } from '../../circuit/circuit/index.ts';

/** A lug as it is seen from behind, where the iron comes from; places in units of a lug's width from the middle. */
export interface Lug {
  readonly pin: string;
  /** What is written beside it. */
  readonly label: string;
  readonly x: number;
  readonly y: number;
}

type Places = readonly (readonly [pin: string, label: string, x: number, y: number])[];

/**
 * Lugs from behind. A potentiometer is counted from the left with its shaft towards you, so that 1 is on the right from behind; of
 * a changeover the common lug is in the middle; of a jack the sleeve is nearest to the bush (common practice).
 */
const PLACES: Readonly<Partial<Record<PartKind, Places>>> = {
  potentiometer: [
    ['3', '3', -1, 1],
    ['2', '2', 0, 1],
    ['1', '1', 1, 1],
  ],
  switch: [
    ['a', 'a', 0, -1],
    ['b', 'b', 0, 1],
  ],
  changeover: [
    ['a', 'a', 0, -1],
    ['com', 'com', 0, 0],
    ['b', 'b', 0, 1],
  ],
  jack: [
    ['tip', 'tip', -1, -1],
    ['tipSwitch', 'tip switch', 1, -1],
    ['ring', 'ring', -1, 0],
    ['ringSwitch', 'ring switch', 1, 0],
    ['sleeve', 'sleeve', 0, 1],
  ],
  supply: [
    ['plus', '+', -1, 0],
    ['minus', '−', 1, 0],
  ],
  speaker: [
    ['a', '+', -1, 0],
    ['b', '−', 1, 0],
  ],
  led: [
    ['a', 'long leg', -1, 0],
    ['k', 'flat side', 1, 0],
  ],
};

/** The lugs of a part as they are seen from behind; one of no known shape has its pins in a row. */
export function lugsOf(part: Pick<LayerPart, 'kind' | 'pins'>): readonly Lug[] {
  const pins = Object.keys(part.pins);
  const known = (PLACES[part.kind] ?? []).filter(([pin]) => pins.includes(pin));
  const placed = known.map(([pin, label, x, y]): Lug => ({ pin, label, x, y }));
  const rest = pins.filter((pin) => !known.some(([name]) => name === pin));
  const row = placed.length === 0 ? 0 : 2;
  return [
    ...placed,
    ...rest.map((pin, i): Lug => ({ pin, label: pin, x: i - (rest.length - 1) / 2, y: row })),
  ];
}

/** What a control joins in one of its positions. */
export interface ContactPosition {
  readonly position: string;
  /** Where the control stands then; undefined where nothing computes it. */
  readonly state?: ControlState;
  /** Lugs that are one in it. */
  readonly joined: readonly (readonly [string, string])[];
}

/** What each position of a switch, jack or relay joins, and a potentiometer at its ends; nothing for a part without contacts. */
export function contactsOf(part: Pick<LayerPart, 'kind' | 'pins'>): readonly ContactPosition[] {
  const has = (...pins: readonly string[]) => pins.every((pin) => part.pins[pin] !== undefined);
  const pairs = (...all: readonly (readonly [string, string])[]) => all.filter(([a, b]) => has(a, b));
  switch (part.kind) {
    case 'switch':
    case 'jumper':
      return [
        { position: 'open', state: false, joined: [] },
        { position: 'closed', state: true, joined: pairs(['a', 'b']) },
      ];
    case 'changeover':
      return [
        { position: 'a', state: 'a', joined: pairs(['com', 'a']) },
        { position: 'b', state: 'b', joined: pairs(['com', 'b']) },
      ];
    case 'jack':
      return [
        { position: 'no plug', state: false, joined: pairs(['tip', 'tipSwitch'], ['ring', 'ringSwitch']) },
        { position: 'mono plug in', state: true, joined: pairs(['ring', 'sleeve']) },
        ...(has('ring') ? [{ position: 'stereo plug in', joined: [] }] : []),
      ];
    case 'potentiometer':
      return [
        { position: 'at 0 %', state: 0, joined: pairs(['2', '1']) },
        { position: 'at 50 %', state: 0.5, joined: [] },
        { position: 'at 100 %', state: 1, joined: pairs(['2', '3']) },
      ];
    case 'relay':
      return [
        { position: 'at rest', joined: pairs(['com', 'nc']) },
        { position: 'pulled in', joined: pairs(['com', 'no']) },
      ];
    default:
      return [];
  }
}
