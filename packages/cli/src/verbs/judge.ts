import { readFile } from 'node:fs/promises';
import { readingsFileSchema, type ReadingsFile } from '@zemble/contract';
import {
  aspectNamed,
  aspectsOf,
  bareAspect,
  ZembleError,
  judgePlainly,
  KINDS,
  meterWord,
  parseValue,
  type Circuit,
  type Part,
  type PlainReading,
  type QuantityKind,
} from '@zemble/core';
import { loadBench } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

type Given = ReadingsFile[number];

/**
 * `judge FILE --part REF --reading VALUE [--esr OHM] [--in-circuit] [--red PIN] [--aspect NAME]`, or
 * `--readings FILE.json`
 */
export async function judge(options: Options): Promise<unknown> {
  const { circuit } = await loadBench(options);
  const layer = options.layer();
  const file = options.text('readings');
  const given = file === undefined ? [readingOf(options)] : await readingsIn(file);
  return { verdicts: given.map((each) => judgePlainly(circuit, ...read(circuit, each), layer)) };
}

function readingOf(options: Options): Given {
  const [esr, red, aspect] = [options.text('esr'), options.text('red'), options.text('aspect')];
  return {
    part: options.requiredText('part'),
    reading: options.requiredText('reading'),
    inCircuit: options.flag('in-circuit'),
    ...(esr === undefined ? {} : { esr }),
    ...(red === undefined ? {} : { red }),
    ...(aspect === undefined ? {} : { aspect }),
  };
}

async function readingsIn(path: string): Promise<ReadingsFile> {
  let json: unknown;
  try {
    json = JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    const why = error instanceof SyntaxError ? 'is not JSON' : 'cannot be read';
    throw new UsageError(`The file ${path} ${why}.`);
  }
  const parsed = readingsFileSchema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  const place = issue?.path.join('.') ?? '';
  throw new UsageError(`${path}${place === '' ? '' : `, ${place}`}: ${issue?.message ?? 'not readings'}.`);
}

function read(circuit: Circuit, given: Given): [part: Part, reading: PlainReading] {
  const part = circuit.parts.find((p) => p.ref === given.part);
  if (!part) throw new ZembleError('circuit/unknown-part', { ref: given.part, where: 'A reading' });
  if (given.red !== undefined && !Object.keys(part.pins).includes(given.red))
    throw new UsageError(
      `${part.ref} has no pin "${given.red}"; its pins are ${Object.keys(part.pins).join(', ')}.`,
    );
  const aspect = given.aspect === undefined ? undefined : aspectNamed(part, given.aspect);
  if (given.aspect !== undefined && !aspect)
    throw new UsageError(
      `Nothing called "${given.aspect}" is read of ${part.ref}; what can be read of it: ${
        aspectsOf(part)
          .map((a) => a.id)
          .join(', ') || 'its value'
      }.`,
    );
  const quantity = aspect?.quantity ?? bareAspect(part)?.quantity ?? KINDS[part.kind].value ?? 'number';
  return [
    part,
    {
      value: numberFrom(given.reading, quantity, `The reading of ${part.ref}`),
      ...(given.esr === undefined ? {} : { esr: esrFrom(given.esr, part.ref) }),
      isInCircuit: given.inCircuit === true,
      ...(given.red === undefined ? {} : { red: given.red }),
      ...(given.aspect === undefined ? {} : { aspect: given.aspect }),
    },
  ];
}

/** A series resistance, ohm. An open one is no resistance that could be judged. */
function esrFrom(given: number | string, ref: string): number {
  const ohm = numberFrom(given, 'resistor', `The ESR of ${ref}`);
  if (ohm === 'short') return 0;
  if (ohm === null) throw new UsageError(`The ESR of ${ref} must be a number of ohms, not "${given}".`);
  return ohm;
}

/** A value in SI units, or a short; null for overload and too little to read. */
function numberFrom(
  given: number | string | null,
  kind: QuantityKind,
  what: string,
): number | 'short' | null {
  const state = typeof given === 'string' ? meterWord(given) : null;
  if (given === null || state === 'open') return null;
  if (state === 'short') return state;
  const value = typeof given === 'number' ? given : numberIn(given, kind);
  if (value !== undefined && Number.isFinite(value) && value >= 0) return value;
  throw new UsageError(`${what} must be a number from zero up, or "open" or "short", not "${given}".`);
}

function numberIn(text: string, kind: QuantityKind): number | undefined {
  const parsed = parseValue(text, { kind, purpose: 'reading' });
  return parsed.ok ? parsed.readings[0].value : undefined;
}
