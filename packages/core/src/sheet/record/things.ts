import { UNIT_FIELD_KINDS, TICKS_FIELD, isUnitField, type Shape, type Thing } from '@zemble/contract';
import { isSame } from '../../base/text/index.ts';

type Json = Thing['now'];
type Members = Readonly<Record<string, unknown>>;

/** Fields whose things travel one by one, by their names. */
const shapeOf = (field: string): Shape | undefined =>
  field === 'ticks' ? TICKS_FIELD.shape : isUnitField(field) ? UNIT_FIELD_KINDS[field].shape : undefined;

/**
 * What differs between two states of a field, as things: members that came, went or were changed, each by itself. A field
 * without things of its own, and one that was nothing, is one thing.
 *
 * @param field of a unit
 */
export function thingsBetween(field: string, before: unknown, after: unknown): Thing[] {
  const things: Thing[] = [];
  differ(shapeOf(field), [field], before, after, undefined, things);
  return things;
}

function differ(
  shape: Shape | undefined,
  at: string[],
  before: unknown,
  after: unknown,
  next: string | undefined,
  things: Thing[],
): void {
  if (isSame(before, after)) return;
  if (shape && isWithin(shape, before) && isWithin(shape, after)) {
    if (shape.is === 'list') return differInList(shape, at, before as unknown[], after as unknown[], things);
    return differInFields(shape, at, before as Members, after as Members, things);
  }
  things.push({
    at,
    was: (before ?? null) as Json,
    now: (after ?? null) as Json,
    ...(next === undefined ? {} : { before: next }),
  });
}

const isWithin = (shape: Shape, value: unknown): boolean =>
  shape.is === 'list' ? Array.isArray(value) : typeof value === 'object' && value !== null;

function differInList(
  shape: Extract<Shape, { is: 'list' }>,
  at: string[],
  before: readonly unknown[],
  after: readonly unknown[],
  things: Thing[],
): void {
  const key = shape.key as (member: unknown) => string;
  const [was, is] = [byKey(before, key), byKey(after, key)];
  const stayed = (from: ReadonlyMap<string, unknown>, to: ReadonlyMap<string, unknown>) =>
    [...from.keys()].filter((name) => to.has(name));
  const isTold = was.size === before.length && is.size === after.length;
  // Members that cannot be told apart, or were only moved among themselves: the list itself is the thing.
  if (!isTold || !isSame(stayed(was, is), stayed(is, was)))
    return differ(undefined, at, before, after, undefined, things);
  const names = { was: [...was.keys()], is: [...is.keys()] };
  for (const [i, name] of names.was.entries())
    if (!is.has(name)) differ(undefined, [...at, name], was.get(name), null, names.was[i + 1], things);
  // From the end, so that what a new one stands before is there already.
  for (const [i, name] of [...names.is.entries()].reverse())
    if (was.has(name)) differ(shape.of, [...at, name], was.get(name), is.get(name), undefined, things);
    else differ(undefined, [...at, name], null, is.get(name), names.is[i + 1], things);
}

const byKey = (list: readonly unknown[], key: (member: unknown) => string): Map<string, unknown> =>
  new Map(list.map((member) => [key(member), member]));

function differInFields(
  shape: Exclude<Shape, { is: 'list' }>,
  at: string[],
  before: Members,
  after: Members,
  things: Thing[],
): void {
  for (const name of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const inner =
      shape.is === 'record' ? shape.of : Object.hasOwn(shape.of, name) ? shape.of[name] : undefined;
    differ(inner, [...at, name], own(before, name), own(after, name), undefined, things);
  }
}

const own = (object: Members, name: string): unknown =>
  Object.hasOwn(object, name) ? object[name] : undefined;

/** A field with a thing put or removed, or the thing as it is, where it is neither what was seen nor what is put. */
export type PutResult =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly current: unknown };

/**
 * Puts one thing into a field, or takes it out of it. Who saw something else there than there is changes nothing; who puts what is
 * there already changes nothing either, and is right.
 *
 * @param value the whole field; its name is the first of the thing's keys
 */
export function putThing(value: unknown, thing: Thing): PutResult {
  return put(shapeOf(thing.at[0]!), value, thing.at.slice(1), thing);
}

function put(shape: Shape | undefined, value: unknown, at: readonly string[], thing: Thing): PutResult {
  const [name, ...rest] = at;
  if (name === undefined) {
    if (isSame(value ?? null, thing.now)) return { ok: true, value };
    return isSame(value ?? null, thing.was)
      ? { ok: true, value: thing.now }
      : { ok: false, current: value ?? null };
  }
  if (!shape || !isWithin(shape, value)) return { ok: false, current: value ?? null };
  if (shape.is === 'list') return putInList(shape, value as readonly unknown[], name, rest, thing);
  const members = value as Members;
  const inner = shape.is === 'record' ? shape.of : Object.hasOwn(shape.of, name) ? shape.of[name] : undefined;
  const result = put(inner, own(members, name), rest, thing);
  if (!result.ok) return result;
  if (Object.hasOwn(members, name) && result.value === members[name]) return { ok: true, value };
  const { [name]: _gone, ...others } = members;
  const isGone = result.value === null || result.value === undefined;
  return { ok: true, value: isGone ? others : { ...members, [name]: result.value } };
}

function putInList(
  shape: Extract<Shape, { is: 'list' }>,
  list: readonly unknown[],
  name: string,
  rest: readonly string[],
  thing: Thing,
): PutResult {
  const key = shape.key as (member: unknown) => string;
  const at = list.findIndex((member) => key(member) === name);
  const result = put(shape.of, at < 0 ? null : list[at], rest, thing);
  if (!result.ok) return result;
  const { value } = result;
  if (at >= 0 && value === list[at]) return { ok: true, value: list };
  if (value === null || value === undefined)
    return { ok: true, value: at < 0 ? list : list.toSpliced(at, 1) };
  if (at >= 0) return { ok: true, value: list.with(at, value) };
  const before = thing.before === undefined ? -1 : list.findIndex((member) => key(member) === thing.before);
  return { ok: true, value: list.toSpliced(before < 0 ? list.length : before, 0, value) };
}

/** What takes things back: each the other way round, the last first. */
export const inverseThings = (things: readonly Thing[]): Thing[] =>
  things.toReversed().map((thing) => ({ ...thing, was: thing.now, now: thing.was }));

/** Fields that things are of. */
export const fieldsOfThings = (things: readonly Thing[]): string[] => [
  ...new Set(things.map(({ at }) => at[0]!)),
];

/** Whether two things are one, or one of them is inside of the other. */
export const isSameThing = (a: Thing, b: Thing): boolean =>
  a.at.slice(0, b.at.length).every((key, i) => b.at[i] === key);

/** Names of things that a sentence says at most. */
const MOST_NAMED = 5;

/** What was put or removed, as a sentence of the log: "Changed its boards: R10, R3." */
export function thingsSentence(things: readonly Thing[]): string {
  const sentences = fieldsOfThings(things).map((field) => {
    const words =
      field === 'ticks' ? TICKS_FIELD.words : isUnitField(field) ? UNIT_FIELD_KINDS[field].words : field;
    const names = [
      ...new Set(things.filter(({ at }) => at[0] === field && at.length > 1).map(({ at }) => at.at(-1)!)),
    ];
    const named = names.length === 0 ? '' : `: ${names.slice(0, MOST_NAMED).join(', ')}`;
    return `Changed ${words}${named}${names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : ''}.`;
  });
  return sentences.join(' ');
}
