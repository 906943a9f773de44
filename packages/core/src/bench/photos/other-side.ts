import type { PhotoLink, PhotoSide } from '@zemble/contract';
import { inFractions, inPixels, similarity, type PhotoPlace } from './pixels.ts';

/** What is known of a photo of a board. */
export interface BoardPhoto {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly side?: PhotoSide | undefined;
  readonly link?: PhotoLink | undefined;
}

export const isSolderSide = (photo: Pick<BoardPhoto, 'side'>): boolean => photo.side === 'solder';

/** How a place on one photo is found on another that it is linked with by two common points; undefined where it is not. */
export function ontoPhoto(from: BoardPhoto, to: BoardPhoto): ((place: PhotoPlace) => PhotoPlace) | undefined {
  const [here, there] =
    from.link?.photoId === to.id
      ? [from.link.here, from.link.there]
      : to.link?.photoId === from.id
        ? [to.link.there, to.link.here]
        : [];
  if (!here || !there) return undefined;
  const onto = similarity(
    [inPixels(from, here[0]), inPixels(from, here[1])],
    [inPixels(to, there[0]), inPixels(to, there[1])],
    isSolderSide(from) !== isSolderSide(to),
  );
  return onto && ((place) => inFractions(to, onto(inPixels(from, place))));
}
