import { expect, newUnit, saved, test } from './support/bench.ts';

/** From a paper list, as people keep it; two lines have a slip of the pen. */
const LIST = `V1 9V vcc gnd
- R1 470k vcc b1
R2 100k b1 gnd
R3 4q7 vcc c1
Q1 2N3904 c1 b1 e1

# second half
4) R4 1k e1 gnd
C1 100n in b1
C2 47u polarised e1 gnd
R1 330k b1 gnd
`;

test('a pasted list is as many rows; what cannot be read waits with its reason, and it is one step back', async ({
  page,
}) => {
  await newUnit(page, 'From paper');
  const parts = page.getByRole('region', { name: 'Parts' });
  const field = page.getByLabel('Type a part');
  await field.focus();
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text', text);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, LIST);
  await expect(parts).toContainText('7 parts');
  const waiting = page.getByRole('alert', { name: 'Lines to mend' });
  await expect(waiting).toContainText('2 lines of the list to mend');
  await expect(waiting).toContainText('4q7');
  await expect(waiting).toContainText('R1 was in the list before it');
  await saved(page);

  // They outlive the page, and are mended in the field.
  await page.reload();
  await waiting.getByRole('button', { name: 'Mend R3 4q7 vcc c1' }).click();
  await expect(field).toHaveValue('R3 4q7 vcc c1');
  await field.fill('R3 4k7 vcc c1');
  await field.press('Enter');
  await expect(parts).toContainText('8 parts');
  await waiting.getByRole('button', { name: 'Drop R1 330k b1 gnd' }).click();
  await expect(waiting).toBeHidden();
  await saved(page);

  // The mended line is one step back, the list another.
  await field.focus();
  await page.keyboard.press('Control+Z');
  await expect(parts).toContainText('7 parts');
  await page.keyboard.press('Control+Z');
  await expect(parts).toContainText('0 parts');
});
