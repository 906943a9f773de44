import { plainAnswerSchema, setWorkshopSchema, workshopSchema } from '@zemble/contract';
import type { App } from '../../app.ts';
import { keepMains, workshop } from './repository.ts';

/** What holds for the whole workshop, whichever unit is on the bench. */
export function workshopRoutes(app: App): void {
  const tags = ['workshop'];
  app.get(
    '/workshop',
    {
      schema: { tags, summary: 'What holds for the whole workshop', response: { 200: workshopSchema } },
    },
    () => workshop(),
  );
  app.post(
    '/workshop',
    {
      schema: {
        tags,
        summary: 'Say the frequency of the mains',
        body: setWorkshopSchema,
        response: { 200: plainAnswerSchema },
      },
    },
    async (request) => {
      await app.database.transaction((t) => keepMains(request.body.mainsHz, t));
      return { ok: true } as const;
    },
  );
}
