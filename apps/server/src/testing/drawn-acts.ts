import { ACTS, type ActType, type UnitResource } from '@zemble/contract';
import fc from 'fast-check';
import { z } from 'zod';

/** What a JSON schema says, as far as values are drawn from it. */
interface Schema {
  readonly type?: string | readonly string[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly allOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: Schema | boolean;
  readonly items?: Schema;
  readonly prefixItems?: readonly Schema[];
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly exclusiveMinimum?: number;
  readonly format?: string;
  readonly $ref?: string;
}

/** Texts at which something may break. */
const EDGE_TEXTS = [
  '',
  ' ',
  'a',
  'R1',
  'R10',
  'gnd',
  '0',
  '4k7',
  '__proto__',
  'constructor',
  'a\u0000b',
  '\ud800',
  '<b>',
  'Ω µ °',
  '1e999',
  '-1',
];
const EDGE_TIMES = [
  '0000-01-01T00:00:00Z',
  '1969-12-31T23:59:59Z',
  '1970-01-01T00:00:00Z',
  '2026-12-01T10:00:00.000Z',
  '2199-12-31T23:59:59Z',
  '2200-01-01T00:00:00Z',
  '9999-12-31T23:59:59Z',
  'yesterday',
];
const EDGE_NUMBERS = [0, 1, -1, 0.5, 12, 1e-12, 1e6, 1e308, -1e308, 5e-324, 2 ** 31 - 1, 2 ** 31];

/** Longest text and list that are drawn; one more than most is drawn by itself. */
const LONGEST = 30;

/** Values of a schema, and such as lie at its edges or a little beyond them. */
function valuesOf(
  schema: Schema,
  root: { readonly $defs?: Readonly<Record<string, Schema>> },
  depth = 0,
): fc.Arbitrary<unknown> {
  const inner = (of: Schema) => valuesOf(of, root, depth + 1);
  if (depth > 7) return fc.constant(null);
  if (schema.$ref !== undefined) return inner(root.$defs?.[schema.$ref.split('/').at(-1)!] ?? {});
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const options = schema.anyOf ?? schema.oneOf;
  if (options) return fc.oneof(...options.map(inner));
  if (schema.allOf?.[0]) return inner(schema.allOf[0]);
  switch (schema.type) {
    case 'string': {
      if (schema.format === 'uuid') return fc.uuid();
      if (schema.format === 'date-time') return fc.constantFrom(...EDGE_TIMES);
      const most = schema.maxLength ?? LONGEST;
      return fc.oneof(
        { weight: 8, arbitrary: fc.constantFrom(...EDGE_TEXTS) },
        { weight: 4, arbitrary: fc.string({ maxLength: Math.min(most, LONGEST) }) },
        { weight: 1, arbitrary: fc.constantFrom('x'.repeat(most), 'x'.repeat(most + 1)) },
      );
    }
    case 'integer':
    case 'number': {
      const { minimum = schema.exclusiveMinimum ?? -1e9, maximum = 1e9 } = schema;
      const [low, high] = [Math.max(minimum, -1e15), Math.min(maximum, 1e15)];
      return fc.oneof(
        { weight: 4, arbitrary: fc.constantFrom(...EDGE_NUMBERS, low, high) },
        {
          weight: 4,
          arbitrary: fc.integer({
            min: Math.ceil(Math.max(low, -1000)),
            max: Math.floor(Math.max(Math.min(high, 1000), low)),
          }),
        },
      );
    }
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'array': {
      if (schema.prefixItems) return fc.tuple(...schema.prefixItems.map(inner));
      const minLength = Math.min(schema.minItems ?? 0, LONGEST);
      return fc.array(inner(schema.items ?? {}), { minLength, maxLength: Math.max(minLength, 3) });
    }
    case 'object': {
      const own = fc.record(
        Object.fromEntries(Object.entries(schema.properties ?? {}).map(([name, of]) => [name, inner(of)])),
        { requiredKeys: [...(schema.required ?? [])] },
      );
      const others = typeof schema.additionalProperties === 'object' ? schema.additionalProperties : null;
      if (!others || Object.keys(others).length === 0) return own;
      const more = fc.dictionary(fc.constantFrom(...EDGE_TEXTS.filter(Boolean)), inner(others), {
        maxKeys: 3,
      });
      return fc.tuple(own, more).map(([a, b]) => ({ ...b, ...(a as object) }));
    }
    default:
      return fc.constantFrom(null, 'R1', 1, true, {});
  }
}

/** A request that carries an act. */
export interface DrawnRequest {
  readonly type: ActType;
  readonly method: 'POST' | 'PUT' | 'PATCH';
  /** Below the unit, with a place of the list where the path names a thing. */
  readonly path: (unit: UnitResource) => string;
  readonly body: (unit: UnitResource) => object;
}

const LIST_OF: Readonly<Record<string, keyof UnitResource>> = {
  partId: 'parts',
  readingId: 'readings',
  readoutId: 'readouts',
  changeId: 'changes',
  evidenceId: 'evidence',
  beepId: 'beeps',
  photoId: 'photos',
};

/** Requests of every act that there is, drawn from what the registry says of their bodies. */
export function drawnRequests(): fc.Arbitrary<DrawnRequest> {
  return fc.oneof(
    ...Object.entries(ACTS).map(([name, { route, body }]) => {
      const schema = z.toJSONSchema(body as z.ZodType, { io: 'input', unrepresentable: 'any' }) as Schema & {
        readonly $defs?: Readonly<Record<string, Schema>>;
      };
      return fc.tuple(valuesOf(schema, schema), fc.nat(1000)).map(([value, place]): DrawnRequest => {
        const param = /:(\w+)/.exec(route.path)?.[1];
        const thingOf = (unit: UnitResource) => {
          const list =
            param === undefined ? [] : (unit[LIST_OF[param]!] as { id: string; version?: number }[]);
          return list.length === 0 ? undefined : list[place % list.length];
        };
        return {
          type: name as ActType,
          method: route.method,
          path: (unit) => route.path.replace(/:\w+/, thingOf(unit)?.id ?? unit.id),
          // Most of them are of things that are there, as they are.
          body: (unit) => {
            const known = value as {
              baseVersion?: unknown;
              partId?: unknown;
              seen?: unknown;
              sequence?: unknown;
            };
            const part = unit.parts[place % Math.max(unit.parts.length, 1)];
            return {
              ...known,
              ...('baseVersion' in known
                ? { baseVersion: thingOf(unit)?.version ?? part?.version ?? 0 }
                : {}),
              ...('partId' in known && part ? { partId: part.id, readoutId: undefined, ref: undefined } : {}),
              ...('seen' in known ? { seen: {} } : {}),
              ...('sequence' in known ? { sequence: 1 + (place % Math.max(unit.sequence, 1)) } : {}),
            };
          },
        };
      });
    }),
  );
}
