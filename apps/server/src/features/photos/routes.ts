import { removeSchema, updatePhotoSchema, writeAnswerSchema } from '@halfsplit/contract';
import { z } from 'zod';
import type { App } from '../../app.ts';
import { invalid, notFound } from '../../errors.ts';
import { changeUnit } from '../units/access.ts';
import { unitWrite } from '../units/write-route.ts';
import { pictureOf } from './repository.ts';
import { addPhoto, removePhoto, updatePhoto } from './service.ts';

const unitParams = z.object({ unitId: z.uuid() });
const params = { photoId: z.uuid() };
/** A phone's picture at its best quality. */
const LARGEST_PICTURE = 30 * 1024 * 1024;

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
      const file = await request.file({ limits: { fileSize: LARGEST_PICTURE, files: 1 } });
      if (!file) throw invalid('There is no picture in the request.', 'Choose a picture file.');
      const bytes = await file.toBuffer();
      return changeUnit(
        app.database,
        request,
        reply,
        request.params.unitId,
        201,
        (unit, t) => addPhoto(unit, { id: request.query.id, name: file.filename, bytes }, t),
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
      return reply.type('image/jpeg').send(picture);
    },
  );
  unitWrite(app, {
    method: 'PATCH',
    path: '/photos/:photoId',
    tag: 'photos',
    summary: 'Rename or turn a photo, or set its points',
    params,
    body: updatePhotoSchema,
    status: 200,
    change: (unit, request, t) => updatePhoto(unit, request.params.photoId, request.body, t),
  });
  unitWrite(app, {
    method: 'POST',
    path: '/photos/:photoId/remove',
    tag: 'photos',
    summary: 'Remove a photo',
    params,
    body: removeSchema,
    status: 200,
    change: (unit, request, t) => removePhoto(unit, request.params.photoId, request.body.baseVersion, t),
  });
}
