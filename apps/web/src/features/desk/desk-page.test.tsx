// @vitest-environment happy-dom
import '../../testing/component.ts';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { DeskPage } from './desk-page.tsx';

vi.mock('../../ui/workshop-top.tsx', () => ({ WorkshopTop: () => null }));
vi.mock('../drawer/index.ts', () => ({ useDrawer: () => ({ items: [] }) }));
vi.mock('../../api/use-units.ts', () => ({ useUnits: () => ({ units: [] }) }));

const open = () =>
  render(
    <MemoryRouter>
      <DeskPage />
    </MemoryRouter>,
  );
const block = (name: RegExp) => screen.getByRole('region', { name });

describe('the Desk', () => {
  it('finds a calculation by its title or a field of it', async () => {
    open();
    const all = screen.getAllByRole('region').length;
    await userEvent.type(screen.getByLabelText('Find a calculation'), 'parallel');
    const found = screen.getAllByRole('region').length;
    expect(found).toBeGreaterThan(0);
    expect(found).toBeLessThan(all);
    await userEvent.type(screen.getByLabelText('Find a calculation'), ' no such');
    expect(screen.getByText('Nothing here is called so.')).toBeTruthy();
  });

  it('a divider: either end is typed in any notation and the rest follows; nonsense leaves what was', async () => {
    open();
    const divider = block(/divider/i);
    const field = (name: RegExp) => within(divider).getByLabelText<HTMLInputElement>(name);
    const type = async (name: RegExp, text: string) => {
      await userEvent.clear(field(name));
      await userEvent.type(field(name), `${text}{Enter}`);
    };
    await type(/^In/, '9V');
    await type(/^Upper/, '10k');
    await type(/^Lower/, '4k7');
    // 9 V x 4.7 / 14.7 (textbook).
    expect(field(/^Out/).value).toBe('2.868 V');
    await userEvent.clear(field(/^Upper/));
    await userEvent.type(field(/^Upper/), 'ten');
    expect(within(divider).getByRole('status').textContent).toMatch(/cannot be read/);
    expect(field(/^Out/).value).toBe('2.868 V');
  });
});
