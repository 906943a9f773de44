import { randomUUID } from 'node:crypto';
import type { Drawer } from '@zemble/core';
import type { DemoPhoto, DemoUnit } from '@zemble/demo';
import type { Sequelize } from 'sequelize';
import { countStock, insertStock } from '../drawer/repository.ts';
import { appendLog } from '../log/repository.ts';
import { readPicture } from '../photos/picture.ts';
import { addPhoto, relinked, type NewPhoto } from '../photos/service.ts';
import { readingSummary } from '../readings/service.ts';
import { deleteDemo } from '../units/repository.ts';
import { insertDocument } from '../units/unit-file.ts';

/** Minutes between two readings of the demo story, so that its log reads like an afternoon's work. */
const PACE_MINUTES = 4;

/** Puts the demo units on the bench. With `reset`, units that came from the demo before are removed first. */
export async function loadDemo(
  database: Sequelize,
  units: readonly DemoUnit[],
  reset: boolean,
): Promise<void> {
  const drawn = new Map<DemoUnit, readonly NewPhoto[]>();
  for (const demo of units) {
    drawn.set(demo, await drawnPhotos(demo.photos ?? []));
  }
  await database.transaction(async (transaction) => {
    if (reset) await deleteDemo(transaction);
    for (const demo of units) {
      const start = Date.now() - (demo.readings.length + 1) * PACE_MINUTES * 60_000;
      const readings = demo.readings.map((r, i) => ({
        ...r,
        takenAt: new Date(start + i * PACE_MINUTES * 60_000).toISOString(),
      }));
      const unit = await insertDocument(
        { document: { ...demo.document, readings }, pictures: [] },
        transaction,
        { isDemo: true },
      );
      for (const reading of readings) {
        const part = demo.document.circuit.parts.find((p) => p.ref === reading.ref);
        if (!part) continue;
        const step = {
          kind: 'reading',
          summary: readingSummary(part, reading),
          at: new Date(reading.takenAt),
        };
        await appendLog(unit, step, transaction);
      }
      for (const photo of drawn.get(demo)!) await addPhoto(unit, photo, transaction);
      for (const summary of demo.story) await appendLog(unit, { kind: 'note', summary }, transaction);
    }
  });
}

/** Fills an empty drawer with that of the demo; one that has anything in it is somebody's own. */
export const loadDemoDrawer = (database: Sequelize, drawer: Drawer): Promise<void> =>
  database.transaction(async (transaction) => {
    if ((await countStock(transaction)) > 0) return;
    await insertStock(
      drawer.map((item) => ({ ...item, id: randomUUID() })),
      transaction,
    );
  });

/** Pictures of boards as they are added, each linked with the one that it names. */
async function drawnPhotos(photos: readonly DemoPhoto[]): Promise<NewPhoto[]> {
  const ids = new Map(photos.map(({ name }) => [name, randomUUID()]));
  const made: NewPhoto[] = [];
  for (const { name, svg, points, overlay = {} } of photos) {
    const picture = await readPicture(Buffer.from(svg), ['svg']);
    const linked = relinked(overlay, (other) => ids.get(other));
    made.push({ id: ids.get(name)!, name, picture, points, overlay: linked });
  }
  return made;
}
