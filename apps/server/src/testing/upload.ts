import type { UnitResource } from '@zemble/contract';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { TestApp } from './test-app.ts';

/** A picture of one colour. */
export const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#2a6' } });

/** Sends a picture as a browser's form does. */
export async function upload(
  test: TestApp,
  unitId: string,
  bytes: Buffer,
  name = 'board.jpg',
  key: string = randomUUID(),
) {
  const form = new FormData();
  form.append('photo', new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), name);
  const request = new Request('http://localhost/', { method: 'POST', body: form });
  const answer = await test.app.inject({
    method: 'POST',
    url: `/api/v1/units/${unitId}/photos`,
    headers: { 'idempotency-key': key, 'content-type': request.headers.get('content-type')! },
    payload: Buffer.from(await request.arrayBuffer()),
  });
  const body = answer.statusCode < 300 ? (await test.get(`/units/${unitId}`)).body : answer.json<unknown>();
  return { status: answer.statusCode, body: body as UnitResource & { detail: string; code: string } };
}
