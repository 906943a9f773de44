import type { Layer, ReadoutKind, ReadoutOf } from '@zemble/contract';
import { AnalysisSession } from '../analysis/analysis/index.ts';
import { seededRandom } from '../base/numeric/index.ts';
import { resolveLayer } from '../circuit/changes/index.ts';
import { type Circuit, type LayerCircuit, type Part } from '../circuit/circuit/index.ts';
import { parseSheetLine } from '../sheet/sheet/index.ts';

export { seededRandom as seeded } from '../base/numeric/index.ts';

/** A circuit from lines of the parts sheet. */
export function circuitOf(lines: string): Circuit {
  const parts = lines
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line): Part => {
      const read = parseSheetLine(line);
      if (!read.ok) throw new Error(`${line}: ${read.problem.message}`);
      return read.part;
    });
  return { ground: '0', parts };
}

/** A readout without id and name, as a test writes it. */
export type Unnamed = { [K in ReadoutKind]: Omit<ReadoutOf<K>, 'id' | 'name'> }[ReadoutKind];

/** A session on a circuit as it is on a layer. */
export const sessionOf = (circuit: Circuit, layer: Layer = 'marked'): AnalysisSession =>
  new AnalysisSession(resolveLayer(circuit, layer));

/** A circuit from lines as it is marked. */
export const markedCircuitOf = (lines: string): LayerCircuit => resolveLayer(circuitOf(lines), 'marked');

/** A random but plausible circuit: a signal through coupled stages of transistors and opamps with their networks. */
export function randomCircuit(seed: number, stages: number): Circuit {
  const random = seededRandom(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const ohms = () => `${pick(['1', '2.2', '4.7', '6.8'])}${pick(['k', '0k', '00k'])}`;
  const farads = () => pick(['10n', '100n', '470n', '1u', '10u']);
  const lines = ['V1 12V vcc 0', 'G1 10mV in 0'];
  let net = 'in';
  let count = 1;
  const next = () => (count += 1);
  for (let s = 0; s < stages; s += 1) {
    const [b, c, e] = [`b${s}`, `c${s}`, `e${s}`];
    const kind = pick(['bjt', 'bjt', 'opamp', 'filter']);
    lines.push(`C${next()} ${farads()} ${net} ${b}`);
    if (kind === 'bjt') {
      lines.push(`R${next()} 220k vcc ${b}`, `R${next()} 47k ${b} 0`, `Q${next()} 2N3904 ${c} ${b} ${e}`);
      lines.push(`R${next()} 4k7 vcc ${c}`, `R${next()} 1k ${e} 0`);
      if (random() < 0.5) lines.push(`C${next()} 22u ${e} 0`);
      if (random() < 0.3) lines.push(`R${next()} ${ohms()} ${c} ${b}`);
    } else if (kind === 'opamp') {
      lines.push(`R${next()} 100k vcc ${b}`, `R${next()} 100k ${b} 0`);
      lines.push(
        `U${next()} TL072 plus=${b} minus=${e} out=${c} vplus=vcc vminus=0`,
        `R${next()} ${ohms()} ${c} ${e}`,
      );
      lines.push(`R${next()} ${ohms()} ${e} g${s}`, `C${next()} 10u g${s} 0`);
    } else {
      lines.push(
        `R${next()} ${ohms()} ${b} ${c}`,
        `C${next()} ${farads()} ${c} 0`,
        `R${next()} ${ohms()} ${c} 0`,
        `R${next()} 100k ${b} 0`,
      );
    }
    if (random() < 0.3) lines.push(`D${next()} 1N4148 ${c} 0`);
    net = c;
  }
  lines.push(`C${next()} 10u ${net} out`, `R${next()} 100k out 0`);
  return circuitOf(lines.join('\n'));
}
