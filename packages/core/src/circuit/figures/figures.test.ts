import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { figuresOf } from './index.ts';

const titles = (lines: string) => figuresOf(circuitOf(lines)).map((f) => f.title);
const RAILS = 'V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\n';

/** Circuits of textbooks, each with the figures that the trade sees in it. */
const TEXTBOOK: readonly (readonly [what: string, lines: string, figures: readonly string[]])[] = [
  [
    'a stage with divider bias and a bypass',
    'V1 12V vcc 0\nG1 1mV in 0\nC1 10u in b\nR1 47k vcc b\nR2 10k b 0\nQ1 2N3904 c b e\nR3 4k7 vcc c\nR4 1k e 0\nC2 100u e 0\nC3 10u c out\nR5 10k out 0',
    ['divider bias R1 R2', 'common-emitter stage Q1'],
  ],
  [
    'an emitter follower',
    'V1 12V vcc 0\nG1 1mV in 0\nC1 10u in b\nR1 100k vcc b\nR2 100k b 0\nQ1 2N3904 vcc b e\nR3 4k7 e 0',
    ['divider bias R1 R2', 'emitter follower Q1'],
  ],
  [
    'a source follower',
    'V1 12V vcc 0\nG1 1mV g 0\nJF1 J201 vcc g s\nR1 10k s 0\nR2 1M g 0',
    ['source follower JF1'],
  ],
  [
    'a cathode follower',
    'V1 250V ht 0\nG1 1V g 0\nV2 12AX7 ht g k\nR1 100k k 0\nR2 1M g 0',
    ['cathode follower V2'],
  ],
  [
    'a triode stage behind a cell of the supply',
    'V1 280V ht 0\nR1 10k ht h\nC1 22u h 0\nG1 1V g 0\nR2 1M g 0\nV2 12AX7 a g k\nR3 100k h a\nR4 1k5 k 0\nC2 25u k 0\nC3 22n a out\nR5 1M out 0',
    ['RC cell in the supply C1 R1', 'common-cathode stage V2'],
  ],
  [
    'a long-tailed pair with a resistor for its tail',
    `${RAILS}Q1 2N3904 c1 in t\nQ2 2N3904 c2 fb t\nR1 10k t vm\nR2 4k7 vp c1\nR3 4k7 vp c2\nR4 10k fb 0\nR5 10k in 0`,
    ['long-tailed pair Q1 Q2'],
  ],
  [
    'a pair with a mirror as its load',
    `${RAILS}Q1 2N3904 m in t\nQ2 2N3904 o fb t\nR1 10k t vm\nQ3 2N3906 m m vp\nQ4 2N3906 o m vp\nR4 10k fb 0\nR5 10k in 0\nR6 10k o 0`,
    ['long-tailed pair Q1 Q2', 'current mirror Q3 Q4'],
  ],
  [
    'a Darlington pair',
    'V1 12V vcc 0\nG1 1V in 0\nR1 10k in b\nQ1 2N3904 vcc b m\nQ2 2N3904 vcc m e\nR2 100 e 0',
    ['Darlington pair Q1 Q2'],
  ],
  [
    'a complementary feedback pair',
    'V1 12V vcc 0\nG1 1V in 0\nR1 10k in b\nQ1 2N3904 m b x\nQ2 2N3906 x m vcc\nR2 1k vcc m\nR3 100 x 0',
    ['complementary feedback pair Q1 Q2'],
  ],
  [
    'an output with its bias generator, Zobel and bootstrap',
    `${RAILS}Q3 2N3904 v3 in vm\nR4 2k2 vp bs\nR5 2k2 bs v4\nC3 100u bs out\nQ4 2N3904 v4 vb v3\nR6 1k2 v4 vb\nR7 820 vb v3
      Q7 2N3904 vp v4 o1\nQ8 2N3906 vm v3 o2\nR10 0.22 o1 out\nR11 0.22 out o2\nR14 10 out z\nC5 100n z 0\nLS1 8 out 0\nR1 10k in vm`,
    [
      'complementary output Q7 Q8',
      'Vbe multiplier Q4',
      'bootstrap C3',
      'Zobel network C5 R14',
      'common-emitter stage Q3',
    ],
  ],
  [
    'a cascode',
    'V1 12V vcc 0\nG1 1mV in 0\nQ1 2N3904 m in e\nR1 1k e 0\nQ2 2N3904 c b2 m\nR2 4k7 vcc c\nR3 47k vcc b2\nR4 22k b2 0\nC1 10u b2 0\nR5 10k in 0',
    ['cascode Q1 Q2', 'reference between the rails R3 R4'],
  ],
  [
    'an inverting amplifier',
    `${RAILS}R1 10k in m\nR2 100k m out\nU1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm\nR3 10k out 0`,
    ['inverting amplifier U1'],
  ],
  [
    'an amplifier that does not invert, coupled at its foot',
    `${RAILS}R1 1k m x\nC1 10u x 0\nR2 100k m out\nU1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR3 10k out 0\nR4 10k in 0`,
    ['non-inverting amplifier U1'],
  ],
  [
    'a follower',
    `${RAILS}U1 TL072 plus=in minus=out out=out vplus=vp vminus=vm\nR3 10k out 0\nR4 1M in 0`,
    ['follower U1'],
  ],
  [
    'an integrator',
    `${RAILS}R1 10k in m\nC1 10n m out\nU1 TL072 plus=0 minus=m out=out vplus=vp vminus=vm\nR3 10k out 0`,
    ['integrator U1'],
  ],
  [
    'an all-pass stage',
    `${RAILS}R1 10k in m\nR2 10k m out\nC1 47n in p\nR3 22k p 0\nU1 TL072 plus=p minus=m out=out vplus=vp vminus=vm\nR4 10k out 0`,
    ['all-pass stage U1'],
  ],
  [
    'a Wien oscillator',
    `V1 15V vp 0\nV2 15V 0 vm\nU1 TL072 plus=p minus=m out=out vplus=vp vminus=vm\nR1 10k out s\nC1 10n s p\nR2 10k p 0\nC2 10n p 0\nR3 10k m 0\nR4 22k out m`,
    ['Wien network U1', 'non-inverting amplifier U1'],
  ],
  [
    'a phase-shift ladder',
    'V1 9V vcc 0\nQ1 2N3904 c x3 0\nR4 4k7 vcc c\nC1 10n c x1\nR1 10k x1 0\nC2 10n x1 x2\nR2 10k x2 0\nC3 10n x2 x3\nR3 10k x3 0',
    ['phase-shift ladder C1 C2 C3', 'common-emitter stage Q1'],
  ],
  [
    'bass and treble controls',
    `G1 1V x 0\nR1 11k x b1\nP1 100k b1 bw b3\nR2 11k b3 y\nC1 47n b1 bw\nC2 47n bw b3\nR3 11k bw sum\nC3 4n7 x t1\nP2 500k t1 tw t3\nC4 4n7 t3 y\nR4 3k6 tw sum
      V1 15V vp 0\nV2 15V 0 vm\nU1 TL072 plus=0 minus=sum out=y vplus=vp vminus=vm`,
    ['bass control P1', 'treble control P2'],
  ],
  [
    'a bridge rectifier',
    'G1 20V a 0\nT1 1 a 0 x y\nD1 1N4007 x top\nD2 1N4007 y top\nD3 1N4007 0 x\nD4 1N4007 0 y\nC1 1000u top 0\nR1 100 top 0',
    ['bridge rectifier D1 D2 D3 D4', 'transformer coupling T1'],
  ],
  [
    'a rectifier',
    'G1 20V a 0\nD1 1N4007 a top\nC1 1000u top 0\nR1 100 top 0',
    ['rectifier and reservoir C1 D1'],
  ],
  ['clipping diodes', 'G1 1V in 0\nR1 1k in a\nD1 1N4148 a 0\nD2 1N4148 0 a', ['clipping diodes D1 D2']],
  ['a transformer that couples', 'G1 1V m 0\nT1 0.1 m 0 s 0\nR1 100k s 0', ['transformer coupling T1']],
  [
    'half the supply as a reference',
    'V1 9V vcc 0\nR1 10k vcc vr\nR2 10k vr 0\nC1 47u vr 0\nG1 1V in 0\nR3 10k in m\nR4 22k m o\nU1 TL072 plus=vr minus=m out=o vplus=vcc vminus=0',
    ['inverting amplifier U1', 'reference between the rails R1 R2'],
  ],
];

