import { z } from 'zod';
import { photoOverlaySchema, photoPointsSchema } from '../photo.ts';
import { act, idSchema, removeSchema, seenSchema, versionSchema } from './act.ts';
import { row } from './row.ts';

export const photoResourceSchema = z.object({
  id: idSchema,
  version: versionSchema,
  name: z.string(),
  width: z.number().int(),
  height: z.number().int(),
  points: photoPointsSchema,
  overlay: photoOverlaySchema,
});
export type PhotoResource = z.infer<typeof photoResourceSchema>;

export const MOST_PHOTOS = 50;
export const photoRow = row({
  of: 'photo',
  list: 'photos',
  words: ['photo', 'photos'],
  schema: photoResourceSchema,
  most: MOST_PHOTOS,
  order: 'added',
  goes: 'removed',
});

export const updatePhotoSchema = z.object({
  baseVersion: versionSchema,
  name: z.string().trim().min(1).max(120).optional(),
  points: photoPointsSchema.optional(),
  overlay: photoOverlaySchema.optional(),
  /** Quarter turns clockwise, to be made now. */
  turn: z.number().int().min(1).max(3).optional(),
});
export type UpdatePhoto = z.infer<typeof updatePhotoSchema>;

export const photoActs = {
  'update-photo': act({
    schema: z.object({
      type: z.literal('update-photo'),
      photoId: idSchema,
      seen: seenSchema,
      values: z.object({
        name: z.string().optional(),
        points: photoPointsSchema.optional(),
        overlay: photoOverlaySchema.optional(),
        turn: z.number().int().optional(),
      }),
    }),
    route: {
      method: 'PATCH',
      path: '/photos/:photoId',
      status: 200,
      summary: 'Rename or turn a photo, or set its points',
    },
    body: updatePhotoSchema,
    toBody: ({ seen, values }) => ({ baseVersion: seen, ...values }),
  }),
  'remove-photo': act({
    schema: z.object({ type: z.literal('remove-photo'), photoId: idSchema, seen: seenSchema }),
    route: { method: 'POST', path: '/photos/:photoId/remove', status: 200, summary: 'Remove a photo' },
    body: removeSchema,
    toBody: ({ seen }) => ({ baseVersion: seen }),
  }),
} as const;
