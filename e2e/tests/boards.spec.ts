import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, serverOf, signInAs } from './helpers';

const PLANTS = 'All plants side by side';

async function openBoard(page: Page, title: string): Promise<void> {
  await page.goto('/boards');
  await page.getByRole('link', { name: new RegExp(`^${title}`) }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
}

const readout = (page: Page, name: string) => page.getByRole('region', { name, exact: true });

test('groups stand on one scale; a tap focuses one everywhere, Esc releases it', async ({ page }) => {
  await signInAs(page, 'Analyst');
  await openBoard(page, PLANTS);
  const rewash = readout(page, 'Rewash share by plant');
  for (const plant of ['Foundry Lane', 'Quayside', 'Upper Weir']) {
    await expect(rewash.getByRole('button', { name: new RegExp(`^${plant}, `) })).toBeVisible();
  }
  await rewash.getByRole('button', { name: /^Quayside, / }).click();
  await expect(page.getByRole('button', { name: 'Release the focus on Quayside' })).toBeVisible();
  await expect(page).toHaveURL(/focus=\d+/);
  await expect(
    readout(page, 'Washed weight, shares').getByRole('button', { name: /^Quayside.*Release the focus/ }),
  ).toBeVisible();
  // The link alone shows the same.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Release the focus on Quayside' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Release the focus on Quayside' })).toHaveCount(0);
  // The members of a group are named, with their metrics.
  await readout(page, 'Washed weight, shares')
    .getByRole('button', { name: /Quayside\. How it was made/ })
    .click();
  await expect(
    page.getByRole('dialog').getByText('2 of the same name lie below it and are not counted again.'),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await expectNoSidewaysScroll(page);
});

test('scope and hours narrow the board, are written out, and live in the address', async ({ page }) => {
  await signInAs(page, 'Manager');
  await openBoard(page, PLANTS);
  await page.getByRole('button', { name: 'Scope: all assets' }).click();
  await page.getByRole('checkbox', { name: 'Upper Weir' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: 'Scope: Upper Weir' })).toBeVisible();
  const rewash = readout(page, 'Rewash share by plant');
  await expect(rewash.getByRole('button', { name: /^Upper Weir, / })).toBeVisible();
  await expect(rewash.getByRole('button', { name: /^Quayside, / })).toHaveCount(0);
  await page.getByRole('button', { name: 'Hours: all' }).click();
  await page.getByRole('radio', { name: 'on weekdays' }).click();
  await page.getByRole('checkbox', { name: 'Sun' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: 'Hours: on Saturdays' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Hours: on Saturdays' })).toBeVisible();
  await page.getByRole('button', { name: 'As saved' }).click();
  await expect(rewash.getByRole('button', { name: /^Quayside, / })).toBeVisible();
});

test('a trend tells the numbers of a stretch, zooms to its samples and back', async ({ page }) => {
  await signInAs(page, 'Analyst');
  await openBoard(page, PLANTS);
  const gas = readout(page, 'Gas per kg, four dryers');
  const plot = gas.getByRole('group', { name: /Arrow keys walk through its points/ });
  await plot.scrollIntoViewIfNeeded();
  await plot.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(gas.getByRole('status')).toContainText('Dryer 1');
  await page.keyboard.press('Enter');
  const tray = page.getByRole('dialog');
  await expect(tray.getByText('Gas used per dried weight, Dryer 1')).toBeVisible();
  await expect(tray.getByText(/^Breach /).first()).toBeVisible();
  await tray.getByRole('button', { name: 'Zoom in on it' }).click();
  await expect(gas.getByRole('button', { name: 'Back to the whole window' })).toBeVisible();
  await plot.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('+');
  // While a point is inspected, its text replaces the caption.
  await page.keyboard.press('Escape');
  await expect(gas.getByText('samples, spikes kept').or(gas.getByText(/one value for each/))).toBeVisible();
  await gas.getByRole('button', { name: 'Back to the whole window' }).click();
  await expect(gas.getByRole('button', { name: 'Back to the whole window' })).toHaveCount(0);
});

test('a stretch of a trend becomes a flag with its numbers and a link to the same stretch', async ({
  page,
}, info) => {
  await signInAs(page, 'Shift lead');
  await openBoard(page, PLANTS);
  const gas = readout(page, 'Gas per kg, four dryers');
  const plot = gas.getByRole('group', { name: /Arrow keys walk through its points/ });
  await plot.scrollIntoViewIfNeeded();
  await plot.focus();
  await page.keyboard.press('Enter');
  const tray = page.getByRole('dialog');
  await tray.getByRole('button', { name: 'Flag it' }).click();
  const title = `Look at the gas, ${info.project.name}`;
  await tray.getByLabel('What to do').fill(title);
  await tray.getByRole('radio', { name: 'High' }).click();
  await tray.getByRole('radio', { name: /Dele Marsh/ }).click();
  await tray.getByRole('button', { name: 'Hand out the flag' }).click();
  await expect(tray).toHaveCount(0);
  await page.goto('/flags');
  await page.getByRole('link', { name: new RegExp(title) }).click();
  await expect(page.getByText(/Gas used per dried weight, Dryer 1/).first()).toBeVisible();
  await page.getByRole('link', { name: /The view this came from/ }).click();
  await expect(page.getByRole('heading', { name: PLANTS })).toBeVisible();
  expect(new URL(page.url()).searchParams.get('window')).toContain('T');
});

test('a readout is built in any order, with undo; its form changes and keeps what it can', async ({
  page,
}, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/boards');
  await page.getByRole('button', { name: 'New board' }).click();
  const title = `Built ${info.project.name}`;
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await page.getByRole('button', { name: 'Add readout' }).first().click();
  await page.getByLabel('Search metric').fill('bed temperature ironer 1 quayside');
  await page.getByRole('radio', { name: /Bed temperature, Ironer 1/ }).click();
  // On the phone empty parts are folded away.
  const folded = page.getByRole('button', { name: 'more choices' });
  if (info.project.name === 'phone') await folded.click();
  await expect(folded).toHaveCount(0);
  await page.getByRole('button', { name: 'not grouped' }).click();
  await page.getByRole('radio', { name: 'By asset' }).click();
  await expect(readout(page, 'Bed temperature, by asset')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(readout(page, 'Ironer 1 bed temperature')).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByRole('button', { name: 'all hours' }).click();
  await page.getByRole('radio', { name: 'between times of day' }).click();
  const built = readout(page, 'Bed temperature, by asset');
  await expect(built.getByText('Only 22:00 to 06:00')).toBeVisible();
  await page.getByRole('radio', { name: 'Straight gauge' }).click();
  await expect(built.getByText('Only 22:00 to 06:00')).toBeVisible();
  await page.getByRole('radio', { name: 'Lamp', exact: true }).click();
  await expect(built.getByText(/Thirds of this list/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Place on board' }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  await expect(built.getByText(/Thirds of this list/)).toBeVisible();

  // Arranging: duplicate, undo, redo, move by keys.
  await page.getByRole('button', { name: 'Arrange and change' }).click();
  await page.getByRole('button', { name: 'More for Bed temperature, by asset' }).click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(built).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(built).toHaveCount(1);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(built).toHaveCount(2);
  await page.getByRole('button', { name: 'More for Bed temperature, by asset' }).first().click();
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: 'Paste the copied readout' }).click();
  await expect(built).toHaveCount(3);

  // Exported as a file and imported again under another name.
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Board as a file' }).click();
  const file = await (await download).path();
  const parsed = JSON.parse(readFileSync(file, 'utf8'));
  expect(parsed.document.readouts).toHaveLength(3);
  await page.goto('/boards');
  await page.getByRole('button', { name: 'New board' }).click();
  await page.getByRole('radio', { name: 'From a file' }).click();
  const choose = (text: string) =>
    page
      .locator('input[type=file]')
      .setInputFiles({ name: 'b.board.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await choose('{"kind": "something"}');
  await expect(page.getByRole('alert')).toContainText('not a board file');
  parsed.metrics[0].key = 'unknown.here';
  parsed.metrics[0].name = 'Platen temperature';
  await choose(JSON.stringify(parsed));
  await expect(page.getByText('0 of 3 readouts can be shown here.')).toBeVisible();
  await page.getByRole('button', { name: 'Choose a metric' }).click();
  await page.getByLabel('Search metric for platen temperature').fill('bed temperature ironer 2 quayside');
  await page.getByRole('radio', { name: /Bed temperature, Ironer 2/ }).click();
  await expect(page.getByText('3 of 3 readouts can be shown here.')).toBeVisible();
  await page.getByLabel('Title', { exact: true }).fill(`${title} again`);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await expect(page.getByRole('heading', { name: `${title} again`, level: 1 })).toBeVisible();
  await expect(built).toHaveCount(3);
});

test('a board is begun for an asset, to a chosen depth', async ({ page }, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/boards');
  await page.getByRole('button', { name: 'New board' }).click();
  await page.getByRole('radio', { name: 'For an asset' }).click();
  await page.getByLabel('Search asset').fill('wash house foundry');
  // Only once the list holds nothing but matches: a row replaced under the finger loses the press.
  await expect(page.getByRole('radio', { name: /Dryer/ })).toHaveCount(0);
  const washHouse = page.getByRole('radio', { name: /^Wash house/ }).first();
  await washHouse.click();
  await expect(washHouse).toBeChecked();
  await page.getByRole('radio', { name: '1 level below' }).click();
  await expect(page.getByText(/^\d+ readouts: its own metrics/)).toBeVisible();
  await page.getByLabel('Title').fill(`Begun ${info.project.name}`);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await expect(page.getByRole('heading', { name: `Begun ${info.project.name}`, level: 1 })).toBeVisible();
  await expect(readout(page, 'Washed weight, by asset')).toBeVisible();
  await expect(page.getByRole('group', { name: /Arrow keys walk through its points/ }).first()).toBeVisible();
});

test('fingers zoom and move a trend; keys walk from breach to breach', async ({ page }) => {
  await signInAs(page, 'Manager');
  await openBoard(page, PLANTS);
  const gas = readout(page, 'Gas per kg, four dryers');
  const plot = gas.getByRole('group', { name: /Arrow keys walk through its points/ });
  await plot.scrollIntoViewIfNeeded();
  // Content that loads above moves the plot.
  await expect(page.getByText(/^Loading the /)).toHaveCount(0);
  await plot.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  const box = (await plot.boundingBox())!;
  const y = box.y + box.height / 2;
  const at = (share: number): number => box.x + 46 + (box.width - 80) * share;
  const touch = await page.context().newCDPSession(page);
  const fingers = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...places: number[]) =>
    touch.send('Input.dispatchTouchEvent', { type, touchPoints: places.map((x, id) => ({ x, y, id })) });

  await fingers('touchStart', at(0.4), at(0.6));
  for (const step of [0.05, 0.1, 0.15, 0.2]) await fingers('touchMove', at(0.4 - step), at(0.6 + step));
  await fingers('touchEnd');
  const whole = gas.getByRole('button', { name: 'Back to the whole window' });
  await expect(whole).toBeVisible();
  const told = gas.getByText(/^\d{1,2}:\d\d|^\w{3} \d/).last();
  const before = await told.textContent();
  // Zoomed in, one finger moves what is shown.
  await fingers('touchStart', at(0.7));
  for (const share of [0.6, 0.5, 0.4]) await fingers('touchMove', at(share));
  await fingers('touchEnd');
  await expect(told).not.toHaveText(before!);
  await whole.click();
  await expect(whole).toHaveCount(0);

  await page.keyboard.press(',');
  await expect(page).toHaveURL(/window=/);
  const first = page.url();
  await page.keyboard.press(',');
  await expect.poll(() => page.url()).not.toBe(first);
  await page.keyboard.press('.');
  await expect.poll(() => decodeURIComponent(page.url())).toBe(decodeURIComponent(first));
});

test('a board of one person is shared with a plant and gets a label', async ({ page, browser }, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/boards');
  await page.getByRole('button', { name: 'New board' }).click();
  const title = `Round ${info.project.name}`;
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  const address = page.url();

  const other = await (await browser.newContext()).newPage();
  await signInAs(other, 'Shift lead');
  await other.goto(address);
  await expect(
    other.getByText('This board does not exist any more, or is not shared with you.'),
  ).toBeVisible();

  await page.getByRole('button', { name: 'About this board' }).click();
  const about = page.getByRole('dialog', { name: 'About this board' });
  await expect(about.getByText('Only its owner and administrators see it.').first()).toBeVisible();
  await about.getByRole('button', { name: 'Share with a role or a plant' }).click();
  await about.getByRole('radio', { name: /^Quayside/ }).click();
  await about.getByRole('button', { name: 'Share', exact: true }).click();
  await expect(about.getByText('Everybody at Quayside', { exact: true })).toBeVisible();
  await about.getByLabel('New label').fill(`Shift ${info.project.name}`);
  await about.getByRole('button', { name: 'Add the label' }).click();
  await expect(about.getByRole('checkbox', { name: `Shift ${info.project.name}` })).toBeChecked();
  await expectAccessible(page);
  await page.keyboard.press('Escape');

  await other.reload();
  await expect(other.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Arrange and change' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Arrange and change' }).click();
  await page.getByLabel('Title', { exact: true }).fill(`${title} again`);
  await page.getByRole('button', { name: /^Save the title/ }).click();
  await expect(page.getByRole('heading', { name: `${title} again`, level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'About this board' }).click();
  await expect(about.getByText(/^as it is now/)).toBeVisible();
  await page.keyboard.press('Escape');
  await serverOf(page)('DELETE', new URL(address).pathname.replace('/boards', '/api/boards'));
});
