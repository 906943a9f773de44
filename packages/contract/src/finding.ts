import { z } from 'zod';

/** What a link carries. Audio and data pass on what they get; supply, clock and control are depended on. */
export const CARRIES = ['audio', 'supply', 'clock', 'control', 'data'] as const;
export const carriesSchema = z.enum(CARRIES);
export type Carries = z.infer<typeof carriesSchema>;

/** What can be seen or heard at a point. */
export const SAW = [
  'good',
  'weak',
  'distorted',
  'hum',
  'none',
  'pulsing',
  'high',
  'low',
  'floating',
] as const;
export const sawWordSchema = z.enum(SAW);
export type SawWord = z.infer<typeof sawWordSchema>;
export const sawSchema = z.union([
  sawWordSchema,
  z.looseObject({ value: z.number(), unit: z.string().max(16) }),
]);

const idSchema = z.string().trim().min(1).max(64);
const nameSchema = z.string().trim().max(120);
const minutesSchema = z.number().positive().max(10_000);

export const blockSchema = z.looseObject({
  id: idSchema,
  name: nameSchema.optional(),
  kind: z
    .string()
    .trim()
    .max(80)
    .optional()
    .meta({ description: 'Free text; known kinds bring a usual weight.' }),
  parts: z.array(z.string().max(32)).max(2000).optional(),
  prior: z
    .number()
    .positive()
    .max(1e6)
    .optional()
    .meta({ description: 'Weight of its failing, against the others.' }),
  minutes: minutesSchema.optional().meta({ description: 'Minutes to get at it.' }),
});
export const linkSchema = z.looseObject({
  from: idSchema,
  to: idSchema,
  carries: carriesSchema.default('audio'),
});
export const testPointSchema = z.looseObject({
  id: idSchema,
  name: nameSchema.optional(),
  link: z.tuple([idSchema, idSchema]).optional(),
  net: idSchema.optional(),
  minutes: minutesSchema.optional(),
});
/** Blocks, what flows between them, and where it can be tapped. */
export const pathSchema = z.looseObject({
  blocks: z.array(blockSchema).max(500),
  links: z.array(linkSchema).max(2000).default([]),
  testPoints: z.array(testPointSchema).max(2000).optional(),
  twins: z
    .array(z.tuple([idSchema, idSchema]))
    .max(500)
    .optional(),
});
export type PathData = z.infer<typeof pathSchema>;
export type BlockData = z.infer<typeof blockSchema>;
export type LinkData = z.infer<typeof linkSchema>;
export type TestPointData = z.infer<typeof testPointSchema>;

/** One test and what came of it. */
export const evidenceSchema = z.looseObject({
  at: idSchema.meta({
    description: 'A test point, a net, or a block (its output; with "unplugged" the block itself).',
  }),
  injectedAt: idSchema.optional(),
  saw: sawSchema,
  conditions: z.array(z.string().trim().min(1).max(80)).max(20).optional(),
  withdrawn: z.boolean().optional(),
});
export type EvidenceData = z.infer<typeof evidenceSchema>;

/** What is heard of a fault, in the words of the trade. */
export const HEARD = [
  'nothing',
  'hum',
  'hiss',
  'crackle',
  'distortion',
  'weak',
  'wrong pitch or speed',
  'thump',
  'pulsing power',
] as const;
export const heardSchema = z.enum(HEARD);
export type Heard = z.infer<typeof heardSchema>;

export const checkOutcomeSchema = z.enum(['fine', 'was it']);
/** Damage that can be seen, smelled or heard on a board. */
export const DEFECTS = ['arcing', 'burnt', 'cracked joint', 'bulged', 'corroded', 'broken'] as const;
export const defectSchema = z.enum(DEFECTS);
export type Defect = z.infer<typeof defectSchema>;

/** Damage with its place: what it is at (a part, block, net or test point), and where on which photo. */
export const damageSchema = z.looseObject({
  defect: defectSchema,
  target: z.string().trim().min(1).max(64).optional(),
  photoId: z.string().max(64).optional(),
  x: z.number().min(0).max(1).optional(),
  y: z.number().min(0).max(1).optional(),
  at: z.iso.datetime(),
});
export type Damage = z.infer<typeof damageSchema>;

export const proofSchema = z.enum(['right', 'not it']);

export const intakeSchema = z.looseObject({
  words: z
    .string()
    .max(5000)
    .optional()
    .meta({ description: 'The complaint in the words of who brought it.' }),
  heard: z.array(heardSchema).max(20).optional(),
  outputs: z.string().max(200).optional().meta({ description: 'Which outputs are hit.' }),
  intermittent: z.boolean().optional(),
  ageYears: z.number().min(0).max(200).optional(),
  since: z.string().max(200).optional(),
  before: z.string().max(500).optional().meta({ description: 'What was done or happened before.' }),
  /** Stored energy that a discharge is computed for. */
  stored: z
    .looseObject({
      farad: z.number().positive(),
      volt: z.number().positive(),
      ohm: z.number().positive().optional(),
    })
    .optional(),
  /** First checks that were made, by id. */
  checks: z.record(z.string().max(64), checkOutcomeSchema).optional(),
  /** What the search has convicted, as it was said; mended ones stay. */
  convicted: z
    .array(
      z.looseObject({
        blockId: idSchema.optional(),
        kind: z.string().max(80).optional(),
        ref: z.string().max(32).optional(),
        words: z.string().max(300),
        at: z.iso.datetime(),
        check: z.string().max(64).optional().meta({ description: 'The first check that found it.' }),
        defect: defectSchema.optional(),
        proof: z
          .looseObject({ outcome: proofSchema, at: z.iso.datetime() })
          .optional()
          .meta({ description: 'Whether it was that, once mended and tried.' }),
      }),
    )
    .max(200)
    .optional(),
  /** Damage that can be seen, with its place on a photo. */
  damage: z.array(damageSchema).max(200).optional(),
  /** What others found on the same model, with the weight that is given to it. */
  notes: z
    .array(
      z.looseObject({
        text: z.string().trim().min(1).max(500),
        blockId: idSchema.optional(),
        ref: z.string().max(32).optional(),
        weight: z.number().positive().max(1000),
      }),
    )
    .max(100)
    .optional(),
});
export type IntakeData = z.infer<typeof intakeSchema>;
