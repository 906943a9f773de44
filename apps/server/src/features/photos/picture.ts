import sharp, { type Sharp } from 'sharp';
import { ApiError, invalid } from '../../errors.ts';

/** Longest side a picture is kept with, pixels: a board's print can still be read. */
const LONGEST_SIDE = 2400;
const QUALITY = 82;
/** A phone's largest picture; more is refused before it is decoded. */
const MOST_PIXELS = 60_000_000;
const FORMATS = ['jpeg', 'png', 'webp', 'heif', 'avif', 'tiff', 'gif'];

export interface Picture {
  readonly jpeg: Buffer;
  readonly width: number;
  readonly height: number;
}

/**
 * Checks that bytes are a picture, stands it upright, makes it no larger than is useful and keeps the pixels only: no
 * place, device or time goes into the database. Throws 422.
 */
export async function readPicture(bytes: Buffer, formats: readonly string[] = FORMATS): Promise<Picture> {
  try {
    // Its head alone says how large it is.
    const { format, width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (!formats.includes(format ?? '')) throw unreadable();
    if (width * height > MOST_PIXELS) throw tooManyPixels(width, height);
    return await jpegOf(
      sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
        .autoOrient()
        .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true }),
    );
  } catch (error) {
    if (error instanceof ApiError) throw error;
    throw unreadable();
  }
}

const unreadable = (): ApiError =>
  invalid(
    'This is not a picture that can be read: it is of another kind, cut short, or damaged.',
    'Choose a JPEG, PNG or WebP picture; a phone can be told to save its pictures as JPEG.',
  );
const tooManyPixels = (width: number, height: number): ApiError =>
  invalid(
    `The picture is too large: ${width} by ${height} pixels, more than ${MOST_PIXELS / 1e6} million.`,
    'Make it smaller; a board’s print can be read from far fewer.',
  );

/** A kept picture as it is shown. */
export async function shownPicture({ picture, turn }: { picture: Buffer; turn: number }): Promise<Buffer> {
  return turn === 0 ? picture : (await jpegOf(sharp(picture).rotate(turn * 90))).jpeg;
}

async function jpegOf(picture: Sharp): Promise<Picture> {
  const { data, info } = await picture
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: QUALITY, mozjpeg: true })
    .toBuffer({ resolveWithObject: true });
  return { jpeg: data, width: info.width, height: info.height };
}
