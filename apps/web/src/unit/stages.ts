/** The stages of the rail that can be worked in, in the order of the work. */
export const RAIL = [
  { stage: 'intake', word: 'Intake' },
  { stage: 'trace', word: 'Trace' },
  { stage: 'find', word: 'Find' },
  { stage: 'measure', word: 'Measure' },
  { stage: 'rework', word: 'Rework' },
  { stage: 'build', word: 'Build' },
  { stage: 'log', word: 'Log' },
] as const;

export type RailStage = (typeof RAIL)[number]['stage'];
