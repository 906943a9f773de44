import type { ProblemDocument } from '@zemble/contract';

/** A failure that the caller can do something about; becomes a problem document. */
export class ApiError extends Error {
  readonly status: number;
  readonly code: string;
  readonly title: string;
  readonly hint: string | undefined;
  readonly extra: Pick<ProblemDocument, 'errors' | 'current'>;

  constructor(
    status: number,
    code: string,
    title: string,
    detail: string,
    hint?: string,
    extra: Pick<ProblemDocument, 'errors' | 'current'> = {},
  ) {
    super(detail);
    this.status = status;
    this.code = code;
    this.title = title;
    this.hint = hint;
    this.extra = extra;
  }
}

export const notFound = (what: string, id: string): ApiError =>
  new ApiError(
    404,
    'not-found',
    'Not found',
    `There is no ${what} ${id}.`,
    'It may have been removed; load the page again.',
  );

/** The write was based on a version that is no longer the current one. */
export const stale = (what: string, current: unknown): ApiError =>
  new ApiError(
    409,
    'stale',
    'Changed meanwhile',
    `${what} was changed elsewhere since you loaded it.`,
    'Look at both values and choose.',
    { current },
  );

export const invalid = (detail: string, hint: string, errors?: ProblemDocument['errors']): ApiError =>
  new ApiError(422, 'invalid', 'Cannot be used', detail, hint, errors ? { errors } : {});
