import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { App } from '../../app.ts';
import { writeArchive } from './write.ts';

export function archiveRoutes(app: App): void {
  app.get(
    '/archive',
    { schema: { tags: ['units'], summary: 'The whole bench as one archive (ZIP)' } },
    async (_, reply) => {
      // Into a file first: a slow reader holds no transaction open.
      const path = join(tmpdir(), `zemble-${randomUUID()}.zip`);
      try {
        await writeArchive(app.database, path);
      } catch (error) {
        await rm(path, { force: true });
        throw error;
      }
      const file = createReadStream(path);
      file.once('close', () => void rm(path, { force: true }));
      const day = new Date().toISOString().slice(0, 10);
      void reply.header('content-disposition', `attachment; filename="bench-${day}.zip"`);
      return reply.type('application/zip').send(file);
    },
  );
}
