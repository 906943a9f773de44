import type { FilePhoto, PhotoOverlay } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { shownPicture, type Picture } from './picture.ts';
import { picturesOf } from './repository.ts';
import { insertPhoto, relinked } from './service.ts';

/** Photos as a file has them; a link is to another one by its place in the file from 0, and one to none is left out. */
export async function insertPhotos(
  unit: UnitModel,
  photos: readonly FilePhoto[],
  pictures: readonly Picture[],
  ids: readonly string[],
  transaction: Transaction,
): Promise<void> {
  for (const [i, { name, points = [], overlay = {} }] of photos.entries()) {
    const linked = relinked(overlay, (place) => (place === String(i) ? undefined : ids[Number(place)]));
    const picture = pictures[i]!;
    await insertPhoto(unit, { id: ids[i], name, picture, points, overlay: linked }, transaction);
  }
}

/** Room for photos in a file of at most 10 MB, characters of base64. */
const PHOTO_ROOM = 7_500_000;

/** Photos for a file, as many as fit; those that do not are named. */
export async function filePhotos(
  unitId: string,
  transaction: Transaction,
): Promise<{
  readonly pictures: { readonly photos?: FilePhoto[]; readonly photosLeftOut?: string[] };
  /** Where each photo stands in the file, by its id. */
  readonly places: ReadonlyMap<string, string>;
}> {
  const kept: { id: string; overlay: PhotoOverlay; file: FilePhoto }[] = [];
  const photosLeftOut: string[] = [];
  let room = PHOTO_ROOM;
  for (const { id, name, points, overlay, ...shown } of await picturesOf(unitId, transaction)) {
    const jpeg = (await shownPicture(shown)).toString('base64');
    room -= jpeg.length;
    if (room < 0) photosLeftOut.push(name);
    else kept.push({ id, overlay, file: { name, jpeg, points } });
  }
  const places = new Map(kept.map(({ id }, i) => [id, String(i)]));
  const photos = kept.map(({ overlay, file }): FilePhoto => {
    const drawn = relinked(overlay, (id) => places.get(id));
    return Object.keys(drawn).length > 0 ? { ...file, overlay: drawn } : file;
  });
  return {
    places,
    pictures: {
      ...(photos.length > 0 ? { photos } : {}),
      ...(photosLeftOut.length > 0 ? { photosLeftOut } : {}),
    },
  };
}
