import { z } from 'zod';

/**
 * Everything that can go wrong with a request, by its stable code: the status and the title that it is answered with, and what
 * it means. The table of docs/api.md follows from it.
 */
export const PROBLEMS = {
  'bad-request': { status: 400, title: 'Bad request', means: 'the request itself cannot be read' },
  'key-missing': { status: 400, title: 'Key missing', means: 'a write came without its Idempotency-Key' },
  'signed-out': { status: 401, title: 'Signed out', means: 'nobody is signed in on this device' },
  'not-let-in': {
    status: 401,
    title: 'Not let in',
    means: 'a passphrase or pairing code is not the right one',
  },
  stranger: { status: 403, title: 'Not from here', means: 'another page, or an address that is not ours' },
  'not-here': { status: 403, title: 'Not from here', means: 'it is done on the machine of the bench itself' },
  'not-yours': { status: 403, title: 'Not yours to do', means: 'only the owner of the bench does it' },
  'not-found': { status: 404, title: 'Not found', means: 'there is no such thing, or no such path' },
  stale: {
    status: 409,
    title: 'Changed meanwhile',
    means: 'the thing is another than the write was based on; `current` says what it is now',
  },
  'changed-since': {
    status: 409,
    title: 'Changed since',
    means: 'a later step changed what this one would take back',
  },
  broken: {
    status: 409,
    title: 'Would not hold',
    means: 'with it the unit would break a rule that holds for every unit',
  },
  'not-empty': { status: 409, title: 'Not empty', means: 'a bench is restored onto an empty one only' },
  'too-large': { status: 413, title: 'Too large', means: 'more than is taken at once' },
  invalid: {
    status: 422,
    title: 'Cannot be used',
    means: 'what was sent cannot be used; the sentence says where and why',
  },
  'key-reused': { status: 422, title: 'Key used twice', means: 'the key came before with another request' },
  taken: { status: 422, title: 'Taken already', means: 'something has this id already' },
  'too-many-attempts': {
    status: 429,
    title: 'Too many attempts',
    means: 'wait before the next one; the sentence says how long',
  },
  'too-many': {
    status: 429,
    title: 'Too much at once',
    means: 'too many requests in a minute, or too many large ones at a time',
  },
  'server-error': {
    status: 500,
    title: 'The server failed',
    means: 'a defect; the same key again does it once',
  },
} as const;
export type ProblemCode = keyof typeof PROBLEMS;

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
