import { describe, expect, it } from 'vitest';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import { checkPath } from './path.ts';
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
