import sharp, { type Sharp } from 'sharp';
import { invalid } from '../../errors.ts';

/** Longest side a picture is kept with, pixels: a board's print can still be read. */
const LONGEST_SIDE = 2400;
const QUALITY = 82;
const MOST_PIXELS = 100_000_000;
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
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!formats.includes(format ?? '')) throw new Error(`"${format}" is not a picture format`);
    return await jpegOf(
      picture
        .autoOrient()
        .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true }),
    );
  } catch (error) {
    throw invalid(
      `This is not a picture that can be read: ${(error as Error).message}.`,
      'Choose a JPEG, PNG or WebP picture.',
    );
  }
}

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
