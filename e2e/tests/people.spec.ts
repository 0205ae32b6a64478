import { expect, test } from '@playwright/test';
import {
  expectAccessible,
  expectFirstScreen,
  expectNoSidewaysScroll,
  expectRead,
  signInAs,
  visit,
} from './helpers';

test('somebody is invited to one plant, sees only that, and is told when their rights change', async ({
  page,
  browser,
  baseURL,
}, info) => {
  const name = `Nora ${info.project.name}`;
  await signInAs(page, 'Administrator');
  await page.getByRole('button', { name: 'Your account' }).click();
  await page.getByRole('link', { name: /^People/ }).click();
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('E-mail address').fill(`nora-${info.project.name}@hollowmere.example`);
  await page.getByRole('button', { name: 'Add a role at one plant' }).click();
  await page
    .getByRole('dialog')
    .getByRole('radio', { name: /Foundry Lane/ })
    .click();
  await page
    .getByRole('radiogroup', { name: 'Role at Foundry Lane' })
    .getByRole('radio', { name: 'operator' })
    .click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = (await page.getByText(/\/welcome#/).textContent())!;

  // Another browser: the one who was invited.
  const nora = await (await browser.newContext({ viewport: page.viewportSize(), baseURL })).newPage();
  await nora.goto(link);
  await nora.getByLabel('Password').fill('password12345678');
  await nora.getByRole('button', { name: 'Set the password and sign in' }).click();
  await expect(nora.getByText(/easy to guess/)).toBeVisible();
  await expectAccessible(nora);
  await nora.getByLabel('Password').fill('seven grey geese over the harbour');
  await nora.getByRole('button', { name: 'Set the password and sign in' }).click();
  await expectFirstScreen(nora);
  await expect(nora.getByRole('button', { name: /^Foundry Lane:/ })).toBeVisible();
  await expect(nora.getByRole('button', { name: /^Quayside:/ })).toHaveCount(0);
  await visit(nora, '/boards/1');
  await expectRead(nora);
  await expect(nora.getByText(/^Shows what you may see: Foundry Lane\./)).toBeVisible();
  await visit(nora, '/');

  // Her rights change while her page is open: it says so, and shows the other plant at once.
  await page.getByRole('button', { name: 'To the account' }).click();
  await page.getByRole('button', { name: 'Take the role at Foundry Lane away' }).click();
  await page.getByRole('button', { name: 'Add a role at one plant' }).click();
  await page
    .getByRole('dialog')
    .getByRole('radio', { name: /Upper Weir/ })
    .click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(nora.getByText(/has changed your rights/)).toBeVisible();
  await expect(nora.getByRole('button', { name: /^Upper Weir:/ })).toBeVisible();
  await expect(nora.getByRole('button', { name: /^Foundry Lane:/ })).toHaveCount(0);

  // The trail knows who did it; the chain is whole.
  await visit(page, '/trail');
  await page.getByLabel('Search the trail').fill(name);
  await expect(page.getByText(`Account added: ${name}`)).toBeVisible();
  await page.getByRole('button', { name: 'Check the chain' }).click();
  await expect(page.getByText(/entries follow from one another/)).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);

  // Disabled, she is signed out at once.
  await visit(page, '/people');
  await page.getByLabel('Search people').fill(name);
  await page.getByRole('link', { name: new RegExp(name) }).click();
  await page.getByRole('button', { name: 'Disable' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Disable' }).click();
  await expect(nora.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
});
