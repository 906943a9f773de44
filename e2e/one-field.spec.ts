import { expect, openUnit, saved, test } from './support/bench.ts';

test('one field takes readings, voltages and what is heard; each is judged against the circuit', async ({
  page,
}) => {
  await openUnit(page, /Lark 3/, 'Measure');
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  const status = page.getByRole('region', { name: 'Readings' }).getByRole('status');
  const enter = async (line: string) => {
    await field.fill(line);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  };
  // In circuit: what the neighbours add is taken off.
  await enter('C106 4.05n in circuit');
  await expect(status.first()).toContainText('the part itself is between');
  await enter('C106 9n in circuit');
  await expect(status.first()).toContainText('convicted in circuit');
  // An ESR is judged by capacity and voltage.
  await enter('C103 9.6u esr 40');
  await expect(status.last()).toContainText('typical');
  // Completion by Tab, and a voltage at a pin.
  await field.fill('R10');
  await expect(page.getByText('R101 R102 R103')).toBeVisible();
  await field.fill('Q102c 14V');
  await expect(page.getByText('14 V at c2L')).toBeVisible();
  await field.press('Enter');
  await page.getByText('Voltages', { exact: true }).click();
  await expect(page.getByRole('row', { name: /^Measure net c2L/ })).toContainText('14 V');
  // What cannot be read is said, and stays in the field.
  await field.fill('X77 4k7');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('X77');
  await expect(field).toHaveValue('X77 4k7');
  await field.press('Escape');
  await saved(page);
});
