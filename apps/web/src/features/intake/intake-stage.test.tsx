// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { Act, UnitResource } from '@zemble/contract';
import { applyAct } from '@zemble/core';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { Complaint } from './complaint.tsx';
import { FirstChecks } from './first-checks.tsx';
import { Safety } from './safety.tsx';

const playSound = vi.fn();
vi.mock('./play-sound.ts', () => ({ playSound: (...said: unknown[]) => playSound(...said) as unknown }));
vi.mock('../../api/use-mains.ts', () => ({ useMains: () => ({ mainsHz: 60, isUnsaid: false }) }));
vi.mock('../changes/index.ts', () => ({ StillOut: () => null }));

const unit = (values: Partial<UnitResource> = {}): UnitResource => ({
  ...unitOf({ lines: ['V1 30V vcc 0', 'C1 1000u 50V electrolytic vcc 0', 'R1 1k vcc 0'] }),
  ...values,
});
/** The intake as it is after what was changed last. */
const intakeAfter = (of: UnitResource, change: ReturnType<typeof vi.fn>) =>
  applyAct(of, change.mock.lastCall![0] as Act).intake;

describe('the intake', () => {
  it('plays what a fault sounds like on the mains that is here, and keeps what was pointed at', async () => {
    const one = unit({ intake: { heard: ['hiss'] } });
    const { change } = showInUnit(one, <Complaint />);
    await userEvent.click(screen.getByRole('button', { name: 'Play hum' }));
    expect(playSound).toHaveBeenCalledExactlyOnceWith('hum', 60);
    await userEvent.click(screen.getByRole('checkbox', { name: 'hum' }));
    expect(intakeAfter(one, change).heard).toEqual(['hiss', 'hum']);
    await userEvent.click(screen.getByRole('checkbox', { name: 'hiss' }));
    expect(intakeAfter(one, change).heard).toEqual([]);
  });

  it('keeps a check with its time, and says how many are made', async () => {
    const one = unit({ hazards: ['mains'] });
    const { change } = showInUnit(one, <FirstChecks />);
    expect(screen.getByRole('heading', { name: /First checks/ }).textContent).toMatch(/0 of \d+ made/);
    const [fine] = screen.getAllByRole('button', { name: /^Fine:/ });
    await userEvent.click(fine!);
    expect(Object.values(intakeAfter(one, change).checks ?? {})).toEqual(['fine']);
  });

  it('says how what is stored is let down, and refuses a capacitor of nothing', async () => {
    const one = unit({ hazards: ['large capacitors'] });
    const { change } = showInUnit(one, <Safety />);
    const before = screen.getByRole('region', { name: 'Before you open it' });
    expect(within(before).getAllByRole('listitem').length).toBeGreaterThan(0);
    // 1000 µF at 30 V: C V²/2 = 0.45 J (textbook).
    expect(within(before).getByRole('status').textContent).toMatch(/C1: .*0\.45 J|450 mJ/);
    const field = screen.getByLabelText('Largest capacitor');
    await userEvent.clear(field);
    await userEvent.type(field, '0{Enter}');
    expect(change).not.toHaveBeenCalled();
    await userEvent.clear(field);
    await userEvent.type(field, '2200u{Enter}');
    expect(intakeAfter(one, change).stored).toMatchObject({ farad: 2.2e-3, volt: 30 });
  });

  it('asks for the hazards where none is said', () => {
    showInUnit(unit(), <Safety />);
    expect(screen.getByText(/Say at the left what in it can hurt/)).toBeTruthy();
  });
});
