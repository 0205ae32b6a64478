import { expect, test, type Page } from '@playwright/test';
import { expectNoSidewaysScroll, serverOf, signInAs, type Send } from './helpers';

const PEOPLE = { lead: 'Dele Marsh', analyst: 'Ines Varga' };

/** A machine with a metric that can be pushed to. */
async function machine(page: Page, send: Send, mark: string, metric: object) {
  const asset = await send('POST', '/api/assets', {
    name: `Press ${mark}`,
    kind: 'machine',
    zone: 'Europe/London',
  });
  const made = await send<{ id: string; key: string }>('POST', '/api/metrics', {
    assetId: asset.id,
    ...metric,
  });
  const { token } = await send<{ token: string }>('POST', '/api/push-tokens', { name: `Press ${mark}` });
  const push = async (samples: readonly { t: number; v: number }[]): Promise<void> => {
    const answer = await page.request.post('/api/samples', {
      headers: { authorization: `Bearer ${token}` },
      data: { samples: samples.map((sample) => ({ metric: made.key, ...sample })) },
    });
    expect(answer.ok()).toBe(true);
  };
  return { ...made, assetId: asset.id, push };
}

test('a rule tells a person, and the notice arrives through the mail catcher', async ({
  page,
  browser,
  baseURL,
}, info) => {
  const mark = `${info.project.name}-n${Date.now() % 100_000}`;
  await signInAs(page, 'Analyst');
  const oil = { name: 'Oil temperature', unit: '°C', kind: 'level', intervalMs: 60_000, maxGapMs: 600_000 };
  const { push } = await machine(page, serverOf(page), mark, oil);
  await push([{ t: Date.now() - 60_000, v: 60 }]);

  await page.goto('/alarms/rules/new');
  await page.getByLabel('Search metric').fill(`press ${mark}`);
  await page.getByRole('radio', { name: /Oil temperature/ }).click();
  await page.getByLabel('Limit', { exact: true }).first().fill('90');
  await page.getByRole('button', { name: 'medium-priority Breach' }).click();
  await page.getByRole('radio', { name: 'High' }).click();
  await page.getByRole('button', { name: 'nobody' }).click();
  await page.getByRole('group', { name: 'Who gets a notice' }).getByText(PEOPLE.lead).click();
  await page.getByLabel('What to do').fill(`Free the fan of press ${mark}`);
  await expect(page.getByText('times it would fire')).toBeVisible();
  await expectNoSidewaysScroll(page);
  await page.getByRole('button', { name: 'Put in force' }).click();
  await expect(page.getByRole('heading', { name: 'Alarms', level: 1 })).toBeVisible();
  await push([{ t: Date.now(), v: 95 }]);

  const lead = await (await browser.newContext({ viewport: page.viewportSize(), baseURL })).newPage();
  await signInAs(lead, 'Shift lead');
  // High priority stands first, and says why.
  const name = `Press ${mark} oil temperature high`;
  await expect(lead.getByRole('button', { name: `Acknowledge ${name}` })).toBeVisible();
  await expect(lead.getByText(/^High priority, Breach for/).first()).toBeVisible();
  await lead.goto('/alarms/notices');
  await lead.getByRole('link', { name: new RegExp(`^${name}.*sent `) }).click();
  const tray = lead.getByRole('dialog');
  await expect(tray.getByText(new RegExp(`Free the fan of press ${mark}`))).toBeVisible();
  await expect(tray.getByText(/^received it/)).toBeVisible();
  await tray.getByRole('button', { name: 'Open what it is about' }).click();
  await expect(lead.getByText(`Free the fan of press ${mark}`, { exact: true })).toBeVisible();
});

test('an indicator is defined once, shown on a board, and changed everywhere', async ({ page }, info) => {
  const mark = `${info.project.name}-i${Date.now() % 100_000}`;
  await signInAs(page, 'Analyst');
  const send = serverOf(page);
  const { push } = await machine(page, send, mark, {
    name: 'Feed speed',
    unit: 'm/min',
    kind: 'level',
    intervalMs: 600_000,
  });
  const now = Date.now();
  await push(Array.from({ length: 144 }, (_, i) => ({ t: now - (144 - i) * 600_000, v: 26 })));

  await page.goto('/indicators');
  await page.getByRole('button', { name: 'New indicator' }).click();
  await page.getByLabel('Search metric').fill(`press ${mark}`);
  await page.getByRole('radio', { name: /Feed speed/ }).click();
  await page.getByRole('radio', { name: 'Shares of the target' }).click();
  await page.getByRole('radio', { name: 'Higher is better' }).click();
  await expect(page.getByText('Shares of a target need a target.')).toBeVisible();
  await page.getByRole('button', { name: 'no target' }).click();
  await page.getByRole('radio', { name: 'One value' }).click();
  await page.getByLabel('Target', { exact: true }).fill('28');
  await page.getByLabel('Name of the indicator').fill(`Feed ${mark}`);
  await expect(page.getByText(/target 28\.0/).first()).toBeVisible();
  await expectNoSidewaysScroll(page);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  // 26 of 28 is 92.9 %: more than 85, less than 95.
  const row = page.getByRole('link', { name: new RegExp(`Feed ${mark}`) });
  await expect(row).toBeVisible();

  const { id } = await send('POST', '/api/boards', {
    title: `Board ${mark}`,
    document: { version: 3, window: { kind: 'rolling', count: 24, unit: 'hour' }, readouts: [] },
  });
  await page.goto(`/boards/${id}/readouts/new`);
  await page.getByRole('radio', { name: 'An indicator' }).click();
  await page.getByLabel('Search indicator').fill(mark);
  await page.getByRole('radio', { name: new RegExp(`Feed ${mark}`) }).click();
  await page.getByRole('button', { name: 'Place on board' }).click();
  const readout = page.getByRole('region', { name: `Feed ${mark}` });
  await expect(readout.getByText('Caution').first()).toBeVisible();

  await page.goto('/indicators');
  await page.getByRole('link', { name: new RegExp(`Feed ${mark}`) }).click();
  await page.getByRole('button', { name: 'Change the definition' }).click();
  await page.getByLabel('Clear from').fill('90');
  await page.getByRole('button', { name: 'Put in force' }).click();
  await expect(page.getByText(/^Version 1: higher is better/)).toBeVisible();
  await page.goto(`/boards/${id}`);
  await expect(readout.getByText('Clear').first()).toBeVisible();
});

test('a shift leaves words for the next', async ({ page }, info) => {
  const words = `Trap B leaks, ${info.project.name} ${Date.now() % 100_000}`;
  await signInAs(page, 'Shift lead');
  await page.getByRole('button', { name: 'Shift handover' }).click();
  await expect(page.getByRole('heading', { name: 'Active alarms' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Add a note for the next shift' }).fill(words);
  await page.getByRole('button', { name: 'Add the note for the next shift' }).click();
  await expect(page.getByText(words)).toBeVisible();
  await page.reload();
  await expect(page.getByText(words)).toBeVisible();
});
