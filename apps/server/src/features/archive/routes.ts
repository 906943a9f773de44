import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { App } from '../../app.ts';
import { AtATime } from '../../at-a-time.ts';
import { writeArchive } from './write.ts';

/** Archives that are written at a time: each reads everything. */
const archives = new AtATime(1, 5);

export function archiveRoutes(app: App): void {
  app.get(
    '/archive',
    { schema: { tags: ['units'], summary: 'The whole bench as one archive (ZIP)' } },
    async (request, reply) => {
      // Into a file first: a slow reader holds no transaction open.
      const path = join(tmpdir(), `zemble-${randomUUID()}.zip`);
      try {
        const problems = await archives.run(() => writeArchive(app.database, path));
        for (const problem of problems) request.log.warn(problem);
        // Whoever asks by a program sees at once that something of it would not come back.
        if (problems.length > 0) void reply.header('x-not-restorable', String(problems.length));
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
