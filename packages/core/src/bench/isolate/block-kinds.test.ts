import type { Hazard, IntakeData, PathData } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { BLOCK_KINDS, blockKind } from './block-kinds.ts';
import { checkedKinds, firstChecks, FIRST_CHECKS } from './first-checks.ts';
import { checkPath, PATH_TEMPLATES } from './index.ts';

describe('kinds of block (common practice)', () => {
  it('fail in ways whose shares are a whole, in minutes and weights above zero', () => {
    for (const { name, modes, weight, minutes } of BLOCK_KINDS) {
      const sum = Object.values(modes).reduce((a, b) => a + b, 0);
      expect(sum, name).toBeCloseTo(1, 9);
      expect(weight, name).toBeGreaterThan(0);
      expect(minutes, name).toBeGreaterThan(0);
    }
  });

  it('fail more often where there are contacts and liquids than where there is silicon', () => {
    const weight = (name: string) => blockKind(name).weight;
    for (const wears of ['switch', 'socket', 'cable', 'reservoir capacitor', 'battery'])
      for (const lasts of ['processor', 'memory', 'clock', 'opamp stage'])
        expect(weight(wears), `${wears} and ${lasts}`).toBeGreaterThan(weight(lasts));
  });

  it('can be judged unplugged wherever the mains is', () => {
    for (const kind of BLOCK_KINDS) if (kind.isMainsSide) expect(kind.coldCheck, kind.name).toBeTruthy();
  });
});

describe('first checks', () => {
  const ids = (kind: string, hazards: Hazard[] = [], intake: IntakeData = {}, path?: PathData) =>
    firstChecks({ kind, hazards, intake, path }).map((c) => c.id);

  it('come cheapest first, and judge kinds that there are', () => {
    const { length } = FIRST_CHECKS;
    expect(new Set(FIRST_CHECKS.map((c) => c.id)).size).toBe(length);
    const names = BLOCK_KINDS.map((k) => k.name);
    for (const check of FIRST_CHECKS) for (const kind of check.kinds) expect(names, check.id).toContain(kind);
    expect(checkedKinds('fuse')).toEqual(['fuse']);
    expect(checkedKinds('unheard of')).toEqual([]);
  });

  it('are those of the unit: a fuse where there is mains, a battery where there is one, a reset that warns', () => {
    expect(ids('stereo amplifier', ['mains'])).toContain('fuse');
    expect(ids('stereo amplifier', ['mains'])).not.toContain('battery');
    expect(ids('pedal', ['battery only'])).toEqual(expect.arrayContaining(['battery', 'adapter']));
    expect(ids('pedal', ['battery only'])).not.toContain('fuse');
    expect(FIRST_CHECKS.find((c) => c.id === 'factory-reset')!.warning).toContain('erases');
    expect(ids('microphone')).not.toContain('factory-reset');
  });

  it('of a silent unit include what is left in the headphone socket, and resets that say what they erase', () => {
    const silent = ['headphone', 'restart', 'factory-reset'];
    expect(ids('', [], { heard: ['nothing'] })).toEqual(expect.arrayContaining(silent));
    expect(ids('', [], { words: 'No sound since Monday' })).toEqual(expect.arrayContaining(silent));
    for (const id of silent)
      expect(ids('', [], { heard: ['hum'], words: 'no sound but hum' })).not.toContain(id);
    for (const { id, warning } of FIRST_CHECKS)
      if (id === 'restart' || id === 'factory-reset') expect(warning).toMatch(/erases what/);
    // A kind that is said has what its path has.
    const path = { blocks: [{ id: 'phones', kind: 'socket' }], links: [] };
    const valve = ids('valve stage', [], { heard: ['nothing'] }, path);
    expect(valve).toContain('headphone');
    expect(valve).not.toContain('factory-reset');
  });
});

describe('templates', () => {
  it('are paths that can be searched, with kinds that are known', () => {
    const names = new Set(BLOCK_KINDS.map((k) => k.name));
    for (const { name, path } of PATH_TEMPLATES) {
      expect(checkPath(path, { ground: '0', parts: [] }), name).toEqual([]);
      for (const block of path.blocks) expect(names.has(block.kind!), `${name}: ${block.kind}`).toBe(true);
    }
  });
});
