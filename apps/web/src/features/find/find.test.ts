import type { PathData } from '@zemble/contract';
import { parseSheetLine, preparePath, testsOf, type UnitDocument } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { answersFor } from './answers.ts';
import { measuredQuantities } from './measured.ts';
import { partialUnit } from '../../testing/partial-unit.ts';

const path: PathData = {
  blocks: [
    { id: 'p', kind: 'supply' },
    { id: 'c', kind: 'clock' },
    { id: 'a', kind: 'fuse' },
    { id: 'b', kind: 'stage' },
  ],
  links: [
    { from: 'p', to: 'b', carries: 'supply' },
    { from: 'c', to: 'b', carries: 'clock' },
    { from: 'a', to: 'b', carries: 'audio' },
  ],
};

describe('answers to a test', () => {
  const tests = testsOf(preparePath(path));
  const keys = (id: string) =>
    answersFor(tests.find((t) => t.id === id)!)
      .map((a) => a.key)
      .join('');

  it('fit what the link carries, one key each', () => {
    expect(keys('a->b')).toBe('gwdhn');
    expect(keys('p->b')).toBe('glhn');
    expect(keys('c->b')).toBe('phlf');
    expect(keys('a, unplugged')).toBe('gn');
  });

  it('never give two answers one key', () => {
    for (const test of tests) {
      const used = answersFor(test).map((a) => a.key);
      expect(new Set(used).size, test.id).toBe(used.length);
    }
  });
});

describe('what a search among parts can use', () => {
  const part = (line: string) => {
    const read = parseSheetLine(line);
    if (!read.ok) throw new Error(line);
    return read.part;
  };
  const parts = ['V1 9V vcc 0', 'R1 1k vcc a', 'C1 1u a 0'].map((line, i) => ({
    id: `p${i}`,
    version: 0,
    position: i,
    part: part(line),
  }));
  const seen = (at: string, value: number, withdrawn = false) => ({
    id: `${at}${value}`,
    at,
    saw: { value, unit: 'V' },
    takenAt: '',
    withdrawn,
  });
  const reading = (partId: string, value: number | 'open', condition: string) => ({
    id: `${partId}${value}`,
    partId,
    readoutId: null,
    changeId: null,
    ref: null,
    value,
    condition,
    aspect: null,
    red: null,
    isAsDrawn: false,
    between: null,
    withdrawn: false,
  });
  const document = {
    circuit: { ground: '0', parts: parts.map((p) => p.part) },
  } as Partial<UnitDocument> as UnitDocument;
  const measured = (evidence: object[], readings: object[] = []) =>
    measuredQuantities(
      partialUnit({
        parts,
        evidence,
        readings,
        path: { blocks: [], links: [], testPoints: [{ id: 'TP1', net: 'a' }] },
      }),
      document,
    );

  it('is the last voltage at each net, by point or by net, and nothing withdrawn', () => {
    expect(measured([seen('TP1', 4), seen('a', 5), seen('vcc', 9, true), seen('nowhere', 1)])).toEqual([
      { quantity: { kind: 'dcv', net: 'a' }, value: 5 },
    ]);
  });

  it('is also what was read in circuit across resistors and capacitors', () => {
    expect(
      measured(
        [],
        [
          reading('p1', 900, 'in circuit'),
          reading('p2', 'open', 'in circuit'),
          reading('p1', 950, 'leg lifted'),
        ],
      ),
    ).toEqual([
      { quantity: { kind: 'ohm', red: 'vcc', black: 'a' }, value: 900 },
      { quantity: { kind: 'cap', red: 'a', black: '0' }, value: null },
    ]);
  });
});
