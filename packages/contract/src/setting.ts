import { z } from 'zod';

/**
 * A named position of every control that matters: potentiometer travel 0..1, a changeover's position by name, a
 * contact closed (true) or open (false), a jack's plug in or out.
 */
export const settingSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  name: z.string().trim().max(120).optional(),
  controls: z.record(
    z.string().trim().min(1).max(32),
    z.union([z.number(), z.boolean(), z.string().max(32)]),
  ),
});
export interface Setting {
  readonly id: string;
  readonly name?: string | undefined;
  readonly controls: Readonly<Record<string, number | boolean | string>>;
}
