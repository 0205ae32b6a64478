import { expect, test, type Locator, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, expectRead, signInAs, visit } from './helpers';

/* The board that compares: from a bar to what is behind it and back, at both sizes. */

async function openComparing(page: Page): Promise<void> {
  await signInAs(page, 'Analyst');
  await visit(page, '/boards');
  await page.getByText('Comparing machines and meters').click();
  await expect(page.getByRole('region', { name: 'Machines of Quayside by output' })).toBeVisible();
  // The first visit reads weeks of every machine that nothing has been read of yet.
  await expect(page.getByText(/^Loading the /)).toHaveCount(0, { timeout: 60_000 });
  await expectRead(page);
}

/** Presses a part of a drawing where it is drawn, by what it is called; once what is above it has been read. */
async function press(page: Page, name: RegExp): Promise<void> {
  const part = page.getByRole('button', { name }).first();
  await part.scrollIntoViewIfNeeded();
  let box = (await part.boundingBox())!;
  await expect(async () => {
    const before = box;
    await page.waitForTimeout(300);
    box = (await part.boundingBox())!;
    expect([box.x, box.y]).toEqual([before.x, before.y]);
  }).toPass();
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
}

const readout = (page: Page, name: string | RegExp): Locator => page.getByRole('region', { name });

test('every form is read, told and accessible, and nothing makes the page scroll sideways', async ({
  page,
}) => {
  test.slow();
  await openComparing(page);
  for (const [title, told] of [
    ['Machines of Quayside by output', /6 assets, by pieces finished, largest first/],
    ['Dryers by gas per kg', /1\. Foundry Lane \/ Dryer 3/],
    ['Electricity of Quayside', /not measured by a part 7\.\d %/],
    ['Electricity of Foundry Lane, day by day', /Washers meter/],
    ['Hired equipment: how often out', /7 points/],
    ['Washed weight of Quayside in a usual week', /Mean of an hour with data/],
    ['Ironer 2, bed temperature by hour', /Highest/],
  ] as const) {
    const drawing = readout(page, new RegExp(`^${title}`))
      .getByRole('group')
      .first();
    await drawing.scrollIntoViewIfNeeded();
    await expect(drawing).toHaveAttribute('aria-label', told);
  }
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
});

test('a bar leads to the samples behind it in three taps, and back', async ({ page }) => {
  await openComparing(page);
  await press(page, /^Ironer 2, Pieces rejected per pieces finished .*How it was made/);
  const tray = page.getByRole('dialog');
  await expect(tray.getByText(/Pieces rejected .* Pieces finished/).first()).toBeVisible();
  await tray.getByRole('link', { name: 'Pieces rejected, Ironer 2' }).click();
  await expect(page).toHaveURL(/\/data\/metrics\/\d+/);
  await page.goBack();
  await expect(readout(page, 'Machines of Quayside by output')).toBeVisible();
});

test('a category leads down to its types and models, and back by its path', async ({ page }) => {
  await openComparing(page);
  const income = readout(page, 'Income from hired equipment, by category');
  await income.scrollIntoViewIfNeeded();
  for (const [into, then] of [
    ['Mangle', /Roller mangle/],
    ['Roller mangle', /RM-250/],
  ] as const) {
    await press(page, new RegExp(`^${into}, Income .*How it was made`));
    await page.getByRole('button', { name: 'Show its parts' }).click();
    await expect(income.getByRole('group').first()).toHaveAttribute('aria-label', then);
  }
  const path = income.getByRole('navigation');
  await path.getByRole('button', { name: '› Mangle' }).click();
  await expect(income.getByRole('group').first()).toHaveAttribute('aria-label', /Cabinet mangle/);
  await path.getByRole('button', { name: 'All' }).click();
  await expect(income.getByRole('group').first()).toHaveAttribute('aria-label', /Trolley/);
});

test('a table opens its groups, sorts, and keeps the total', async ({ page }) => {
  await openComparing(page);
  const table = readout(page, 'Machines of all plants');
  await table.scrollIntoViewIfNeeded();
  const rows = table.getByRole('group', { name: /names of the rows/ });
  await expect(rows.getByRole('button', { name: 'Open Quayside' })).toBeAttached();
  await press(page, /^Open Quayside$/);
  await expect(rows.getByRole('button', { name: /^Ironer 2\. Focus on it/ })).toBeAttached();
  await press(page, /^Sort by Pieces finished$/);
  await expect(table.getByText('Not as it is saved.')).toBeVisible();
  await expect(
    table.getByRole('button', { name: /^Together, Pieces finished [\d,]+.*How it was made/ }),
  ).toBeAttached();
  await expectNoSidewaysScroll(page);
});

test('a cell of a heat grid opens as its trend, by the keys alone', async ({ page }) => {
  await openComparing(page);
  const week = readout(page, 'Washed weight of Quayside in a usual week').getByRole('group').first();
  await week.scrollIntoViewIfNeeded();
  await week.focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  const tray = page.getByRole('dialog');
  await expect(tray.getByText(/% of \d/)).toBeVisible();
  await expect(tray.getByText(/one value for each week/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(tray).toHaveCount(0);
});

test('a value by floor area says by what it was divided, and small copies have one scale', async ({
  page,
}) => {
  await openComparing(page);
  await press(page, /^Quayside, Electricity used per floor area .*How it was made/);
  const tray = page.getByRole('dialog');
  await expect(tray.getByText('sum of Electricity used (Electricity) ÷ Floor area (m²)')).toBeVisible();
  await expect(tray.getByText('4,200: Quayside 4,200')).toBeVisible();
  await page.keyboard.press('Escape');
  const copies = page.getByRole('region', { name: 'Gas per kg of the dryers', exact: true });
  await copies.scrollIntoViewIfNeeded();
  const ends: string[][] = [];
  for (const plant of ['Foundry Lane', 'Quayside', 'Upper Weir']) {
    const copy = copies.getByRole('group', { name: plant, exact: true });
    await copy.scrollIntoViewIfNeeded();
    await expect(copy.getByRole('group', { name: new RegExp(`, ${plant}`) }).first()).toBeVisible();
    ends.push(
      await copy
        .locator('svg text')
        .filter({ hasText: /^(\d\.\d){3,}$/ })
        .allTextContents(),
    );
  }
  expect(ends[0]).toHaveLength(1);
  expect(ends[1]).toEqual(ends[0]);
  expect(ends[2]).toEqual(ends[0]);
  await expectAccessible(page);
});

test('a column is made wider by the keys and by dragging, and let go again', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a phone shows one column at a time');
  await openComparing(page);
  const table = readout(page, 'Machines of all plants');
  await table.scrollIntoViewIfNeeded();
  const handle = table.getByRole('separator', { name: /^Width of Hours run/ });
  const width = async (): Promise<number> => Number(await handle.getAttribute('aria-valuenow'));
  const first = await width();
  await handle.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(width).toBe(first + 8);
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 40, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(width).toBe(first + 8 - 40);
  await table.getByRole('button', { name: 'Show it as saved' }).click();
  await expect.poll(width).toBe(first);
});
