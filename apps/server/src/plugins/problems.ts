import { PROBLEM_MEDIA_TYPE, PROBLEMS, type ProblemDocument } from '@zemble/contract';
import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { UniqueConstraintError } from 'sequelize';
import { ApiError, invalid } from '../errors.ts';

/** Every failure leaves as a problem document (RFC 9457). */
export function problemErrors(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError, request, reply) => sendProblem(error, request, reply));
}

export function sendProblem(error: FastifyError, request: FastifyRequest, reply: FastifyReply): FastifyReply {
  const body = { ...problemOf(error), instance: request.url };
  if (body.code === 'server-error') request.log.error(error);
  return reply.status(body.status).header('content-type', PROBLEM_MEDIA_TYPE).send(JSON.stringify(body));
}

/** Names that the database has once a unit, by their index. */
const ONCE: Readonly<Record<string, string>> = {
  parts_once_a_unit: 'parts',
  readouts_once_a_unit: 'readouts',
  changes_once_a_unit: 'changes',
};

/** Something that is there once, and would be there twice: it will be refused again, so that nobody tries it for ever. */
function taken({ parent }: UniqueConstraintError): ApiError {
  const { constraint = '', detail = '' } = parent as { constraint?: string; detail?: string };
  const several = ONCE[constraint];
  const [, name] = /=\([^,]+, (.*)\) already exists/.exec(detail) ?? [];
  if (several !== undefined && name !== undefined)
    return new ApiError(
      'broken',
      `With this there would be two ${several} ${name}.`,
      'Give the one that is there now another name first.',
    );
  return new ApiError(
    'taken',
    'There is something under this id or name already.',
    'Give the new one another; what is there was not changed.',
  );
}

/** What stands for an unknown path of the API. */
export const unknownPath = (url: string): ApiError =>
  new ApiError('not-found', `There is nothing at ${url}.`, 'See /api/v1/openapi.json for what there is.');

function problemOf(thrown: FastifyError | ApiError): ProblemDocument {
  const { code, message, hint, extra } = apiErrorOf(thrown);
  const { status, title } = PROBLEMS[code];
  return {
    type: 'about:blank',
    title,
    status,
    detail: message,
    code,
    ...(hint === undefined ? {} : { hint }),
    ...extra,
  };
}

/** Whatever went wrong, as one of the catalogue. */
function apiErrorOf(error: FastifyError | ApiError): ApiError {
  if (error instanceof ApiError) return error;
  if (error instanceof UniqueConstraintError) return taken(error);
  if (hasZodFastifySchemaValidationErrors(error)) {
    const errors = error.validation.map((v) => ({
      where: v.instancePath.replace(/^\//, '').replace(/\//g, '.') || 'the request',
      message: v.message ?? 'is not valid',
    }));
    const first = errors[0]!;
    return invalid(`${first.where}: ${first.message}.`, 'Correct the field named and try again.', errors);
  }
  switch (error.statusCode) {
    case PROBLEMS['too-large'].status:
      return new ApiError(
        'too-large',
        'What was sent is larger than 12 MB; a unit file is at most 10 MB.',
        'Send less at once.',
      );
    case PROBLEMS['too-many'].status:
      return new ApiError('too-many', error.message, 'Wait a minute, then go on.');
  }
  if ((error.statusCode ?? PROBLEMS['server-error'].status) < PROBLEMS['server-error'].status)
    return new ApiError('bad-request', error.message);
  return new ApiError(
    'server-error',
    'Something went wrong on the server; it is not certain whether it was done.',
    'Try again with the same key: it is done once. If it happens again, look at the server’s log.',
  );
}
