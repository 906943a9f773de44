// @vitest-environment happy-dom
import '../../testing/component.ts';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { describe, expect, it } from 'vitest';
import { RAIL } from '../../unit/stages.ts';
import { GLOSSARY } from './glossary.ts';
import { Help, helpIdAt } from './help.tsx';
import { HELP_PAGES } from './pages.ts';

const at = (path: string) =>
  render(
    <MemoryRouter initialEntries={[path]}>
      <input aria-label="Reading" />
      <Help />
    </MemoryRouter>,
  );

describe('help', () => {
  it('has a page for every stage, that says what is done there in words of the glossary', () => {
    for (const { stage } of RAIL) expect(helpIdAt(`/units/1/${stage}`)).toBe(stage);
    expect(helpIdAt('/drawer')).toBe('drawer');
    expect(helpIdAt('/')).toBe('bench');
    for (const [id, { purpose, steps, words }] of Object.entries(HELP_PAGES)) {
      expect(purpose, id).toMatch(/\.$/);
      expect(steps.length, id).toBeGreaterThan(1);
      for (const word of words) expect(GLOSSARY[word], `${id}: ${word}`).toBeTruthy();
    }
  });

  it('comes by the question mark and F1, but not while something is typed', async () => {
    const user = userEvent.setup();
    at('/units/1/measure');
    const field = screen.getByLabelText('Reading');
    await user.type(field, '4k7?');
    expect(screen.queryByText(HELP_PAGES.measure.purpose)).toBeNull();
    await user.clear(field);
    await user.keyboard('?');
    expect(await screen.findByText(HELP_PAGES.measure.purpose)).toBeTruthy();
    expect(field).toHaveProperty('value', '');
    expect(screen.getByText(GLOSSARY['leg lifted'])).toBeTruthy();
    await user.keyboard('{F1}');
    await waitFor(() => expect(screen.queryByText(HELP_PAGES.measure.purpose)).toBeNull());
  });
});
