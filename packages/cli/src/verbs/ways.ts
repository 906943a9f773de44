import {
  asksAt,
  makeWay,
  parseValue,
  placeIn,
  QUANTITY_KINDS,
  WAYS,
  ZembleError,
  type Answers,
  type Ask,
  type Made,
  type Place,
  type Way,
} from '@zemble/core';
import { loadUnit } from '../file.ts';
import { NoAnswer } from '../no-answer.ts';
import { UsageError, type Options } from '../options.ts';

/** `ways FILE --at REF|NET [--layer planned]`: what offers itself at a part or a net, with what each asks. */
export async function ways(options: Options): Promise<unknown> {
  const place = await placeOf(options);
  return {
    ways: WAYS.flatMap((way) => {
      const asks = asksAt(way, place);
      return asks ? [{ id: way.id, name: way.title, asks: asks.map(askOf) }] : [];
    }),
  };
}

/**
 * `way FILE --at REF|NET --id ID [--answers '{"gain":"6dB"}']`: the change that does it, with the readouts that the circuit
 * has then. What is not answered is taken as it was given.
 */
export async function way(options: Options): Promise<unknown> {
  const place = await placeOf(options);
  const id = options.requiredText('id');
  const found = WAYS.find((w) => w.id === id);
  if (!found)
    throw new UsageError(`There is no way of doing "${id}"; there are ${WAYS.map((w) => w.id).join(', ')}.`);
  const asks = asksAt(found, place);
  if (!asks) throw new NoAnswer(`"${found.title}" does not fit at ${options.requiredText('at')}.`);
  const { name, steps, promises, sentences, warnings } = madeOf(found, place, answersFrom(options, asks));
  return {
    change: { id: changeId(place, found), name, purpose: 'modification', state: 'planned', steps },
    promises,
    sentences,
    warnings,
  };
}

/** What comes of a way. Throws a NoAnswer with the reason where it cannot be. */
function madeOf(found: Way, place: Place, answers: Answers): Made {
  try {
    return makeWay(found, place, answers);
  } catch (error) {
    if (error instanceof ZembleError) throw new NoAnswer(error.message);
    throw error;
  }
}

const askOf = ({ id, label, quantity, given }: Ask) => ({
  id,
  label,
  unit: QUANTITY_KINDS[quantity],
  given,
});

/** The place that `--at` names: a part by its designator, otherwise a net. */
async function placeOf(options: Options): Promise<Place> {
  const { circuit } = await loadUnit(options);
  const at = options.requiredText('at');
  const layer = options.text('layer') === undefined ? 'planned' : options.layer();
  const mainsHz = options.mains();
  const byRef = placeIn(circuit, { ref: at, mainsHz }, layer);
  if (byRef.part) return byRef;
  const place = placeIn(circuit, { net: at, mainsHz }, layer);
  if (!place.hasNet) throw new UsageError(`"${at}" is neither a part nor a net of the ${layer} layer.`);
  return place;
}

/** An id that no change of the unit has. */
function changeId(place: Place, { id }: Way): string {
  const taken = new Set(place.changeIds);
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? id : `${id}-${n}`;
    if (!taken.has(name)) return name;
  }
}

/** Answers as they were typed, by the ids of what is asked. Throws a UsageError that names the answer. */
function answersFrom(options: Options, asks: readonly Ask[]): Answers {
  const text = options.text('answers') ?? '{}';
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new UsageError(`--answers is no JSON: ${text}`);
  }
  if (typeof said !== 'object' || said === null || Array.isArray(said))
    throw new UsageError('--answers is an object, as {"gain":"6dB"}.');
  const given = new Map<string, unknown>(Object.entries(said));
  const stray = [...given.keys()].find((id) => !asks.some((a) => a.id === id));
  if (stray !== undefined)
    throw new UsageError(
      asks.length === 0
        ? `Nothing is asked here, and "${stray}" was answered.`
        : `"${stray}" is not asked here; asked are ${asks.map((a) => a.id).join(', ')}.`,
    );
  return Object.fromEntries(asks.map((ask) => [ask.id, answerOf(ask, given.get(ask.id))]));
}

function answerOf({ id, quantity, given }: Ask, said: unknown): number {
  if (said === undefined) return given;
  if (typeof said === 'number' && Number.isFinite(said)) return said;
  const read =
    typeof said === 'string' ? parseValue(said, { kind: quantity, purpose: 'reading' }) : undefined;
  if (read?.ok) {
    const values = [...new Set(read.readings.map((r) => r.value))];
    if (values.length === 1) return values[0]!;
    throw new UsageError(`The answer to "${id}" may be ${values.join(' or ')}: type it without a comma.`);
  }
  throw new UsageError(
    `The answer to "${id}" cannot be read: ${read ? read.problem.message : 'it is a value, as "6dB"'}`,
  );
}
