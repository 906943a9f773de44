import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll } from 'vitest';
import { run } from '../main.ts';

let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'zemble-cli-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true });
});

/** Runs the command as from a terminal. */
export async function command(
  ...args: string[]
): Promise<{ code: number; answer: Record<string, unknown>; sentence: string }> {
  let [out, err] = ['', ''];
  const code = await run(args, { out: (text) => void (out += text), err: (text) => void (err += text) });
  return {
    code,
    answer: out === '' ? {} : (JSON.parse(out) as Record<string, unknown>),
    sentence: err.trim(),
  };
}

/** Writes a file for it. */
export async function unitFile(name: string, content: object | string): Promise<string> {
  const path = join(folder, name);
  await writeFile(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
}

export const resistor = (ref: string, marked: string, a: string, b: string, rest = {}) => ({
  ref,
  kind: 'resistor',
  pins: { a, b },
  marked,
  ...rest,
});
/** A unit file of some parts, and what else it has. */
export const fileOf = (parts: readonly object[], more: object = {}) => ({
  format: 'zemble/unit',
  version: 1,
  unit: {},
  circuit: { ground: '0', parts },
  ...more,
});
/** A divider and a low pass, with a wanted voltage and a readout that is none. */
export const divider = {
  format: 'zemble/unit',
  version: 1,
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 10 },
      { ref: 'G1', kind: 'signal', pins: { plus: 'in', minus: '0' }, marked: '1V' },
      resistor('R1', '1k', 'vcc', 'a'),
      resistor('R2', '1k', 'a', '0', { found: 3000 }),
      resistor('R3', '10k', 'in', 'out'),
      { ref: 'C1', kind: 'capacitor', pins: { a: 'out', b: '0' }, marked: '10n' },
    ],
  },
  readouts: [
    { id: 'va', name: 'at a', kind: 'voltage', net: 'a', want: { target: 6, within: 0.2 } },
    { id: 'bad', name: 'nowhere', kind: 'voltage', net: 'zz' },
  ],
};
