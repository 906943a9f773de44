import { randomUUID } from 'node:crypto';
import { streamEventSchema, type StreamEvent, type UnitResource } from '@zemble/contract';
import { applyEdits } from '@zemble/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp, type App } from './app.ts';
import { EditsFeed } from './features/edits/feed.ts';
import { forgetOldEffects } from './features/edits/repository.ts';
import { forgetDeleted } from './features/units/repository.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
let address: string;
beforeAll(async () => {
  test = await openTestApp();
  address = await test.app.listen({ port: 0, host: '127.0.0.1' });
});
afterAll(async () => {
  await test.close();
});

const resistor = (ref: string, marked: number) => ({
  ref,
  kind: 'resistor',
  marked,
  pins: { a: 'x', b: '0' },
});
const unitOf = async (id: string) => (await test.get(`/units/${id}`)).body as UnitResource;

async function newUnit(): Promise<UnitResource> {
  return (await test.write('POST', '/units', { name: 'Edited' })).unit;
}

/** Reads events of a stream until there are enough of them. */
async function follow(from: string, path: string, headers: Record<string, string> = {}) {
  const stop = new AbortController();
  const answer = await fetch(`${from}/api/v1${path}`, {
    headers: { accept: 'text/event-stream', ...headers },
    signal: stop.signal,
  });
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  const events = (): { id: string; news: StreamEvent }[] =>
    text
      .split('\n\n')
      .filter((block) => /^event: ?edits/m.test(block) && block.includes('data:'))
      .map((block) => ({
        id: /^id: ?(.*)$/m.exec(block)?.[1] ?? '',
        news: streamEventSchema.parse(JSON.parse(/^data: ?(.*)$/m.exec(block)![1]!)),
      }));
  return {
    status: answer.status,
    async until(count: number) {
      while (!text.includes('event: open') || events().length < count) {
        const { done, value } = await reader.read();
        if (done) break;
        text += value;
      }
      return events();
    },
    stop: () => stop.abort(),
  };
}

describe('the answer of a write', () => {
  it('is what it did, from which a page makes the unit that the server has', async () => {
    let page = await newUnit();
    const { id } = page;
    const ids = Array.from({ length: 3 }, () => randomUUID());
    const write = async (method: 'POST' | 'PUT' | 'PATCH', path: string, body: object) => {
      const { answer, status, problem } = await test.write(method, `/units/${id}${path}`, body);
      expect(status, JSON.stringify(problem)).toBeLessThan(300);
      expect(JSON.stringify(answer).length).toBeLessThan(4000);
      page = applyEdits(page, answer.edits)!;
      expect(page).toEqual(await unitOf(id));
    };
    await write('POST', '/parts', { id: ids[0], part: resistor('R1', 1000) });
    await write('POST', '/parts', { id: ids[1], part: resistor('R2', 2200) });
    await write('POST', '/parts', { id: ids[2], part: resistor('R3', 4700), position: 1 });
    await write('PUT', `/parts/${ids[0]}`, { baseVersion: 0, part: resistor('R1', 1200) });
    const takenAt = '2020-01-01T10:00:00.000Z';
    await write('POST', '/readings', { id: randomUUID(), baseVersion: 1, partId: ids[0], value: 1180 });
    await write('POST', '/readings', { baseVersion: 1, partId: ids[0], value: 1190, takenAt });
    const readout = { id: 'v', name: 'At x', kind: 'voltage', net: 'x' };
    await write('POST', '/readouts', { readout });
    await write('POST', '/evidence', { at: 'x', saw: 'hum' });
    await write('POST', '/notes', { text: 'warm' });
    await write('PATCH', '', { seen: { name: 0, nudges: 0 }, name: 'Two', nudges: { R1: { x: 3, y: 4 } } });
    await write('POST', `/parts/${ids[1]}/remove`, { baseVersion: 0 });
    await write('POST', '/undo', { sequence: page.log.find((l) => l.undoable)!.sequence });
    // Entered while away, it stands where it was read.
    expect(page.readings.map((r) => r.value)).toEqual([1190, 1180]);
    expect(page.parts.map((p) => p.part.ref)).toEqual(['R1', 'R3', 'R2']);
  });

  it('is the same for the same key, and another body or picture with it is refused', async () => {
    const { id } = await newUnit();
    const key = randomUUID();
    const first = await test.write('POST', `/units/${id}/notes`, { text: 'once' }, key);
    const again = await test.write('POST', `/units/${id}/notes`, { text: 'once' }, key);
    expect(again.answer).toEqual(first.answer);
    expect((await unitOf(id)).log.filter((l) => l.summary === 'once')).toHaveLength(1);
    expect((await test.write('POST', `/units/${id}/notes`, { text: 'other' }, key)).problem.code).toBe(
      'key-reused',
    );
  });

  it('lets a designator be of one live part only', async () => {
    const { id } = await newUnit();
    await test.write('POST', `/units/${id}/parts`, { part: resistor('R1', 1000) });
    const { status, problem } = await test.write('POST', `/units/${id}/parts`, {
      part: resistor('R1', 2000),
    });
    expect([status, problem.detail]).toEqual([422, 'There is a part R1 already.']);
  });
});

