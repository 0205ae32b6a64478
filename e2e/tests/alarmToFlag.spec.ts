import { expect, test } from '@playwright/test';
import { serverOf, signInAs } from './helpers';

test('a sample over the limit reaches the shift lead, who hands a flag to the technician', async ({
  page,
  browser,
  baseURL,
}, info) => {
  const mark = info.project.name;
  // The analyst makes a token and a rule, on a metric that only this test sends.
  await signInAs(page, 'Analyst');
  const send = serverOf(page);
  const asset = await send('POST', '/api/assets', {
    name: `Press ${mark}`,
    kind: 'machine',
    zone: 'Europe/London',
  });
  const { key } = await send<{ key: string }>('POST', '/api/metrics', {
    assetId: asset.id,
    name: 'Oil temperature',
    unit: '°C',
    kind: 'level',
    intervalMs: 60_000,
  });
  await page.goto('/data/tokens');
  await page.getByLabel('Name of the sender').fill(`Press ${mark}`);
  await page.getByRole('button', { name: 'Create a token' }).click();
  const token = (await page.getByText(/^vb_/).textContent())!;
  const push = async (v: number): Promise<void> => {
    const answer = await page.request.post(`${baseURL}/api/samples`, {
      headers: { authorization: `Bearer ${token}` },
      data: { samples: [{ metric: key, t: Date.now(), v }] },
    });
    expect((await answer.json()).added).toBe(1);
  };
  await push(60);

  await page.goto('/alarms/rules/new');
  await page.getByLabel('Search metric').fill(`press ${mark}`);
  await page.getByRole('radio', { name: /Oil temperature/ }).click();
  await page.getByLabel('Limit', { exact: true }).first().fill('90');
  await page.getByLabel('Name of the rule').fill(`Press ${mark} oil hot`);
  await expect(page.getByText('times it would fire')).toBeVisible();
  await page.getByRole('button', { name: 'Put in force' }).click();
  await expect(page.getByRole('heading', { name: 'Alarms', level: 1 })).toBeVisible();

  // A second browser: the shift lead, who never reloads.
  const lead = await (await browser.newContext({ viewport: page.viewportSize(), baseURL })).newPage();
  await signInAs(lead, 'Shift lead');
  await expect(lead.getByRole('button', { name: `Acknowledge Press ${mark} oil hot` })).toBeHidden();
  const sentAt = Date.now();
  await push(95);
  await expect(lead.getByRole('button', { name: `Acknowledge Press ${mark} oil hot` })).toBeVisible();
  info.annotations.push({ type: 'push to shown', description: `${Date.now() - sentAt} ms` });

  await lead.getByRole('link', { name: new RegExp(`Press ${mark} oil hot`) }).click();
  await lead.getByRole('button', { name: 'Acknowledge' }).click();
  await lead.getByLabel('Remark (what you saw or did)').fill('Fan stands still.');
  await lead.getByRole('dialog').getByRole('button', { name: 'Acknowledge' }).click();
  await expect(lead.getByText(/acknowledged by Dele Marsh/)).toBeVisible();
  await lead.getByRole('button', { name: 'Flag' }).click();
  await lead.getByLabel('What to do').fill(`Free the fan of press ${mark}`);
  await lead.getByRole('radio', { name: /Marit Oduya/ }).click();
  await lead.getByRole('button', { name: 'Hand out the flag' }).click();
  await expect(lead.getByText(/Flag handed out by Dele Marsh/)).toBeVisible();

  // The technician, on the phone.
  const technician = await (
    await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, baseURL })
  ).newPage();
  await signInAs(technician, 'Technician');
  await technician.getByRole('link', { name: new RegExp(`Free the fan of press ${mark}`) }).click();
  await expect(technician.getByText('When raised')).toBeVisible();
  await technician.getByRole('button', { name: 'Take in hand' }).click();
  await expect(technician.getByText(/^In hand, /)).toBeVisible();
  await technician.getByLabel('Add a comment').fill('Guard is off.');
  await technician.getByRole('button', { name: 'Add the comment' }).click();
  await expect(technician.getByText('Comment by Marit Oduya')).toBeVisible();
  await technician.getByRole('button', { name: 'Close with an outcome' }).click();
  await technician.getByRole('radio', { name: 'Mended' }).click();
  await technician.getByLabel('What was found and done').fill('Lint in the guard. Cleaned.');
  await technician.getByRole('radio', { name: 'Lint in the filter' }).click();
  await technician.getByLabel('Time spent').fill('25');
  await technician.getByRole('button', { name: 'Close the flag' }).click();
  await expect(technician.getByText('Closed', { exact: true })).toBeVisible();
  await expect(technician.getByText(/^Done · cause: Lint in the filter · 25/)).toBeVisible();

  // The rule is shelved while the fan is freed; once reinstated it raises again, because the value is still
  // high.
  await lead.getByRole('main').getByRole('button', { name: 'Shelve', exact: true }).click();
  await lead.getByLabel('Reason').fill('The fan is being freed');
  await lead.getByRole('dialog').getByRole('button', { name: 'Shelve' }).click();
  await expect(lead.getByRole('main').getByText(/, shelved until /)).toBeVisible();
  await expect(lead.getByText('Reason: The fan is being freed')).toBeVisible();
  await push(96);
  await lead.getByRole('button', { name: 'Reinstate' }).click();
  await expect(lead.getByText(/, not acknowledged$/).first()).toBeVisible();
  await lead.getByRole('button', { name: 'Acknowledge' }).click();
  await lead.getByRole('dialog').getByRole('button', { name: 'Acknowledge' }).click();
  await expect(lead.getByRole('dialog')).toHaveCount(0);
  await expect(lead.getByRole('button', { name: 'Acknowledge' })).toBeDisabled();

  // The next normal sample returns the alarm; its history is complete, on a page that was not reloaded.
  await push(70);
  await expect(lead.getByText(/back to normal/).first()).toBeVisible();
  for (const line of [
    'Raised at 95.0',
    'Acknowledged by Dele Marsh',
    'Flag handed out by Dele Marsh',
    'Flag closed by Marit Oduya',
    'Shelved by Dele Marsh',
    'Reinstated by Dele Marsh',
    'Back to normal at 70.0',
  ]) {
    await expect(lead.getByText(new RegExp(`^${line}`)).first()).toBeVisible();
  }
  await expect(lead.getByText(/Fan stands still\./)).toBeVisible();
});
