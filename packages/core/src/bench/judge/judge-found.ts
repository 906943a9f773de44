import type { Circuit, Part } from '../../circuit/circuit/index.ts';
import { judgeAspect, leakageV } from './aspects.ts';
import { judgeReading, severity, type JudgedReading, type Verdict } from './verdict.ts';

/** What a measured field or parameter was read as. */
const READ_AS: Readonly<Record<string, string>> = {
  esr: 'esr',
  leakage: 'leakage',
  BF: 'gain',
  contactOhm: 'contact',
  dcr: 'winding',
  rp: 'p1-p2',
  rs: 's1-s2',
};

/** Everything that is found of a part, judged by its marking: the worst of it, with all that is not in order in the sentence. */
export function judgeFound(circuit: Circuit, part: Part): Verdict {
  const verdicts = readingsOfFound(part).map((reading) =>
    reading.aspect ? judgeAspect(circuit, part, reading.aspect, reading) : judgeReading(part, reading),
  );
  const [worst, ...rest] = verdicts.sort((a, b) => severity(b) - severity(a));
  if (!worst)
    return { kind: 'cannot say', deviation: null, sentence: 'nothing was measured', isTrusted: false };
  const also = rest.filter((v) => v.kind !== 'in').map((v) => v.sentence);
  return { ...worst, sentence: [worst.sentence, ...also].join('; ') };
}

/** What is found of a part, as readings of it by itself. */
export function readingsOfFound(part: Part): JudgedReading[] {
  const { found, foundParams = {} } = part;
  const condition = 'leg lifted';
  const value: JudgedReading[] = found === null || found === undefined ? [] : [{ value: found, condition }];
  const beside = Object.entries(foundParams).flatMap(([name, number]): JudgedReading[] => {
    const aspect = READ_AS[name];
    return aspect === undefined
      ? []
      : [{ aspect, condition, value: name === 'leakage' ? leakageV(part) / number : number }];
  });
  return [...value, ...beside];
}
