import { randomUUID } from 'node:crypto';
import type { Inverse, PhotoOverlay, PhotoResource, UpdatePhoto } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { PhotoModel, UnitModel } from '../../database/models/index.ts';
import { changeRow, setRemoved } from '../../database/rows.ts';
import { z } from 'zod';
import { invalid, notFound, stale } from '../../errors.ts';
import { appendLog } from '../log/repository.ts';
import { setFields } from '../units/fields.ts';
import { photoResource } from '../units/resources.ts';
import { turnedWith } from './laid-photos.ts';
import { findPhoto, insertPhotoRow, linkedWith } from './repository.ts';
import type { Picture } from './picture.ts';
import { turnedOverlay, turnedPair, turnedPoint, WHOLE_TURN } from './turned.ts';

const LONGEST_NAME = 120;

export interface NewPhoto {
  /** Made by the page; a new one when absent. */
  readonly id?: string | undefined;
  readonly name: string;
  /** Read before: no transaction waits for the work on a picture. */
  readonly picture: Picture;
  readonly points?: PhotoResource['points'];
  readonly overlay?: PhotoResource['overlay'];
}

/** Adds a photo at the end and says so in the log. */
export async function addPhoto(unit: UnitModel, photo: NewPhoto, transaction: Transaction): Promise<void> {
  const { id, name } = await insertPhoto(unit, photo, transaction);
  const inverse = [{ op: 'set-removed' as const, of: 'photo' as const, id, removed: true }];
  await appendLog(unit, { kind: 'photo', summary: `Added the photo ${name}.`, inverse }, transaction);
}

/** Adds a photo at the end, without a word in the log. */
export async function insertPhoto(
  unit: UnitModel,
  photo: NewPhoto,
  transaction: Transaction,
): Promise<PhotoModel> {
  const { jpeg, width, height } = photo.picture;
  return insertPhotoRow(
    {
      id: photo.id ?? randomUUID(),
      unitId: unit.id,
      version: 0,
      name: photo.name.replace(/\.[a-z0-9]+$/i, '').slice(0, LONGEST_NAME) || 'Board',
      width,
      height,
      picture: jpeg,
      points: photo.points ?? [],
      overlay: photo.overlay ?? {},
      removedAt: null,
    },
    transaction,
  );
}

async function photoAtVersion(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<PhotoModel> {
  const row = await findPhoto(unit.id, id, transaction);
  if (!row) throw notFound('photo', id);
  if (row.version !== baseVersion) {
    throw stale(`The photo ${row.name}`, photoResource(row));
  }
  return row;
}

export async function updatePhoto(
  unit: UnitModel,
  id: string,
  change: UpdatePhoto,
  transaction: Transaction,
): Promise<void> {
  const row = await photoAtVersion(unit, id, change.baseVersion, transaction);
  const { name, points, overlay } = row;
  await refuseBadLink(unit, id, change.overlay?.link?.photoId, transaction);
  if (change.turn !== undefined) await turnRow(unit, row, change.turn, transaction);
  else
    await changeRow(
      row,
      {
        ...(change.name === undefined ? {} : { name: change.name }),
        ...(change.points === undefined ? {} : { points: change.points }),
        ...(change.overlay === undefined ? {} : { overlay: { ...overlay, ...change.overlay } }),
      },
      transaction,
    );
  const what = change.turn
    ? 'Turned'
    : change.points
      ? 'Set the points of'
      : change.overlay
        ? 'Drew on'
        : 'Renamed';
  const inverse: Inverse =
    change.turn === undefined
      ? { op: 'set', of: 'photo', id, values: { name, points, overlay } }
      : { op: 'turn-photo', id, turn: WHOLE_TURN - change.turn };
  const summary = `${what} the photo ${row.name}.`;
  await appendLog(unit, { kind: 'photo', summary, inverse: [inverse] }, transaction);
}

/** Turns a picture by quarters clockwise, with its points, what is drawn over it, what it lies under, and damage that is marked on it. */
export async function turnRow(
  unit: UnitModel,
  row: PhotoModel,
  quarters: number,
  transaction: Transaction,
): Promise<void> {
  const points = row.points.map((p) => turnedPoint(p, quarters));
  for (const other of await linkedWith(row.unitId, row.id, transaction)) {
    const link = other.overlay.link!;
    const overlay = { ...other.overlay, link: { ...link, there: turnedPair(link.there, quarters) } };
    await changeRow(other, { overlay }, transaction);
  }
  const laid = turnedWith(unit, row.id, quarters);
  if (Object.keys(laid).length > 0) await setFields(unit, laid, transaction);
  const isOnItsSide = quarters % 2 === 1;
  await changeRow(
    row,
    {
      turn: (row.turn + quarters) % WHOLE_TURN,
      width: isOnItsSide ? row.height : row.width,
      height: isOnItsSide ? row.width : row.height,
      points,
      overlay: turnedOverlay(row.overlay, quarters),
    },
    transaction,
  );
}

/** A photo is linked with another one of the unit. Throws 422 for itself, or for none of its photos. */
async function refuseBadLink(
  unit: UnitModel,
  id: string,
  other: string | undefined,
  transaction: Transaction,
): Promise<void> {
  if (other === undefined) return;
  const isThere =
    z.uuid().safeParse(other).success && (await findPhoto(unit.id, other, transaction)) !== null;
  if (other === id || !isThere)
    throw invalid('That is no other photo of this unit.', 'Choose another photo of the same board.');
}

/** What is drawn over a photo with its link to the same photo under another name; none where it is not there. */
export function relinked(
  { link, ...rest }: PhotoOverlay,
  nameOf: (photoId: string) => string | undefined,
): PhotoOverlay {
  const photoId = link ? nameOf(link.photoId) : undefined;
  return link && photoId !== undefined ? { ...rest, link: { ...link, photoId } } : rest;
}

export async function removePhoto(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<void> {
  const row = await photoAtVersion(unit, id, baseVersion, transaction);
  await setRemoved(row, true, transaction);
  const inverse = [{ op: 'set-removed' as const, of: 'photo' as const, id, removed: false }];
  await appendLog(unit, { kind: 'photo', summary: `Removed the photo ${row.name}.`, inverse }, transaction);
}