describe('the figures of a circuit', () => {
  it.each(TEXTBOOK)('%s', (_, lines, expected) => {
    expect(titles(lines).sort()).toEqual([...expected].sort());
  });

  it('are none in a ladder of resistors and capacitors', () => {
    expect(titles('G1 1V in 0\nR1 1k in a\nC1 10n a 0\nR2 1k a b\nC2 10n b 0\nR3 10k b 0')).toEqual([]);
    expect(titles('')).toEqual([]);
  });

  it('have parts in roles, whatever the order and the direction of the lines', () => {
    const pair = TEXTBOOK.find(([what]) => what.startsWith('a long-tailed'))![1];
    const turned = pair
      .split('\n')
      .reverse()
      .map((line) => line.replace(/^(R\d+) (\S+) (\S+) (\S+)$/, '$1 $2 $4 $3'))
      .join('\n');
    for (const lines of [pair, turned]) {
      const [figure] = figuresOf(circuitOf(lines));
      expect(Object.fromEntries(figure!.roles)).toEqual({ Q1: 'Q1', Q2: 'Q2', tail: 'R1' });
      expect(figure!.nets.get('tail')).toBe('t');
    }
  });

  it('end in time where every part is across the same two nets, or all meet in one', () => {
    const heap = Array.from(
      { length: 300 },
      (_, i) => `R${i} 1k n 0\nC${i} 10n n x${i}\nQ${i} 2N3904 n x${i} n`,
    );
    expect(figuresOf(circuitOf(heap.join('\n'))).length).toBeGreaterThanOrEqual(0);
  });

  it('are found once each when there are many alike, and by time that grows with the circuit', () => {
    const stage = (i: number) =>
      `R1${i} 10k n${i} m${i}\nR2${i} 10k m${i} n${i + 1}\nC1${i} 47n n${i} p${i}\nR3${i} 22k p${i} 0\nU${i} TL072 plus=p${i} minus=m${i} out=n${i + 1} vplus=vp vminus=vm`;
    const lines = `V1 15V vp 0\nV2 15V 0 vm\nG1 1V n0 0\n${Array.from({ length: 40 }, (_, i) => stage(i)).join('\n')}`;
    const found = figuresOf(circuitOf(lines));
    expect(found).toHaveLength(40);
    expect(new Set(found.map((f) => f.id))).toEqual(new Set(['all-pass']));
  });
});
