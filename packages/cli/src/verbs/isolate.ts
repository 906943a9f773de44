import {
  checkPath,
  drill as playDrill,
  ZembleError,
  preparePath,
  searchState,
  SCHOOLS,
  type Path,
  type School,
  type UnitDocument,
} from '@zemble/core';
import { loadUnit } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

const MOST_NEXT = 5;

/** The unit's path, ready to be searched. Throws `path/missing` or `path/invalid`. */
function pathOf({ path, circuit }: UnitDocument): Path {
  if (!path || path.blocks.length === 0) throw new ZembleError('path/missing', {});
  const [first] = checkPath(path, circuit);
  if (first) throw new UsageError(first.message);
  return preparePath(path, circuit);
}

/** `suspects FILE [--school value|inject|trace|halve]` */
export async function suspects(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const path = pathOf(unit);
  const state = searchState(path, unit, { school: school(options) });
  return {
    suspects: state.suspects.map(({ block, probability, alone, why }) => ({
      id: path.blocks[block]!.id,
      probability,
      alone,
      why,
    })),
    next: state.next.slice(0, MOST_NEXT).map(({ test, bits, why }) => ({
      test: test.id,
      bits,
      minutes: test.minutes,
      why,
      at: test.at,
      ...(test.injectedAt === undefined ? {} : { injectedAt: test.injectedAt }),
      question: test.question,
    })),
    testsToCome: state.testsToCome,
    ...(state.pairs.length > 0
      ? {
          pairs: state.pairs.map(({ blocks: [a, b], probability }) => ({
            ids: [path.blocks[a]!.id, path.blocks[b]!.id],
            probability,
          })),
        }
      : {}),
    ...(state.contradictions.length > 0
      ? { contradictions: state.contradictions.map((c) => c.sentence) }
      : {}),
    ...(state.ignored.length > 0
      ? { ignored: state.ignored.map(({ evidence, reason }) => ({ at: evidence.at, reason })) }
      : {}),
    ...(state.forbidden.length > 0
      ? { forbidden: state.forbidden.map(({ test, reason }) => ({ test: test.id, reason })) }
      : {}),
  };
}

function school(options: Options): School {
  const text = options.text('school') ?? 'value';
  const found = SCHOOLS.find((s) => s === text);
  if (!found) throw new UsageError(`--school is one of ${SCHOOLS.join(', ')}, not "${text}".`);
  return found;
}

/** `drill FILE [--fault ID] [--wrong 0.05 --runs 1000 --seed 1]` */
export async function drill(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const path = pathOf(unit);
  const fault = options.text('fault');
  if (fault !== undefined && path.indexOf(fault) === undefined)
    throw new ZembleError('path/unknown-block', { text: fault });
  const wrong = Number(options.text('wrong') ?? '0');
  if (!(wrong >= 0 && wrong < 0.5)) throw new UsageError('--wrong is a share from 0 up to 0.5.');
  const runs = options.text('runs') === undefined ? undefined : options.count('runs', 1);
  return playDrill(path, {
    ...(fault === undefined ? {} : { fault }),
    wrong,
    ...(runs === undefined ? {} : { runs }),
    random: options.random(),
    hazards: unit.unit.hazards ?? [],
    school: school(options),
  });
}
