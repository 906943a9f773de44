import type { PhotoResource, UnitResource } from '@zemble/contract';
import { wrenTalkback } from '@zemble/demo';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDemo } from './features/demo/service.ts';
import { turnedPoint } from './features/photos/turned.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';
import { picture, upload as uploadTo } from './testing/upload.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const PATH = {
  blocks: [
    { id: 'a', name: 'First', kind: 'stage' },
    { id: 'b', name: 'Second', kind: 'stage' },
  ],
  links: [{ from: 'a', to: 'b', carries: 'audio' as const }],
};

async function unitWithPath(): Promise<UnitResource> {
  const { unit } = await test.write('POST', '/units', { name: 'Hum box' });
  return (await test.write('PATCH', `/units/${unit.id}`, { seen: { path: 0 }, path: PATH })).unit;
}

const upload = (unitId: string, bytes: Buffer, ...more: readonly [name?: string, key?: string]) =>
  uploadTo(test, unitId, bytes, ...more);

describe('path and intake', () => {
  it('are kept with the unit, each field with a version of its own, and can be taken back', async () => {
    const unit = await unitWithPath();
    expect(unit.path?.blocks.map((b) => b.id)).toEqual(['a', 'b']);
    const stale = await test.write('PATCH', `/units/${unit.id}`, { seen: { path: 0 }, path: null });
    expect(stale.status).toBe(409);
    expect(stale.problem).toMatchObject({
      detail: 'The signal path was changed elsewhere since you loaded it.',
      current: { versions: { path: 1 } },
    });
    // Another field is nobody's business.
    expect((await test.write('PATCH', `/units/${unit.id}`, { seen: { name: 0 }, name: 'Two' })).status).toBe(
      200,
    );
    const said = await test.write('PATCH', `/units/${unit.id}`, {
      seen: { intake: 0 },
      intake: { words: 'hums', heard: ['hum'], checks: { cables: 'fine' } },
    });
    expect(said.unit.intake).toMatchObject({ heard: ['hum'] });
    expect(said.unit.log[0]!.summary).toBe('First check, fine: it rules out the cable.');
    const undone = await test.write('POST', `/units/${unit.id}/undo`, {
      sequence: said.unit.log[0]!.sequence,
    });
    expect(undone.unit.intake).toEqual({});
    expect(undone.unit.path).not.toBeNull();
  });

  it('refuse words that the contract does not know, saying where', async () => {
    const unit = await unitWithPath();
    const { status, problem } = await test.write('PATCH', `/units/${unit.id}`, {
      seen: { intake: 0 },
      intake: { heard: ['a funny noise'] },
    });
    expect(status).toBe(422);
    expect(problem.detail).toContain('intake.heard.0');
  });
});

describe('models of the unit', () => {
  it('are kept, and go into the exported file', async () => {
    const { unit } = await test.write('POST', '/units', { name: 'Own model' });
    const models = [{ name: 'XQ1', kind: 'bjt' as const, params: { BF: 420 } }];
    const changed = await test.write('PATCH', `/units/${unit.id}`, { seen: { models: 0 }, models });
    expect(changed.unit.models).toEqual(models);
    const file = (await test.get(`/units/${unit.id}/file`)).body as { circuit: { models: unknown } };
    expect(file.circuit.models).toEqual(models);
  });
});

