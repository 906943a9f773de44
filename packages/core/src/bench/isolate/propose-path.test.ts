import { describe, expect, it } from 'vitest';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import { checkPath, preparePath } from './path.ts';
import { proposePath } from './propose-path.ts';

const links = (lines: string) => {
  const path = proposePath(circuitOf(lines));
  const by = (carries: string) =>
    path.links.filter((l) => l.carries === carries).map((l) => `${l.from}>${l.to}`);
  return { path, audio: by('audio'), supply: by('supply') };
};

const TWO_STAGES = `
  V1 9V vcc 0
  G1 10mV 1kHz in 0
  C1 1u in b1
  R1 470k vcc b1
  R2 68k b1 0
  Q1 2N3904 c1 b1 e1
  R3 10k vcc c1
  R4 820 e1 0
  C2 1u c1 b2
  R5 470k vcc b2
  Q2 2N3904 vcc b2 e2
  R6 4k7 e2 0
  C3 10u e2 out
  S1 speaker 8 out 0`;

describe('a path proposed from the circuit', () => {
  it('splits at active devices and coupling capacitors', () => {
    const { path, audio, supply } = links(TWO_STAGES);
    expect(audio).toEqual(['G1>C1', 'C1>Q1', 'Q1>C2', 'C2>Q2', 'Q2>C3', 'C3>S1']);
    expect(supply).toEqual(['V1>Q1', 'V1>Q2']);
    expect(path.blocks.find((b) => b.id === 'Q1')!.parts).toEqual(
      expect.arrayContaining(['Q1', 'R1', 'R2', 'R3', 'R4']),
    );
  });

  it('names the nets where the stages can be tapped', () => {
    const { path } = links(TWO_STAGES);
    expect(path.testPoints!.map((t) => t.net)).toEqual(['in', 'b1', 'c1', 'b2', 'e2', 'out']);
  });

  it('calls stages what the trade calls them, and by their device where it has no name', () => {
    const names = (lines: string) =>
      proposePath(circuitOf(lines)).blocks.flatMap((b) => (/^[QU]/.test(b.id) ? [b.name] : []));
    expect(names(TWO_STAGES)).toEqual(['Common-emitter stage Q1', 'Emitter follower Q2']);
    const pair =
      'V1 9V vp 0\nV2 9V 0 vm\nG1 1V in 0\nQ1 2N3904 c1 in t\nQ2 2N3904 c2 fb t\nR1 10k t vm\nR2 4k7 vp c1\nR3 4k7 vp c2\nR4 10k fb 0';
    expect(names(pair)).toEqual(['Q1 of long-tailed pair Q1 Q2', 'Q2 of long-tailed pair Q1 Q2']);
    expect(names('G1 1V in 0\nQ1 2N3904 in b 0\nR1 1k b 0')).toEqual(['Stage around Q1']);
  });

  it('gives every part to exactly one block, on random circuits', () => {
    for (let seed = 1; seed < 40; seed += 1) {
      const circuit = randomCircuit(seed, 1 + (seed % 5));
      const path = proposePath(circuit);
      expect(checkPath(path, circuit)).toEqual([]);
      const owned = path.blocks.flatMap((b) => b.parts ?? []).sort();
      expect(owned).toEqual([...circuit.parts.map((p) => p.ref)].sort());
    }
  });
});

describe('the ends of a proposed path', () => {
  /** A preamplifier as people type it: neither a source nor a loudspeaker. */
  const PREAMPLIFIER =
    'V1 9V vcc 0\nR1 470k vcc b1\nR2 100k b1 0\nR3 4k7 vcc c1\nR4 1k e1 0\nC3 47u e1 0\nQ1 2N3904 c1 b1 e1\nQ2 BC547B vcc c1 e2\nR5 2k2 e2 0\nC1 100n in b1\nC2 10u e2 out\nR6 100k out 0\nR9 1M in 0';

  it('runs from the input to the output, with a point behind each coupling', () => {
    const { path, audio } = links(PREAMPLIFIER);
    expect(audio).toEqual(['in>C1', 'C1>Q1', 'Q1>Q2', 'Q2>C2', 'C2>out']);
    expect(path.testPoints!.map((t) => t.net)).toEqual(['in', 'b1', 'c1', 'e2', 'out']);
    expect(path.blocks.find((b) => b.id === 'in')).toMatchObject({ name: 'Input in', kind: 'socket' });
  });

  it('finds ends that have any name, beyond a coupling with nothing but a resistor to ground', () => {
    const { audio } = links(PREAMPLIFIER.replaceAll(/\bin\b/g, 'n1').replaceAll(/\bout\b/g, 'n9'));
    expect(audio).toEqual(['n1>C1', 'C1>Q1', 'Q1>Q2', 'Q2>C2', 'C2>n9']);
  });

  it('takes no emitter, feedback or load network for an output', () => {
    const { audio } = links(`${PREAMPLIFIER}\nC7 47u e1 x\nR17 220 x 0\nC8 100n e2 z\nR18 10 z 0`);
    expect(audio.filter((l) => />(?:x|z)$/.test(l))).toEqual([]);
  });

  it('leads to every output, from every input', () => {
    const { audio } = links(
      'V1 12V vp 0\nV2 12V 0 vm\nU1 TL072 plus=0 minus=s out=o vplus=vp vminus=vm\nR1 10k a s\nR2 10k b s\nR3 10k s o\nC1 1u in1 a\nC2 1u in2 b\nC3 10u o out1\nC4 10u o tape\nR4 47k out1 0\nR5 47k tape 0',
    );
    expect(audio).toEqual(
      expect.arrayContaining(['in1>C1', 'in2>C2', 'C1>U1', 'C2>U1', 'U1>C3', 'U1>C4', 'C3>out1', 'C4>tape']),
    );
  });

  it('gives a jack its socket', () => {
    const { path, audio } = links(`${PREAMPLIFIER}\nJ1 jack in 0`);
    expect(audio[0]).toBe('J1>C1');
    expect(path.blocks.find((b) => b.id === 'J1')!.parts).toEqual(['J1']);
    expect(path.blocks.flatMap((b) => b.parts ?? []).filter((r) => r === 'J1')).toHaveLength(1);
  });

  it('is not confused by a net that is called as a part is, nor by one jack with two contacts', () => {
    const odd = links(PREAMPLIFIER.replaceAll(/\bin\b/g, 'R1').replaceAll(/\bout\b/g, 'Q2'));
    expect(odd.audio).toEqual(['R1>C1', 'C1>Q1', 'Q1>Q2', 'Q2>C2', 'C2>Q2-output']);
    const { path } = links(`${PREAMPLIFIER}\nJ1 jack in out`);
    const owned = path.blocks.flatMap((b) => b.parts ?? []).filter((r) => r === 'J1');
    expect(owned).toHaveLength(1);
    expect(path.links.some((l) => l.to === 'J1')).toBe(false);
  });

  it('keeps every random circuit without rings', () => {
    for (let seed = 1; seed < 40; seed += 1) {
      const circuit = randomCircuit(seed, 1 + (seed % 5));
      expect(preparePath(proposePath(circuit), circuit).hasRing, `seed ${seed}`).toBe(false);
    }
  });
});