describe('taking back', () => {
  it('is not stopped by what others do elsewhere, and names what changed the very same thing', async () => {
    const { id } = await newUnit();
    const path = `/units/${id}`;
    const { unit } = await test.write('POST', `${path}/parts`, { part: resistor('R1', 1000) });
    const part = unit.parts[0]!;
    const changed = await test.write('PUT', `${path}/parts/${part.id}`, {
      baseVersion: 0,
      part: resistor('R1', 1200),
    });
    const { sequence } = changed.answer;
    await test.write('POST', `${path}/notes`, { text: 'somebody else' });
    await test.write('PATCH', path, { seen: { notes: 0 }, notes: 'and here' });
    const back = await test.write('POST', `${path}/undo`, { sequence });
    expect(back.unit.parts[0]!.part.marked).toBe(1000);
    const second = await test.write('PUT', `${path}/parts/${part.id}`, {
      baseVersion: 2,
      part: resistor('R1', 1500),
    });
    await test.write('PUT', `${path}/parts/${part.id}`, { baseVersion: 3, part: resistor('R1', 1800) });
    const refused = await test.write('POST', `${path}/undo`, { sequence: second.answer.sequence });
    expect([refused.status, refused.problem.code]).toEqual([409, 'changed-since']);
    expect(refused.problem.detail).toBe('It was changed again since: Changed R1 to R1 1.8k x 0');
    expect((await unitOf(id)).parts[0]!.part.marked).toBe(1800);
  });

  it('takes fields back one by one, places of symbols and the path too', async () => {
    const { id } = await newUnit();
    const path = `/units/${id}`;
    const moved = await test.write('PATCH', path, { nudges: { R1: { x: 1, y: 2 } } });
    await test.write('PATCH', path, { path: { blocks: [{ id: 'a' }], links: [] } });
    const back = await test.write('POST', `${path}/undo`, { sequence: moved.answer.sequence });
    expect([back.unit.nudges, back.unit.path?.blocks.length]).toEqual([{}, 1]);
  });
});

describe('streams of edits', () => {
  it('carry what another wrote, and read on after the last event that was seen', async () => {
    const { id, sequence } = await newUnit();
    const stream = await follow(address, `/units/${id}/events`);
    await stream.until(0);
    await test.write('POST', `/units/${id}/notes`, { text: 'one' });
    const [first] = await stream.until(1);
    expect(first!.news).toMatchObject({ unitId: id, edits: [{ sequence: sequence + 1 }] });
    stream.stop();
    // Away meanwhile.
    await test.write('POST', `/units/${id}/notes`, { text: 'two' });
    await test.write('POST', `/units/${id}/notes`, { text: 'three' });
    const again = await follow(address, `/units/${id}/events`, { 'last-event-id': first!.id });
    const [missed] = await again.until(1);
    expect('edits' in missed!.news && missed!.news.edits.map((e) => e.sequence)).toEqual([
      sequence + 2,
      sequence + 3,
    ]);
    again.stop();
  });

  it('follow several units at once, each from where it stands', async () => {
    const [a, b] = [await newUnit(), await newUnit()];
    await test.write('POST', `/units/${b.id}/notes`, { text: 'before' });
    const stream = await follow(address, `/events?units=${a.id}:${a.sequence},${b.id}:${b.sequence}`);
    expect((await stream.until(1))[0]!.news.unitId).toBe(b.id);
    await test.write('POST', `/units/${a.id}/notes`, { text: 'now' });
    expect((await stream.until(2))[1]!.news.unitId).toBe(a.id);
    stream.stop();
  });

  it('say so when what was missed is no longer kept, and when there is no such unit', async () => {
    const { id, sequence } = await newUnit();
    await test.write('POST', `/units/${id}/notes`, { text: 'long ago' });
    await test.app.database.query(
      `UPDATE log_entries SET at = now() - interval '30 days' WHERE unit_id = '${id}'`,
    );
    await forgetOldEffects();
    const stream = await follow(address, `/events?units=${id}:${sequence}`);
    expect((await stream.until(1))[0]!.news).toEqual({ unitId: id, reload: true, sequence: sequence + 1 });
    stream.stop();
    const stranger = randomUUID();
    expect((await follow(address, `/units/${stranger}/events`)).status).toBe(404);
    expect((await follow(address, '/events?units=nonsense')).status).toBe(422);
  });

  it('reach the followers of another server process on the same database', async () => {
    const url = String(test.databaseUrl);
    const other: App = await buildApp({
      database: test.app.database,
      feed: await EditsFeed.open(url),
    });
    const otherAddress = await other.listen({ port: 0, host: '127.0.0.1' });
    const { id } = await newUnit();
    const stream = await follow(otherAddress, `/units/${id}/events`);
    await stream.until(0);
    await test.write('POST', `/units/${id}/notes`, { text: 'from the first' });
    expect((await stream.until(1))[0]!.news.unitId).toBe(id);
    stream.stop();
    await other.close();
  });
});

describe('a unit that is put away or deleted', () => {
  it('says where it is, can be taken back, and is forgotten only after a month', async () => {
    const { id } = await newUnit();
    const path = `/units/${id}`;
    const put = (place: string) => test.write('PATCH', path, { seen: {}, place });
    const listed = async () => {
      const { units } = (await test.get('/units')).body as { units: { id: string; place: string }[] };
      return units.find((u) => u.id === id)?.place;
    };
    expect((await put('away')).unit.log[0]!.summary).toBe('Put away.');
    expect(await listed()).toBe('away');
    const deleted = await put('deleted');
    expect(deleted.unit.log[0]!.summary).toBe('Deleted; it can be brought back for 30 days.');
    await forgetDeleted(test.app.database);
    const back = await test.write('POST', `${path}/undo`, { sequence: deleted.answer.sequence });
    expect(back.unit.place).toBe('away');
    await put('deleted');
    await test.app.database.query(
      `UPDATE units SET last_activity_at = now() - interval '31 days' WHERE id = '${id}'`,
    );
    await forgetDeleted(test.app.database);
    expect(await listed()).toBeUndefined();
    expect((await put('bedroom')).status).toBe(422);
  });
});