describe('evidence', () => {
  it('is recorded with its sentence, withdrawn without being lost, and the withdrawal taken back', async () => {
    const unit = await unitWithPath();
    const seen = await test.write('POST', `/units/${unit.id}/evidence`, {
      at: 'a->b',
      saw: 'none',
      conditions: ['probe proved'],
    });
    expect(seen.status).toBe(201);
    expect(seen.unit.log[0]!.summary).toBe('Tested First to Second (probe proved): nothing there.');
    const [evidence] = seen.unit.evidence;
    const withdrawn = await test.write('POST', `/units/${unit.id}/evidence/${evidence!.id}/withdraw`, {});
    expect(withdrawn.unit.evidence[0]).toMatchObject({ id: evidence!.id, withdrawn: true });
    const back = await test.write('POST', `/units/${unit.id}/undo`, {
      sequence: withdrawn.unit.log[0]!.sequence,
    });
    expect(back.unit.evidence[0]!.withdrawn).toBe(false);
    const undone = await test.write('POST', `/units/${unit.id}/undo`, {
      sequence: back.unit.log.find((l) => l.undoable)!.sequence,
    });
    expect(undone.unit.evidence[0]!.withdrawn).toBe(true);
  });

  it('takes a number with its unit, and is recorded once for its key', async () => {
    const unit = await unitWithPath();
    const key = randomUUID();
    const body = { at: 'b', saw: { value: 4.1, unit: 'V' } };
    await test.write('POST', `/units/${unit.id}/evidence`, body, key);
    const again = await test.write('POST', `/units/${unit.id}/evidence`, body, key);
    expect(again.unit.evidence).toHaveLength(1);
  });

  it('survives a round trip through the unit file with path, intake and order', async () => {
    const unit = await unitWithPath();
    for (const saw of ['good', 'hum', 'none'] as const)
      await test.write('POST', `/units/${unit.id}/evidence`, { at: 'a->b', saw });
    const text = JSON.stringify((await test.get(`/units/${unit.id}/file`)).body);
    const { unit: copy } = await test.write('POST', '/units/import', { text });
    expect(copy.path).toEqual(unit.path);
    expect(copy.evidence.map((e) => e.saw)).toEqual(['good', 'hum', 'none']);
  });
});

