import {
  panelControlSchema,
  panelObstacleSchema,
  type PanelControl,
  type PanelObstacle,
} from '@zemble/contract';
import { kindOfRef, type LayerPart } from '../../circuit/circuit/index.ts';
import { whyNotKept } from '../../base/text/index.ts';

type Size = Pick<PanelControl, 'holeMm' | 'lengthMm' | 'widthMm' | 'depthMm'>;

/** Usual controls: hole, body along x and y, depth below the panel with its lugs, mm (catalogues of several makers, from memory). */
const SIZES: Readonly<Record<string, Size>> = {
  potentiometer: { holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
  switch: { holeMm: 6.5, lengthMm: 8, widthMm: 13, depthMm: 18 },
  changeover: { holeMm: 6.5, lengthMm: 8, widthMm: 13, depthMm: 18 },
  jack: { holeMm: 9.5, lengthMm: 20, widthMm: 26, depthMm: 26 },
  led: { holeMm: 5, lengthMm: 6, widthMm: 6, depthMm: 10 },
};
const OTHER: Size = { holeMm: 8, lengthMm: 16, widthMm: 16, depthMm: 20 };

/** What was read of a line: a control, or something tall under the panel. */
export type PanelLine =
  | { readonly ok: true; readonly control: Omit<PanelControl, 'id'> }
  | { readonly ok: true; readonly obstacle: Omit<PanelObstacle, 'id'> }
  | { readonly ok: false; readonly why: string };

const FORM =
  'SW1 40 20 with its place in mm, and where it differs: hole 6.5, body 8x13, deep 18; tall 35 for a part under the panel';

/**
 * A control or an obstacle as it is typed: its name and place, `SW1 40 20`; `hole 6.5`, `body 8x13` and `deep 18` where it is not the
 * usual of its kind; `tall 35` makes it something that stands under the panel.
 */
export function parsePanelLine(line: string, parts: readonly LayerPart[]): PanelLine {
  const words = line
    .trim()
    .split(/[\s,;=:]+/)
    .filter((w) => w !== '');
  const [name, ...rest] = words;
  if (name === undefined) return { ok: false, why: `Nothing was typed: ${FORM}.` };
  const sizes = new Map<string, number[]>();
  const place: number[] = [];
  for (let i = 0; i < rest.length; i += 1) {
    const word = rest[i]!.toLowerCase();
    const isWord = /^(hole|body|deep|tall|x|y)$/.test(word);
    const text = isWord ? rest[(i += 1)] : word;
    const numbers = (text ?? '').replace(/mm$/i, '').split(/[x×]/i).map(Number);
    if (text === undefined || numbers.some((n) => !Number.isFinite(n)))
      return { ok: false, why: `"${text ?? word}" is no size in millimetres: ${FORM}.` };
    if (isWord && word !== 'x' && word !== 'y') sizes.set(word, numbers);
    else place.push(...numbers);
  }
  const [x, y] = place;
  if (x === undefined || y === undefined || place.length > 2)
    return { ok: false, why: `${name} has no place: ${FORM}.` };
  const part = parts.find((p) => p.ref.toUpperCase() === name.toUpperCase());
  const usual = SIZES[part?.kind ?? kindOfRef(name) ?? ''] ?? OTHER;
  const [lengthMm, widthMm] = [
    sizes.get('body')?.[0] ?? usual.lengthMm,
    sizes.get('body')?.[1] ?? sizes.get('body')?.[0] ?? usual.widthMm,
  ];
  const said = [lengthMm, widthMm, ...[...sizes.values()].flat()];
  if (said.some((n) => !(n > 0))) return { ok: false, why: `${name}: a size is above zero.` };
  const named = part ? { ref: part.ref } : { name };
  const tall = sizes.get('tall')?.[0];
  if (tall !== undefined) {
    const obstacle = { ...named, at: { x, y }, lengthMm, widthMm, heightMm: tall };
    const why = whyNotKept(obstacle, panelObstacleSchema, { id: 'o' });
    return why === undefined ? { ok: true, obstacle } : { ok: false, why };
  }
  const control = {
    ...named,
    at: { x, y },
    holeMm: sizes.get('hole')?.[0] ?? usual.holeMm,
    lengthMm,
    widthMm,
    depthMm: sizes.get('deep')?.[0] ?? usual.depthMm,
  };
  const why = whyNotKept(control, panelControlSchema, { id: 'c' });
  return why === undefined ? { ok: true, control } : { ok: false, why };
}
