import { z } from 'zod';
import { tickSchema } from '../bench.ts';
import { act } from './act.ts';

export const tickActs = {
  /** A step of the bench work, whether a change has it or none. */
  'tick-step': act({
    schema: tickSchema.extend({ type: z.literal('tick-step') }),
    route: {
      method: 'PUT',
      path: '/ticks',
      status: 200,
      summary: 'Tick a step of the bench work, or take its tick back',
    },
    body: tickSchema,
    toBody: ({ type: _type, ...body }) => body,
  }),
} as const;
