import {
  API_ROOT,
  plainAnswerSchema,
  IDEMPOTENCY_HEADER,
  problemDocumentSchema,
  repairHistorySchema,
  unitResourceSchema,
  writeAnswerSchema,
  type ProblemDocument,
  type RepairHistory,
  type UnitResource,
} from '@zemble/contract';
import { z } from 'zod';

/** The server answered with a problem. */
export class ProblemError extends Error {
  readonly problem: ProblemDocument;
  constructor(problem: ProblemDocument) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** The server could not be reached, or failed: worth trying again. */
export class UnreachableError extends Error {
  readonly code = 'unreachable';
  /** What it answered, where it answered at all. */
  readonly status: number | null;
  constructor(message: string, status: number | null = null) {
    super(message);
    this.status = status;
  }
}

const SERVER_ERROR = 500;
/** Code of the answer, and event on the window, when nobody is signed in on this device any more. */
export const SIGNED_OUT = 'signed-out';

async function answerOf<T>(response: Response, schema: z.ZodType<T>): Promise<T> {
  if (response.status >= SERVER_ERROR)
    throw new UnreachableError(`The server answered ${response.status}.`, response.status);
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) {
    const read = schema.safeParse(body);
    if (read.success) return read.data;
    throw new UnreachableError('The server answered with something else than was asked for.');
  }
  const problem = problemDocumentSchema.safeParse(body);
  if (problem.success && problem.data.code === SIGNED_OUT) dispatchEvent(new Event(SIGNED_OUT));
  if (problem.success) throw new ProblemError(problem.data);
  throw new UnreachableError(`The server answered ${response.status}.`, response.status);
}

/** An answer that takes longer is given up, and asked for again, ms. */
const LONGEST_ANSWER_MS = 30_000;

async function reach(url: string, init?: RequestInit): Promise<Response> {
  try {
    return await fetch(url, { signal: AbortSignal.timeout(LONGEST_ANSWER_MS), ...init });
  } catch {
    throw new UnreachableError('The server cannot be reached.');
  }
}

/** Asks, or has something done that is no edit of a unit. Throws `ProblemError` or `UnreachableError`. */
export async function ask<T>(
  method: 'GET' | 'POST',
  path: string,
  schema: z.ZodType<T>,
  body?: object,
): Promise<T> {
  const init =
    body === undefined
      ? { method }
      : { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  return answerOf(await reach(`${API_ROOT}${path}`, init), schema);
}

export async function getUnit(id: string): Promise<UnitResource> {
  return answerOf(await reach(`${API_ROOT}/units/${id}`), unitResourceSchema);
}

/** What a write answers: what it did to a unit, or that the drawer has it. */
const anyAnswerSchema = z.union([writeAnswerSchema, plainAnswerSchema]);
export type AnyAnswer = z.infer<typeof anyAnswerSchema>;

/** Sends a write with its idempotency key; every write answers what it did. */
export async function sendWrite(
  method: string,
  path: string,
  key: string,
  body: unknown,
): Promise<AnyAnswer> {
  const isForm = body instanceof FormData;
  const response = await reach(`${API_ROOT}${path}`, {
    method,
    headers: { ...(isForm ? {} : { 'content-type': 'application/json' }), [IDEMPOTENCY_HEADER]: key },
    body: isForm ? body : JSON.stringify(body),
  });
  return answerOf(response, anyAnswerSchema);
}

export async function getRepairs(): Promise<RepairHistory> {
  return answerOf(await reach(`${API_ROOT}/repairs`), repairHistorySchema);
}

/** Whether the server answers at all. */
export const isServerThere = (): Promise<boolean> =>
  reach(`${API_ROOT}/health`).then(
    ({ ok }) => ok,
    () => false,
  );

export const photoUrl = (unitId: string, photo: { id: string; version: number }): string =>
  `${API_ROOT}/units/${unitId}/photos/${photo.id}?v=${photo.version}`;
export const readingsUrl = (unitId: string): string => `${API_ROOT}/units/${unitId}/readings.csv`;
export const archiveUrl = `${API_ROOT}/archive`;
export const fileUrl = (unitId: string): string => `${API_ROOT}/units/${unitId}/file`;
