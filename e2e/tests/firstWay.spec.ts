import { expect, test, type Locator } from '@playwright/test';
import { signInAs } from './helpers';

/** What the way may cost at most; every tap and every field that is typed in counts as one. */
const MOST_TAPS = 25;

/** A day of a made-up dryer, a value every ten minutes. */
function ownFile(): Buffer {
  const lines = ['time,Exhaust temperature (°C)'];
  const end = Math.floor(Date.now() / 600_000) * 600_000;
  for (let i = 432; i > 0; i--) {
    const at = new Date(end - i * 600_000).toISOString().slice(0, 16);
    lines.push(`${at}Z,${(95 + 12 * Math.sin(i / 9) + (i % 7)).toFixed(1)}`);
  }
  return Buffer.from(lines.join('\n'));
}

test('from a file of one’s own to a board with gauge, trend and band, and an alarm rule', async ({
  page,
}, info) => {
  let taps = 0;
  const tap = async (what: Locator): Promise<void> => {
    taps++;
    await what.click();
  };
  const type = async (what: Locator, text: string): Promise<void> => {
    taps++;
    await what.fill(text);
  };
  const button = (name: string | RegExp): Locator => page.getByRole('button', { name });
  const asset = `Own dryer ${info.project.name}`;
  await signInAs(page, 'Analyst');

  await tap(page.getByRole('link', { name: 'Data', exact: true }));
  await tap(button('Intake'));
  taps++;
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'dryer.csv', mimeType: 'text/csv', buffer: ownFile() });
  await type(page.getByLabel('Name of the asset'), asset);
  await tap(page.getByRole('button', { name: 'Import', exact: true }));
  await expect(page.getByRole('heading', { name: '432 samples added' })).toBeVisible();

  await tap(button('Make a board of it'));
  await expect(page.getByRole('heading', { name: asset, level: 1 })).toBeVisible();
  await expect(page.getByRole('button', { name: /°C.*How it was made/ })).toBeVisible();
  await tap(button('Arrange and change'));
  await tap(button(/^Edit /).last());
  await tap(page.getByRole('radio', { name: 'Lower is better' }));
  await tap(button('Place on board'));
  await expect(page.getByText(/target .* at the triangle/)).toBeVisible();

  await tap(page.getByRole('link', { name: /^Alarms/ }));
  await tap(button('New rule'));
  await type(page.getByLabel('Search metric'), asset);
  await tap(page.getByRole('radio', { name: /Exhaust temperature/ }));
  await expect(page.getByText(/it would fire in 3.days with data/)).toBeVisible();
  await tap(button('Put in force'));
  await expect(page.getByText(new RegExp(`Exhaust temperature.*${asset}|${asset}`)).first()).toBeVisible();

  info.annotations.push({ type: 'taps', description: String(taps) });
  console.log(`taps: ${taps}`);
  expect(taps).toBeLessThanOrEqual(MOST_TAPS);
});
