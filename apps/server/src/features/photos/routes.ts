import { writeAnswerSchema } from '@zemble/contract';
import type { FastifyError, FastifyRequest } from 'fastify';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { ApiError, invalid, notFound } from '../../errors.ts';
import { changeUnit } from '../units/access.ts';
import { readPicture, shownPicture } from './picture.ts';
import { pictureOf } from './repository.ts';
import { addPhoto } from './service.ts';

const unitParams = z.object({ unitId: z.uuid() });
const params = { photoId: z.uuid() };
/** A phone's picture at its best quality. */
const LARGEST_PICTURE = 30 * 1024 * 1024;

/** The picture that a form brings. Throws 422 for a form without one, or cut short, and 413 for one that is too large. */
async function pictureIn(request: FastifyRequest): Promise<{ name: string; bytes: Buffer }> {
  const none = invalid('There is no whole picture in the request.', 'Choose a picture file.');
  if (!request.isMultipart()) throw none;
  try {
    const file = await request.file({ limits: { fileSize: LARGEST_PICTURE, files: 1 } });
    if (!file) throw none;
    return { name: file.filename, bytes: await file.toBuffer() };
  } catch (error) {
    if ((error as FastifyError).statusCode === 413)
      throw new ApiError('too-large', 'The picture is larger than 30 MB.', 'Make it smaller.');
    throw none;
  }
}

export function photoRoutes(app: App): void {
  app.post(
    '/units/:unitId/photos',
    {
      schema: {
        tags: ['photos'],
        summary: 'Add a photo of a board (multipart, one file)',
        params: unitParams,
        querystring: z.object({ id: z.uuid().optional() }),
        response: { 201: writeAnswerSchema },
      },
      bodyLimit: LARGEST_PICTURE,
    },
    async (request, reply) => {
      const { name, bytes } = await pictureIn(request);
      const picture = await readPicture(bytes);
      return changeUnit(
        app.database,
        request,
        reply,
        request.params.unitId,
        201,
        (unit, t) => addPhoto(unit, { id: request.query.id, name, picture }, t),
        bytes,
      );
    },
  );
  app.get(
    '/units/:unitId/photos/:photoId',
    {
      schema: {
        tags: ['photos'],
        summary: 'The picture itself',
        params: unitParams.extend(params),
        querystring: z.object({ v: z.string().optional() }),
      },
    },
    async (request, reply) => {
      const picture = await pictureOf(request.params.unitId, request.params.photoId);
      if (!picture) throw notFound('photo', request.params.photoId);
      // The address carries the version: a turned picture has another.
      void reply.header('cache-control', 'private, max-age=31536000, immutable');
      return reply.type('image/jpeg').send(await shownPicture(picture));
    },
  );
}
