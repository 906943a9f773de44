import { unitAct } from '../../api/unit-act.ts';
import type { IntakeData } from '@zemble/contract';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** The intake of the unit on the bench, and how to change a part of it. */
export function useIntake(): { intake: IntakeData; setIntake: (values: Partial<IntakeData>) => void } {
  const { unit, change } = useUnitContext();
  return {
    intake: unit.intake,
    setIntake: (values) => {
      const next = Object.fromEntries(
        Object.entries({ ...unit.intake, ...values }).filter(([, v]) => v !== undefined && v !== ''),
      ) as IntakeData;
      change(unitAct(unit, { intake: next }));
    },
  };
}
