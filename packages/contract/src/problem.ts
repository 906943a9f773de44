import { z } from 'zod';

/** The body of every failure: a problem document (RFC 9457), with a stable code and a hint of what to do. */
export const problemDocumentSchema = z.object({
  type: z.string().meta({ description: 'about:blank, or a URI reference for the kind of problem' }),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  code: z.string(),
  hint: z.string().optional(),
  instance: z.string().optional(),
  /** One entry for each thing that is wrong, with its place. */
  errors: z.array(z.object({ where: z.string().optional(), message: z.string() })).optional(),
  /** With code "stale": the state that the write did not know of. */
  current: z.unknown().optional(),
});
export type ProblemDocument = z.infer<typeof problemDocumentSchema>;

export const PROBLEM_MEDIA_TYPE = 'application/problem+json';
