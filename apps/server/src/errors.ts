import { PROBLEMS, type ProblemCode, type ProblemDocument } from '@zemble/contract';

/** A failure that the caller can do something about; becomes a problem document with the status and title of its code. */
export class ApiError extends Error {
  readonly code: ProblemCode;
  readonly hint: string | undefined;
  readonly extra: Pick<ProblemDocument, 'errors' | 'current'>;

  constructor(
    code: ProblemCode,
    detail: string,
    hint?: string,
    extra: Pick<ProblemDocument, 'errors' | 'current'> = {},
  ) {
    super(detail);
    this.code = code;
    this.hint = hint;
    this.extra = extra;
  }

  get status(): number {
    return PROBLEMS[this.code].status;
  }
}

export const notFound = (what: string, id: string): ApiError =>
  new ApiError('not-found', `There is no ${what} ${id}.`, 'It may have been removed; load the page again.');

/** The write was based on a version that is no longer the current one. */
export const stale = (what: string, current: unknown): ApiError =>
  new ApiError(
    'stale',
    `${what} was changed elsewhere since you loaded it.`,
    'Look at both values and choose.',
    { current },
  );

export const invalid = (detail: string, hint: string, errors?: ProblemDocument['errors']): ApiError =>
  new ApiError('invalid', detail, hint, errors ? { errors } : {});
