import type { IntakeData, PathData } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { complaintOf, complaintWeights } from './complaint.ts';
import { preparePath } from './path.ts';
import { searchState } from './search.ts';
import { unitOf } from '../../testing/chains.ts';

/** One supply and one input stage for two amplifiers with a loudspeaker each. */
const STEREO: PathData = {
  blocks: [
    { id: 'psu', kind: 'supply', name: 'Supply' },
    { id: 'in', kind: 'stage', name: 'Input stage' },
    { id: 'ampL', kind: 'power amplifier', name: 'Amplifier left' },
    { id: 'ampR', kind: 'power amplifier', name: 'Amplifier right' },
    { id: 'spkL', kind: 'speaker', name: 'Speaker left' },
    { id: 'spkR', kind: 'speaker', name: 'Speaker right' },
  ],
  links: [
    { from: 'in', to: 'ampL', carries: 'audio' },
    { from: 'in', to: 'ampR', carries: 'audio' },
    { from: 'ampL', to: 'spkL', carries: 'audio' },
    { from: 'ampR', to: 'spkR', carries: 'audio' },
    { from: 'psu', to: 'in', carries: 'supply' },
    { from: 'psu', to: 'ampL', carries: 'supply' },
    { from: 'psu', to: 'ampR', carries: 'supply' },
  ],
};
const path = preparePath(STEREO);
const told = (intake: IntakeData) => {
  const complaint = complaintOf(path, intake);
  return (
    complaint && {
      hit: complaint.hit.map((b) => path.blocks[b]!.id),
      well: complaint.well.map((b) => path.blocks[b]!.id),
    }
  );
};
const chances = (intake: IntakeData) => {
  const { suspects } = searchState(path, { ...unitOf(STEREO), intake });
  return new Map(suspects.map((s) => [path.blocks[s.block]!.id, s.probability]));
};

describe('what a complaint says of the outputs', () => {
  it.each<[string, IntakeData, string[] | null, string[]]>([
    ['the field names one', { outputs: 'left only' }, ['spkL'], ['spkR']],
    ['one letter is a side', { outputs: 'R' }, ['spkR'], ['spkL']],
    ['what is well is said', { outputs: 'the right one is fine' }, ['spkL'], ['spkR']],
    ['both are said', { outputs: 'left is dead, right works' }, ['spkL'], ['spkR']],
    ['all of them', { outputs: 'both' }, ['spkL', 'spkR'], []],
    ['no sound at all', { words: 'Since Monday no sound at all' }, ['spkL', 'spkR'], []],
    ['one alone, in the complaint', { words: 'only the left speaker crackles' }, ['spkL'], ['spkR']],
    ['a name by the way says nothing', { words: 'hums when the left knob is turned' }, null, []],
    ['no sound, which may be of the one in use', { words: 'no sound' }, null, []],
    ['what does not work is hit', { outputs: "left doesn't work" }, ['spkL'], ['spkR']],
    ['what is not working is hit', { outputs: 'the right one is not working' }, ['spkR'], ['spkL']],
    ['what works no longer is hit', { outputs: 'right no longer works' }, ['spkR'], ['spkL']],
    ['what works when warm is hit', { outputs: 'left works when warm' }, ['spkL'], ['spkR']],
    ['what is excepted is well', { outputs: 'all but the right' }, ['spkL'], ['spkR']],
    ['what is not meant is well', { outputs: 'left, not right' }, ['spkL'], ['spkR']],
    ['what is compared with is not hit', { outputs: 'left is quieter than right' }, ['spkL'], ['spkR']],
    ['all right is no side', { outputs: 'the left one is all right' }, ['spkR'], ['spkL']],
    ['one alone that works', { words: 'only the right channel works' }, ['spkL'], ['spkR']],
    ['what is left over is no side', { words: 'only a hum is left' }, null, []],
    ['at once is no side', { words: 'only hum right after switching on' }, null, []],
    ['both at once says nothing', { outputs: 'left is fine, left is dead' }, null, []],
    ['an output that is not there', { outputs: 'the tape output' }, null, []],
  ])('%s', (_, intake, hit, well) => {
    expect(told(intake)).toEqual(hit && { hit, well });
  });

  it('knows a channel by its number in the names of what feeds it alone', () => {
    const mixer = preparePath({
      blocks: ['desk', 'pre1', 'pre2', 'a', 'b'].map((id) => ({ id })),
      links: [
        { from: 'desk', to: 'pre1', carries: 'audio' },
        { from: 'desk', to: 'pre2', carries: 'audio' },
        { from: 'pre1', to: 'a', carries: 'audio' },
        { from: 'pre2', to: 'b', carries: 'audio' },
      ],
    });
    expect(complaintOf(mixer, { outputs: 'channel 2 only' })).toEqual({ hit: [4], well: [3] });
    expect(complaintOf(mixer, { words: 'only channel 2 is silent' })).toEqual({ hit: [4], well: [3] });
    expect(complaintOf(mixer, { words: 'it is only 2 years old' })).toBeNull();
  });

  it('says nothing of a path with one output', () => {
    const chain = preparePath({
      blocks: [{ id: 'a' }, { id: 'b' }],
      links: [{ from: 'a', to: 'b', carries: 'audio' }],
    });
    expect(complaintOf(chain, { outputs: 'all' })).toBeNull();
  });
});

describe('the complaint as evidence', () => {
  it('"no sound at all" lowers what only one branch needs', () => {
    const [before, after] = [chances({}), chances({ words: 'no sound at all' })];
    for (const id of ['psu', 'in']) expect(after.get(id), id).toBeGreaterThan(before.get(id)!);
    for (const id of ['spkL', 'spkR']) expect(after.get(id)!, id).toBeLessThan(before.get(id)! / 2);
    // An amplifier that drags the supply down silences both.
    expect(after.get('ampL')!).toBeGreaterThan(after.get('spkL')!);
  });

  it('"left only" clears what both share', () => {
    const after = chances({ outputs: 'left only' });
    for (const id of ['psu', 'ampR', 'spkR']) expect(after.get(id)!, id).toBeLessThan(0.1);
    expect(after.get('ampL')! + after.get('spkL')!).toBeGreaterThan(0.75);
  });

  it('weighs by the chance of just that pattern, and a wrong account', () => {
    const weights = complaintWeights(path, complaintOf(path, { outputs: 'both' }));
    // The supply shows at both whatever way it fails but one; a loudspeaker never does; the input stage may fail at one output.
    const of = (id: string) => weights[path.indexOf(id)!]!;
    expect(of('spkL')).toBeCloseTo(0.1, 12);
    expect(of('psu')).toBeCloseTo(1, 12);
    expect(of('in')).toBeCloseTo(0.1 + 0.9 * (1 - 0.15), 12);
    expect(of('ampL')).toBeCloseTo(0.1 + 0.9 * 0.25, 12);
  });

  it('is told as it was understood', () => {
    const { complaint } = searchState(path, { ...unitOf(STEREO), intake: { outputs: 'left only' } });
    expect(complaint).toBe('By the complaint Speaker left is hit, Speaker right is not.');
  });
});