describe('photos', () => {
  it('are kept upright, no larger than useful, and without place, device or time', async () => {
    const unit = await unitWithPath();
    const bytes = await picture(3000, 2000)
      .withExif({ IFD0: { Make: 'Camera' }, IFD3: { GPSLatitude: '47/1 3/1 0/1' } })
      .jpeg()
      .toBuffer();
    expect((await sharp(bytes).metadata()).exif).toBeDefined();
    const { status, body } = await upload(unit.id, bytes, 'Parts side.jpg');
    expect(status).toBe(201);
    expect(body.photos).toMatchObject([{ name: 'Parts side', width: 2400, height: 1600, points: [] }]);
    const answer = await test.app.inject({
      method: 'GET',
      url: `/api/v1/units/${unit.id}/photos/${body.photos[0]!.id}`,
    });
    expect(answer.headers['content-type']).toBe('image/jpeg');
    const kept = await sharp(answer.rawPayload).metadata();
    expect([kept.width, kept.exif, kept.xmp, kept.iptc]).toEqual([2400, undefined, undefined, undefined]);
  });

  it('are lined up by two places, which turn with either picture, and come back with the file', async () => {
    const unit = await unitWithPath();
    const jpeg = await picture(300, 200).jpeg().toBuffer();
    await upload(unit.id, jpeg, 'Top.jpg');
    // Two of one name: a link is to the very picture.
    const { body } = await upload(unit.id, jpeg, 'Top.jpg');
    const [top, bottom] = body.photos;
    const link = {
      photoId: top!.id,
      here: [
        { x: 0.9, y: 0.1 },
        { x: 0.1, y: 0.5 },
      ],
      there: [
        { x: 0.1, y: 0.1 },
        { x: 0.9, y: 0.5 },
      ],
    };
    const set = (photo: PhotoResource, values: object) =>
      test.write('PATCH', `/units/${unit.id}/photos/${photo.id}`, { baseVersion: photo.version, ...values });
    for (const photoId of [bottom!.id, randomUUID(), 'nowhere'])
      expect((await set(bottom!, { overlay: { link: { ...link, photoId } } })).status).toBe(422);
    expect((await set(bottom!, { overlay: { side: 'lid' } })).status).toBe(422);
    const tracks = [{ places: [link.here[0], link.here[1]] }];
    await set(bottom!, { overlay: { side: 'solder', link } });
    const after = await set({ ...bottom!, version: 1 }, { overlay: { tracks } });
    expect(after.unit.photos[1]!.overlay).toEqual({ side: 'solder', link, tracks });
    // A quarter clockwise: what was x from the left is y from the top.
    const { unit: turned } = await set(top!, { turn: 1 });
    expect(turned.photos[1]!.overlay.link!.there).toEqual([
      { x: 0.9, y: 0.1 },
      { x: 0.5, y: 0.9 },
    ]);
    const { unit: both } = await set(turned.photos[1]!, { turn: 1 });
    expect(both.photos[1]!.overlay.tracks![0]!.places[0]).toEqual({ x: 0.9, y: 0.9 });
    const file = await test.app.inject({ method: 'GET', url: `/api/v1/units/${unit.id}/file` });
    const { unit: copy } = await test.write('POST', '/units/import', { text: file.body });
    const [first, second] = copy.photos;
    expect(second!.overlay).toEqual({
      ...both.photos[1]!.overlay,
      link: { ...both.photos[1]!.overlay.link, photoId: first!.id },
    });
  });

  it('refuses what is no picture, and keeps nothing of it', async () => {
    const unit = await unitWithPath();
    const { status, body } = await upload(unit.id, Buffer.from('not a picture'), 'board.jpg');
    expect(status).toBe(422);
    expect(body.detail).toMatch(/^This is not a picture that can be read/);
    const svg = await upload(
      unit.id,
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
    );
    expect(svg.status).toBe(422);
    expect(((await test.get(`/units/${unit.id}`)).body as UnitResource).photos).toEqual([]);
  });

  it('keeps points on their places when it is turned, and refuses a stale change', async () => {
    const unit = await unitWithPath();
    const { body } = await upload(unit.id, await picture(300, 200).png().toBuffer());
    const photo = body.photos[0]!;
    const patch = (change: object) => test.write('PATCH', `/units/${unit.id}/photos/${photo.id}`, change);
    const pointed = await patch({ baseVersion: 0, points: [{ target: 'a', x: 0.1, y: 0.2 }] });
    expect(pointed.unit.photos[0]!.points).toEqual([{ target: 'a', x: 0.1, y: 0.2 }]);
    const turned = await patch({ baseVersion: 1, turn: 1 });
    expect(turned.unit.photos[0]).toMatchObject({ width: 200, height: 300, points: [{ x: 0.8, y: 0.1 }] });
    expect((await patch({ baseVersion: 0, name: 'Back' })).status).toBe(409);
    const back = await test.write('POST', `/units/${unit.id}/undo`, { sequence: turned.answer.sequence });
    expect(back.unit.photos[0]).toMatchObject({ width: 300, height: 200 });
    expect(back.unit.photos[0]!.points[0]!.x).toBeCloseTo(0.1, 12);
  });

  it('are refused with the key of another picture', async () => {
    const unit = await unitWithPath();
    const key = randomUUID();
    const [one, two] = [await picture(30, 20).png().toBuffer(), await picture(20, 30).png().toBuffer()];
    expect((await upload(unit.id, one, 'a.png', key)).status).toBe(201);
    expect((await upload(unit.id, one, 'a.png', key)).body.photos).toHaveLength(1);
    expect((await upload(unit.id, two, 'a.png', key)).body.code).toBe('key-reused');
  });

  it('turns a point four times back to where it was', () => {
    const point: PhotoResource['points'][number] = { target: 'a', x: 0.25, y: 0.75 };
    expect(turnedPoint(point, 4)).toEqual(point);
  });

  it('are removed and come back with undo; the demo brings its own', async () => {
    await loadDemo(test.app.database, [wrenTalkback], false);
    const { units } = (await test.get('/units')).body as { units: { id: string; name: string }[] };
    const wren = units.find((u) => u.name === 'Wren talkback intercom')!;
    const unit = (await test.get(`/units/${wren.id}`)).body as UnitResource;
    const [photo] = unit.photos;
    expect(photo).toMatchObject({ name: 'Board, parts side', width: 1200, height: 800 });
    expect(photo!.points).toHaveLength(8);
    const removed = await test.write('POST', `/units/${wren.id}/photos/${photo!.id}/remove`, {
      baseVersion: 0,
    });
    expect(removed.unit.photos).toEqual([]);
    const back = await test.write('POST', `/units/${wren.id}/undo`, {
      sequence: removed.unit.log[0]!.sequence,
    });
    expect(back.unit.photos).toHaveLength(1);
  });
});
