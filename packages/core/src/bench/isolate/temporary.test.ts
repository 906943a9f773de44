import type { Change } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { ledgerOf, reportChanges, resolveLayer } from '../../circuit/changes/index.ts';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { fuseOut, preparePath, temporaryFor, type Temporary } from './index.ts';

const AMP = circuitOf(`V1 12V raw 0\nF1 fuse raw vcc\nR1 1k vcc a\nR2 1k a 0\nR3 2k vcc b\nR4 2k b 0
  G1 1V in 0\nR5 1k in out\nLS1 8 out 0`);
const PATH = preparePath(
  {
    blocks: [
      { id: 'psu', name: 'Supply', kind: 'supply', parts: ['V1', 'F1'] },
      { id: 'amp', name: 'Amplifier', kind: 'power amplifier', parts: ['R1', 'R2'] },
      { id: 'pre', name: 'Preamplifier', kind: 'preamplifier', parts: ['R3', 'R4'] },
      { id: 'words', name: 'Cabinet', kind: 'speaker' },
    ],
    links: [],
  },
  AMP,
);
const inForce = (circuit: Circuit, { name, condition, steps }: Temporary): Circuit => ({
  ...circuit,
  changes: [
    ...(circuit.changes ?? []),
    {
      id: name,
      name,
      purpose: 'diagnosis',
      state: 'done',
      steps,
      ...(condition === undefined ? {} : { condition }),
    } satisfies Change,
  ],
});
const volts = (circuit: Circuit, net: string) => {
  const session = new AnalysisSession(resolveLayer(circuit, 'proven'));
  return session.operatingPoint()[session.system.node(net)]!;
};

describe('what has to come back after a test', () => {
  it('is a block that was disconnected: its nets are opened towards the rest, and the meter sees the rest alone', () => {
    const made = temporaryFor('disconnected: amp', PATH, AMP)!;
    expect(made.steps).toEqual([{ do: 'cut', net: 'vcc', pins: ['R1.a'], as: 'vcc_off' }]);
    const off = inForce(AMP, made);
    // The divider of the other block is as it was, that of the one without its supply is dead.
    expect(volts(AMP, 'a')).toBeCloseTo(6, 3);
    expect(volts(off, 'a')).toBeCloseTo(0, 3);
    expect(volts(off, 'b')).toBeCloseTo(6, 3);
    expect(ledgerOf(reportChanges(off))).toEqual([
      expect.objectContaining({
        sentence: 'Amplifier disconnected: vcc cut, with R1.a on vcc_off.',
        undo: 'Bridge the cut at vcc, so that R1.a is on it again.',
        condition: 'disconnected: amp',
      }),
    ]);
  });

  it('is its name alone where no part of a block is traced', () => {
    const made = temporaryFor('disconnected: words', PATH, AMP)!;
    expect(made).toEqual({ name: 'Cabinet disconnected', condition: 'disconnected: words', steps: [] });
    expect(reportChanges(inForce(AMP, made)).flatMap((r) => r.problems)).toEqual([]);
    expect(ledgerOf(reportChanges(inForce(AMP, made)))).toEqual([
      expect.objectContaining({ sentence: 'Cabinet disconnected.', undo: 'Put it back as it was.' }),
    ]);
    expect(temporaryFor('disconnected: nothing', PATH, AMP)).toBeNull();
    expect(temporaryFor('warm', PATH, AMP)).toBeNull();
  });

  it('is a dummy of the same resistance, a load that is off, a fuse that is out', () => {
    const dummy = temporaryFor('dummy load', PATH, AMP)!;
    expect(dummy.name).toBe('Dummy load for LS1');
    const parts = resolveLayer(inForce(AMP, dummy), 'proven').parts;
    expect(parts.some((p) => p.ref === 'LS1')).toBe(false);
    expect(parts.find((p) => p.ref === 'R6')).toMatchObject({ value: 8, pins: { a: 'out', b: '0' } });
    const off = temporaryFor('unloaded', PATH, AMP)!;
    expect(off).toMatchObject({ name: 'LS1 taken off', steps: [{ do: 'remove', ref: 'LS1' }] });
    const out = inForce(AMP, fuseOut(['F1'], AMP));
    expect(volts(out, 'b')).toBeCloseTo(0, 3);
    expect(fuseOut([], AMP).name).toBe('F1 taken out');
    expect(fuseOut([], circuitOf('V1 9V a 0\nR1 1k a 0'))).toEqual({ name: 'Fuse taken out', steps: [] });
  });

  it('goes by the bench as it lies: what is disconnected already is not cut twice', () => {
    const off = inForce(AMP, temporaryFor('disconnected: amp', PATH, AMP)!);
    expect(temporaryFor('disconnected: amp', PATH, off)!.steps).toEqual([]);
    const both = inForce(off, temporaryFor('disconnected: pre', PATH, off)!);
    expect(reportChanges(both).flatMap((r) => r.problems)).toEqual([]);
    expect(ledgerOf(reportChanges(both))).toHaveLength(2);
  });
});
