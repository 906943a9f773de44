import { z } from 'zod';

/** A place on a photo, in fractions of its width and height. */
export const photoPlaceSchema = z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) });

/** Points, pads and tracks that a photo has at most. */
const MOST_POINTS = 2000;
const MOST_TRACKS = 500;

/** A point on a photo: where a pin (`"C3.a"`), a part, a net, a test point or a block is on the board. */
export const photoPointSchema = photoPlaceSchema.extend({ target: z.string().trim().min(1).max(96) });
export const photoPointsSchema = z.array(photoPointSchema).max(MOST_POINTS);

/** From which side a board was photographed. */
export const PHOTO_SIDES = ['parts', 'solder'] as const;
export const photoSideSchema = z.enum(PHOTO_SIDES);
export type PhotoSide = z.infer<typeof photoSideSchema>;

/** Two places of this photo, and where the same are on another one of the board. */
export const photoLinkSchema = z.object({
  photoId: z.string().min(1).max(64),
  here: z.tuple([photoPlaceSchema, photoPlaceSchema]),
  there: z.tuple([photoPlaceSchema, photoPlaceSchema]),
});
export type PhotoLink = z.infer<typeof photoLinkSchema>;

/** A track of copper as it was drawn over the photo. */
export const trackSchema = z.object({ places: z.array(photoPlaceSchema).min(2).max(200) });
export const tracksSchema = z.array(trackSchema).max(MOST_TRACKS);
export type Track = z.infer<typeof trackSchema>;

/** What is drawn over a photo beside its points. */
export const photoOverlaySchema = z.object({
  side: photoSideSchema.optional(),
  link: photoLinkSchema.nullable().optional(),
  tracks: tracksSchema.optional(),
});
export type PhotoOverlay = z.infer<typeof photoOverlaySchema>;
