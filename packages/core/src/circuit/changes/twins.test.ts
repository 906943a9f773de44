import type { Step } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf, markedCircuitOf, seeded } from '../../testing/circuits.ts';
import { fitChange } from './planned-values.ts';
import { changeWords } from './words.ts';
import { parseChangeLine } from '../../sheet/sheet/index.ts';
import { channelTwins, twinSteps } from './twins.ts';

/** Two stages on one supply: their designators a hundred apart. */
const STEREO = `V1 12V vcc 0
C9 100u vcc 0
C1 100n inl a
R1 100k a 0
R2 10k a m
R3 47k m outl
C101 100n inr b
R101 100k b 0
R102 10k b n
R103 47k n outr`;
/** The same without a rule in its designators: the nets alone tell. */
const BY_NETS = `V1 12V vcc 0
C1 100n in_l a_l
C2 100n in_r a_r
R1 100k a_l 0
R2 100k a_r 0
R3 10k a_l out_l
R4 10k a_r out_r`;

const stepsOf = (circuit: string, line: string): readonly Step[] => {
  const read = parseChangeLine(line, circuitOf(circuit));
  if (!read.ok) throw new Error(read.problem.message);
  return read.steps;
};
const mirrored = (circuit: string, line: string): string | null => {
  const steps = twinSteps(circuitOf(circuit), stepsOf(circuit, line));
  return steps && changeWords({ steps });
};

describe('two channels', () => {
  it('are told by designators a hundred apart, and nets follow from what lies between them', () => {
    const { parts, nets } = channelTwins(markedCircuitOf(STEREO));
    expect([parts.get('R2'), parts.get('C101'), parts.get('V1')]).toEqual(['R102', 'C1', undefined]);
    expect([nets.get('a'), nets.get('n'), nets.get('outl'), nets.get('vcc')]).toEqual([
      'b',
      'm',
      'outr',
      undefined,
    ]);
  });

  it('are told by the names of their nets, and by what is alike between them', () => {
    const { parts, nets } = channelTwins(markedCircuitOf(BY_NETS));
    expect(['C1', 'R1', 'R3'].map((ref) => parts.get(ref))).toEqual(['C2', 'R2', 'R4']);
    expect(nets.get('out_l')).toBe('out_r');
  });

  it('are no neighbours of one channel, and no halves of one stage', () => {
    const HALVES = `V1 15V vp 0\nV2 15V 0 vm\nQ1 bjt npn c=vp b=b1 e=e1\nQ2 bjt npn c=vm b=b2 e=e2
      R1 0.47 e1 out\nR2 0.47 e2 out\nR3 1k vp b1\nR4 1k vm b2\nR5 8 out 0`;
    for (const lines of ['V1 9V vcc 0\nR1 10k vcc m\nR2 10k m 0', HALVES])
      expect(channelTwins(markedCircuitOf(lines)).parts.size).toBe(0);
  });

  it('are not found in one channel of many parts, whose designators pass a hundred', () => {
    const random = seeded(11);
    const any = (n: number) => Math.floor(n * random());
    for (let k = 0; k < 60; k += 1) {
      const lines = Array.from({ length: 104 + any(60) }, (_, i) => {
        const value = ['1k', '10k', '100k', '47k', '22k', '1M'][any(6)]!;
        return `R${i + 1} ${value} n${any(40)} ${random() < 0.3 ? '0' : `m${any(40)}`}`;
      });
      expect(channelTwins(markedCircuitOf(['V1 9V vcc 0', ...lines].join('\n'))).parts.size).toBe(0);
    }
  });

  it('are found as long as one of them is not traced, and its nets are not known', () => {
    const half = STEREO.split('\n').map((line, i) =>
      i < 6 ? line : line.replace(/ \w+ \w+$/, ` p${i} q${i}`),
    );
    const { parts, nets } = channelTwins(markedCircuitOf(half.join('\n')));
    expect(['C1', 'R1', 'R3'].map((ref) => parts.get(ref))).toEqual(['C101', 'R101', 'R103']);
    expect(nets.get('a')).toBeUndefined();
  });
});

describe('what is planned for both channels', () => {
  it('has equal values, and designators and nets of its own', () => {
    expect(mirrored(STEREO, 'R3 -> 22k')).toBe(changeWords({ steps: stepsOf(STEREO, 'R103 -> 22k') }));
    const added = twinSteps(circuitOf(STEREO), stepsOf(STEREO, '+C10 220p m outl'));
    expect(added).toMatchObject([{ do: 'add', part: { ref: 'C102', pins: { a: 'n', b: 'outr' } } }]);
  });

  it('takes a cell in series along, with a net of its own in each channel', () => {
    const steps = stepsOf(STEREO, '+R10 1k in series with R3.b; +C10 1n R10.b 0');
    const other = twinSteps(circuitOf(STEREO), steps)!;
    const refs = new Set([...steps, ...other].flatMap((s) => (s.do === 'add' ? [s.part.ref] : [])));
    expect(refs.size).toBe(4);
    const nets = (list: readonly Step[]) =>
      list.flatMap((s) => (s.do === 'add' ? Object.values(s.part.pins) : []));
    const shared = nets(steps).filter((net) => nets(other).includes(net));
    expect(new Set(shared)).toEqual(new Set(['0']));
  });

  it('brings the other up to one that was planned alone', () => {
    const circuit = circuitOf(STEREO);
    const planned = { ...circuit, changes: [fitChange('first', new Map([['R3', 22e3]]))] };
    expect(twinSteps(planned, stepsOf(STEREO, 'R3 -> 33k'))).toEqual([
      { do: 'fit', ref: 'R103', value: 33e3 },
    ]);
  });

  it('is nothing for what both channels share, or one has alone', () => {
    expect(mirrored(STEREO, 'C9 -> 220u')).toBeNull();
    expect(mirrored(STEREO, '+C11 100n vcc 0')).toBeNull();
    expect(mirrored(`${STEREO}\nR50 1k outl 0`, 'R50 -> 2k2')).toBeNull();
    // What lies in both channels as it is has no other side.
    expect(mirrored(STEREO, 'R3 -> 22k; R103 -> 22k')).toBeNull();
  });
});
