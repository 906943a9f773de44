import type { PhotoResource } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import { PhotoModel } from '../../database/models/index.ts';

const WITHOUT_PICTURE = { exclude: ['picture'] };

/** A photo as it is shown. */
export interface ShownPhoto {
  readonly name: string;
  readonly id: string;
  readonly points: PhotoResource['points'];
  readonly overlay: PhotoResource['overlay'];
  readonly picture: Buffer;
  /** Quarter turns clockwise that it is shown with. */
  readonly turn: number;
}

/** Photos of a unit in their order, with their pictures. */
export async function picturesOf(unitId: string, transaction: Transaction): Promise<ShownPhoto[]> {
  const rows = await PhotoModel.findAll({
    where: { unitId, removedAt: null },
    order: [['position', 'ASC']],
    transaction,
  });
  return rows.map(({ id, name, points, overlay, picture, turn }) => ({
    id,
    name,
    points,
    overlay,
    picture,
    turn,
  }));
}

export async function findPhoto(
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<PhotoModel | null> {
  return PhotoModel.findOne({ where: { unitId, id, removedAt: null }, transaction });
}

export async function pictureOf(
  unitId: string,
  id: string,
): Promise<Pick<ShownPhoto, 'picture' | 'turn'> | null> {
  return PhotoModel.findOne({ where: { unitId, id }, attributes: ['picture', 'turn'] });
}

/** Puts a photo behind the last one. */
export async function insertPhotoRow(
  row: Omit<PhotoModel['_creationAttributes'], 'position' | 'turn'>,
  transaction: Transaction,
): Promise<PhotoModel> {
  const { unitId } = row;
  const last = await PhotoModel.max<number, PhotoModel>('position', { where: { unitId }, transaction });
  return PhotoModel.create({ ...row, position: last === null ? 0 : last + 1 }, { transaction });
}

/** Photos of a unit that are linked with one. */
export async function linkedWith(
  unitId: string,
  id: string,
  transaction: Transaction,
): Promise<PhotoModel[]> {
  const rows = await PhotoModel.findAll({ where: { unitId }, attributes: WITHOUT_PICTURE, transaction });
  return rows.filter((row) => row.overlay.link?.photoId === id);
}
