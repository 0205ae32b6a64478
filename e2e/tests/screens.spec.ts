import { expect, test } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, expectRead, signInAs, visit } from './helpers';
import { SCREENS } from './screenList';

test('the sign-in screen names what is missing, and refuses a wrong password', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Vivid Beacon' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('Give an e-mail address').first()).toBeVisible();
  await page.getByLabel('E-mail address').fill('nobody@hollowmere.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByLabel('Password').press('Enter');
  await expect(page.getByText('Wrong e-mail address or password.')).toBeVisible();
});

test('On watch shows what needs a person, and a light filters it to its plant', async ({ page }) => {
  await signInAs(page, 'Analyst');
  await expect(page.getByText('Ironer 2 bed temperature high')).toBeVisible();
  await expect(page.getByText('Boiler house pressure high')).toBeVisible();
  await page.getByRole('button', { name: /^Quayside:/ }).click();
  await expect(page.getByText('Boiler house pressure high')).toBeHidden();
  await expect(page.getByText('Ironer 2 bed temperature high')).toBeVisible();
});

// In parts, because each screen is looked at twice by a checker that takes its time.
const PARTS = 3;
for (let part = 0; part < PARTS; part++) {
  test(`every screen is accessible and fits, by day and by night (${part + 1} of ${PARTS})`, async ({
    page,
  }) => {
    test.slow();
    await signInAs(page, 'Analyst');
    const ground = () => page.evaluate(() => document.body.style.backgroundColor);
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    const day = await ground();
    let night = '';
    for (const path of SCREENS.filter((_, i) => i % PARTS === part)) {
      await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
      await expect.poll(ground).not.toBe(night);
      await visit(page, path);
      await expectRead(page);
      await expectNoSidewaysScroll(page);
      await expectAccessible(page);
      await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
      await expect.poll(ground).not.toBe(day);
      // By night only the colours are others.
      await expectAccessible(page, ['color-contrast', 'link-in-text-block']);
      night = await ground();
    }
  });
}

test('a manager may look, and nothing more', async ({ page }) => {
  await signInAs(page, 'Manager');
  await expect(page.getByText('Ironer 2 bed temperature high')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Acknowledge/ })).toHaveCount(0);
  await page.goto('/boards/1');
  await expect(page.getByRole('heading', { name: 'Rewash share', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add readout' })).toHaveCount(0);
});

test('the time rail sets the window by word and by keyboard', async ({ page }) => {
  await signInAs(page, 'Analyst');
  await page.goto('/boards/1');
  await expect(page.getByRole('radio', { name: '7 days' })).toBeChecked();
  await page.getByRole('radio', { name: 'Today' }).click();
  await expect(page.getByRole('radio', { name: 'Today' })).toBeChecked();
  const start = page.getByRole('slider', { name: 'Start of the window' });
  const before = await start.getAttribute('aria-valuetext');
  await start.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(start).not.toHaveAttribute('aria-valuetext', before!);
  await expect(page.getByRole('radio', { name: 'Custom' })).toBeChecked();
});
