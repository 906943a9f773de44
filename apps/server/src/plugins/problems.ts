import { PROBLEM_MEDIA_TYPE, type ProblemDocument } from '@zemble/contract';
import type { FastifyError, FastifyInstance } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { UniqueConstraintError } from 'sequelize';
import { ApiError } from '../errors.ts';

const SERVER_ERROR = 500;

/** Every failure leaves as a problem document (RFC 9457). */
export function problemErrors(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError, request, reply) => {
    const body = { ...problemOf(error), instance: request.url };
    if (body.status >= SERVER_ERROR) request.log.error(error);
    return reply.status(body.status).header('content-type', PROBLEM_MEDIA_TYPE).send(JSON.stringify(body));
  });
}

/** An id, or a name of which there is one only, that something else has: it will be refused again, so that nobody tries it for ever. */
const taken = (): ApiError =>
  new ApiError(
    422,
    'taken',
    'Taken already',
    'There is something under this id or name already.',
    'Give the new one another; what is there was not changed.',
  );

/** What stands for an unknown path of the API. */
export const unknownPath = (url: string): ApiError =>
  new ApiError(
    404,
    'not-found',
    'Not found',
    `There is nothing at ${url}.`,
    'See /api/v1/openapi.json for what there is.',
  );

function problemOf(thrown: FastifyError | ApiError): ProblemDocument {
  const error = thrown instanceof UniqueConstraintError ? taken() : thrown;
  if (error instanceof ApiError) {
    return {
      type: 'about:blank',
      title: error.title,
      status: error.status,
      detail: error.message,
      code: error.code,
      ...(error.hint === undefined ? {} : { hint: error.hint }),
      ...error.extra,
    };
  }
  if (hasZodFastifySchemaValidationErrors(error)) {
    const errors = error.validation.map((v) => ({
      where: v.instancePath.replace(/^\//, '').replace(/\//g, '.') || 'the request',
      message: v.message ?? 'is not valid',
    }));
    const first = errors[0]!;
    return {
      type: 'about:blank',
      title: 'Cannot be used',
      status: 422,
      detail: `${first.where}: ${first.message}.`,
      code: 'invalid',
      hint: 'Correct the field named and try again.',
      errors,
    };
  }
  const status = error.statusCode ?? SERVER_ERROR;
  if (status < SERVER_ERROR) {
    const isTooLarge = status === 413;
    return {
      type: 'about:blank',
      title: isTooLarge ? 'Too large' : 'Bad request',
      status,
      detail: isTooLarge
        ? 'What was sent is larger than 12 MB; a unit file is at most 10 MB.'
        : error.message,
      code: isTooLarge ? 'too-large' : 'bad-request',
    };
  }
  return {
    type: 'about:blank',
    title: 'The server failed',
    status: SERVER_ERROR,
    detail: 'Something went wrong on the server; it is not certain whether it was done.',
    code: 'server-error',
    hint: 'Try again with the same key: it is done once. If it happens again, look at the server’s log.',
  };
}
