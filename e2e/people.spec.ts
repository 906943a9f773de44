import { expect, keptHere, lanTest as test, readingField, saved } from './support/bench.ts';

const PASSPHRASE = 'a long way to the valley';

test('on the network everybody signs in: a phone is paired once, and a copied cookie is worthless after sign-out', async ({
  lan,
  page,
  browser,
}) => {
  // Three browsers, two of them on a unit that takes runs in time.
  test.slow();
  await page.goto(lan);
  await page.getByLabel('Name').fill('Maren');
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'On the bench' })).toBeVisible();
  // Another person, who signs in elsewhere; what they do stands under their name.
  await page.getByRole('button', { name: 'Maren' }).click();
  await page.getByLabel('Name of the new person').fill('Tobi');
  await page.getByLabel('First passphrase of the new person').fill('even longer way down');
  await page.getByRole('button', { name: 'Add a person' }).click();
  await expect(page.getByText('Tobi can sign in now.')).toBeVisible();
  const elsewhere = await browser.newContext();
  const other = await elsewhere.newPage();
  await other.goto(lan);
  await other.getByLabel('Name').fill('Tobi');
  await other.getByLabel('Passphrase').fill('even longer way down');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await other.getByRole('link', { name: /Heron/ }).click();
  await other.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Log' }).click();
  await other.getByLabel('Note').fill('The lamp flickers.');
  await other.getByLabel('Note').press('Enter');
  await expect(other.getByText('The lamp flickers. Tobi')).toBeVisible();
  await saved(other);
  // A phone is let in by the code, once.
  await page.getByRole('button', { name: 'Show the code' }).click();
  await expect(page.getByAltText('QR code that lets a phone in')).toBeVisible();
  const link = new URL((await page.getByRole('link', { name: /\/pair$/ }).getAttribute('href'))!);
  const code = link.hash;
  // By its number on the network, where it has one: there the page came without TLS, and browsers keep some things back.
  const near = /^[\d.]+$/.test(link.hostname) ? link.origin : lan;
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();
  await phone.goto(`${near}/pair${code}`);
  await expect(phone.getByRole('heading', { name: 'On the bench' })).toBeVisible();
  expect(phone.url()).not.toContain(code);
  await phone.getByRole('link', { name: /Heron/ }).click();
  await phone.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Measure' }).click();
  await readingField(phone).fill('R6 101k');
  await readingField(phone).press('Enter');
  await saved(phone);
  await expect(other.getByText(/Measured R6.*Maren/)).toBeVisible();
  const late = await (await browser.newContext()).newPage();
  await late.goto(`${lan}/pair${code}`);
  await expect(late.getByText('was used already, or is too old')).toBeVisible();
  // Signed out at work, what was typed stays, and goes on when they are back.
  await other.getByLabel('Note').fill('And it hums');
  await page.getByRole('button', { name: 'Remove' }).click();
  await page.getByRole('button', { name: 'OK', exact: true }).click();
  await expect(page.getByText('Tobi is signed out and removed.')).toBeVisible();
  await other.getByLabel('Note').press('Enter');
  await expect(other.getByRole('dialog', { name: 'Signed out' })).toBeVisible();
  await keptHere(other);
  await other.getByLabel('Name').fill('Maren');
  await other.getByLabel('Passphrase').fill(PASSPHRASE);
  await other.getByRole('button', { name: 'Sign in' }).click();
  // What one person entered is not sent under another's name, unless that is chosen.
  await other.getByRole('button', { name: '1 of somebody else' }).click();
  await expect(other.getByText('And it hums')).toBeVisible();
  await other.getByRole('button', { name: 'Send it as mine' }).click();
  await other.keyboard.press('Escape');
  await expect(other.getByText('And it hums Maren')).toBeVisible();
  // Everywhere: the cookie that somebody has copied lets nobody in.
  const cookies = await page.context().cookies();
  const stolen = await browser.newContext();
  await stolen.addCookies(cookies);
  expect((await stolen.request.get(`${lan}/api/v1/units`)).status()).toBe(200);
  await page.getByRole('button', { name: 'Everywhere' }).click();
  await page.getByRole('button', { name: 'OK', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Who is at the bench?' })).toBeVisible();
  expect((await stolen.request.get(`${lan}/api/v1/units`)).status()).toBe(401);
});
