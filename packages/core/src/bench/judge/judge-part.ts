import type { Layer } from '@zemble/contract';
import { circuitAt } from '../../circuit/changes/index.ts';
import { markedNumber, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { bareAspect, judgeAspect } from './aspects.ts';
import { judgeInCircuit, meterModeOf, type InCircuitVerdict } from './in-circuit.ts';
import { judgeEsr } from './small-verdicts.ts';
import { severity, type JudgedReading, type Verdict, type VerdictKind } from './verdict.ts';

/**
 * Judges what was read of a part, whatever it was: its value by itself or in circuit, something beside its value, and the
 * series resistance that came with it. The worse of the two is the verdict, and both are in its sentence.
 */
export function judgePart(circuit: Circuit, part: Part, reading: JudgedReading): InCircuitVerdict {
  const verdict = reading.aspect
    ? judgeAspect(circuit, part, reading.aspect, reading)
    : judgeInCircuit(circuit, part, reading);
  return withEsr(part, verdict, reading.esr);
}

/** A verdict on a capacitor with what its series resistance adds: the worse of the two, and both in the sentence. */
export function withEsr<V extends Verdict>(part: Part, verdict: V, esr: number | null | undefined): V {
  const marked = markedNumber(part);
  if (esr === undefined || esr === null || part.kind !== 'capacitor' || marked === null) return verdict;
  const judged = judgeEsr(marked, part.voltage, esr);
  const kind: VerdictKind = judged.kind === 'out' ? 'lossy' : judged.kind;
  const both = { ...verdict, sentence: `${verdict.sentence}; ${judged.sentence}` };
  return severity({ ...verdict, kind }) > severity(verdict) ? { ...both, kind } : both;
}

/** Four verdicts that anybody understands. */
export const PLAIN_VERDICTS = ['in', 'edge', 'out', 'cannot-say'] as const;
export type PlainVerdict = (typeof PLAIN_VERDICTS)[number];

/** A verdict in one of the four words. */
export function plainVerdict(kind: VerdictKind): PlainVerdict {
  switch (kind) {
    case 'in':
    case 'edge':
      return kind;
    case 'cannot say':
    case 'no marking':
      return 'cannot-say';
    case 'high':
    case 'low':
    case 'open':
    case 'short':
    case 'lossy':
      return 'out';
  }
}

/** A reading as it is given from outside: a number, a short, or null for overload and what is too small to read. */
export interface PlainReading {
  readonly value: number | 'short' | null;
  readonly esr?: number | undefined;
  readonly isInCircuit: boolean;
  /** Pin that had the red lead. */
  readonly red?: string | undefined;
  /** What was read when it is not the main value. */
  readonly aspect?: string | undefined;
}

/** What a reading says about a part, in plain words. */
export interface PlainJudgement {
  readonly part: string;
  readonly verdict: PlainVerdict;
  /** Where the part's own value lies; one that is open upwards has no `high`. */
  readonly between?: { readonly low: number; readonly high?: number };
  readonly sentence: string;
}

/**
 * Judges a reading from outside. Of a diode or a contact the bare reading is what a meter reads of it; the junction's
 * direction follows from the red lead, and where that is not known both must agree.
 *
 * @param layer of the other parts
 */
export function judgePlainly(
  circuit: Circuit,
  part: Part,
  reading: PlainReading,
  layer: Layer,
): PlainJudgement {
  const around = circuitAt(circuit, layer);
  const base = {
    value: reading.value ?? ('open' as const),
    condition: reading.isInCircuit ? ('in circuit' as const) : ('leg lifted' as const),
    ...(reading.esr === undefined ? {} : { esr: reading.esr }),
    ...(reading.red === undefined ? {} : { red: reading.red }),
  };
  const aspects = reading.aspect === undefined ? bareAspects(part, reading.red) : [reading.aspect];
  if (aspects.length > 0) {
    const verdicts = aspects.map((aspect) => judgePart(around, part, { ...base, aspect }));
    const [first] = verdicts.map((v) => plainVerdict(v.kind));
    return verdicts.every((v) => plainVerdict(v.kind) === first)
      ? { part: part.ref, verdict: first!, sentence: verdicts[0]!.sentence }
      : {
          part: part.ref,
          verdict: 'cannot-say',
          sentence: `${verdicts.map((v, i) => `from ${aspects[i]!.replace('-', ' to ')}: ${v.sentence}`).join('; ')}: red lead on which pin?`,
        };
  }
  if (meterModeOf(part) === null && part.kind !== 'potentiometer' && part.kind !== 'inductor')
    return {
      part: part.ref,
      verdict: 'cannot-say',
      sentence: `${part.ref} has no value that a meter reads: say what was read of it`,
    };
  const verdict = judgePart(around, part, base);
  const { own } = verdict;
  return {
    part: part.ref,
    verdict: plainVerdict(verdict.kind),
    ...(own && own.low <= own.high
      ? {
          between: {
            low: own.low,
            ...(Number.isFinite(own.high) ? { high: own.high } : {}),
          },
        }
      : {}),
    sentence: verdict.sentence,
  };
}

/** What a bare reading may be of: a junction either way, or the one that the red lead tells. */
function bareAspects(part: Part, red: string | undefined): string[] {
  const bare = bareAspect(part);
  if (!bare) return [];
  const [one, other] = bare.id.split('-');
  if (other === undefined) return [bare.id];
  const both = [`${one}-${other}`, `${other}-${one}`];
  return red === undefined ? both : both.filter((id) => id.startsWith(`${red}-`));
}
