import { readFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, openData, signInAs } from './helpers';

/** Drops a file on an element of the page. */
async function dropFile(page: Page, onto: Locator, name: string, text: string): Promise<void> {
  const held = await page.evaluateHandle(
    ([fileName, content]) => {
      const data = new DataTransfer();
      data.items.add(new File([content], fileName, { type: 'text/csv' }));
      return data;
    },
    [name, text] as const,
  );
  for (const type of ['dragover', 'drop']) await onto.dispatchEvent(type, { dataTransfer: held });
}

const chooseFile = (page: Page, file: string | { name: string; mimeType: string; buffer: Buffer }) =>
  page.locator('input[type=file]').setInputFiles(file);

test('a real file in, a board with gauge, lamp, figure and trend, and where a number came from', async ({
  page,
}, info) => {
  const asset = `Weather mast ${info.project.name}`;
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  await chooseFile(page, openData('seattle-weather.csv'));
  await expect(page.getByRole('columnheader', { name: 'temp_max' })).toBeVisible();
  await expect(
    page.getByRole('radiogroup', { name: 'Between columns' }).getByRole('radio', { name: 'comma' }),
  ).toBeChecked();
  await expect(page.getByRole('button', { name: /^Column date: Time/ }).first()).toBeVisible();

  await page
    .getByRole('group', { name: 'Series precipitation' })
    .getByRole('radio', { name: 'Leave out' })
    .click();
  await page.getByRole('group', { name: 'Series wind' }).getByRole('radio', { name: 'Leave out' }).click();
  await page
    .getByRole('group', { name: 'Series temp_min' })
    .getByRole('radio', { name: 'Leave out' })
    .click();
  const column = page.getByRole('group', { name: 'Series temp_max' });
  await column.getByLabel('Metric of temp_max').fill('Highest temperature');
  await column.getByLabel('Unit').fill('°C');
  await page.getByLabel('Name of the asset').fill(asset);
  await page.getByLabel('Time zone').fill('America/Los_Angeles');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  // 2012 to 2015, one of them a leap year: 1,461 days.
  await expect(page.getByRole('heading', { name: '1,461 samples added' })).toBeVisible();
  await expectNoSidewaysScroll(page);

  // The same file again, dragged in this time, adds nothing and says so.
  await page.goto('/data/intake');
  const text = readFileSync(openData('seattle-weather.csv'), 'utf8');
  await dropFile(page, page.getByText(/drop them here or choose them/), 'seattle-weather.csv', text);
  await expect(page.getByText(/Read and mapped like seattle-weather\.csv/)).toBeVisible();
  await expect(page.getByText(`Highest temperature, ${asset}, ${asset} (°C)`)).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Nothing new in this file' })).toBeVisible();
  await expect(page.getByText('1,461 samples stored before with the same values.')).toBeVisible();

  await page.goto('/boards');
  await page.getByRole('button', { name: 'New board' }).click();
  const title = `Weather ${info.project.name}`;
  await page.getByLabel('Title').fill(title);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  for (const form of ['Gauge', 'Lamp', 'Figure', 'Trend']) {
    await page.getByRole('button', { name: 'Add readout' }).first().click();
    await page.getByRole('radio', { name: form, exact: true }).click();
    await page.getByLabel('Search metric').fill(asset);
    await page.getByRole('radio', { name: /Highest temperature/ }).click();
    await page.getByRole('radio', { name: 'Highest', exact: true }).click();
    await page
      .getByRole('button', { name: /2014-12-31T00:00|board's window|2015/ })
      .first()
      .click();
    await page.getByRole('radio', { name: 'Absolute' }).click();
    await page.getByLabel('From').fill('2014-01-01T00:00');
    await page.getByLabel('To').fill('2015-01-01T00:00');
    await page.getByRole('button', { name: 'Use this window' }).click();
    await page.getByRole('button', { name: 'no target band', exact: true }).click();
    await page.getByRole('radio', { name: 'Lower is better' }).click();
    await page.getByLabel('End of Clear').last().fill('30');
    await page.getByLabel('Start of Breach').last().fill('35');
    await page.getByLabel('Target', { exact: true }).fill('25');
    // The preview is live while editing: the highest of 2014 is 35.6 °C.
    if (form !== 'Trend')
      await expect(page.getByText(/Breach, (0\.6 over limit|35\.6)/).first()).toBeVisible();
    await page.getByRole('button', { name: 'Place on board' }).click();
    await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  }
  const check = async (): Promise<void> => {
    await expect(
      page.getByRole('button', { name: /35\.6.*Breach, 0\.6 over limit\. How it was made/ }),
    ).toHaveCount(2);
    await expect(page.getByRole('group', { name: /Arrow keys walk through its points/ })).toBeVisible();
    await expect(page.getByRole('region', { name: `${asset} highest temperature, highest` })).toHaveCount(4);
  };
  await check();
  await page.reload();
  await check();
  await expectNoSidewaysScroll(page);

  await page
    .getByRole('button', { name: /Breach, 0\.6 over limit\. How it was made/ })
    .first()
    .click();
  const tray = page.getByRole('dialog').last();
  await expect(tray.getByText(`highest of Highest temperature (${asset})`)).toBeVisible();
  await expect(tray.getByText('Wed 1 Jan 2014 – Wed 31 Dec 2014 (America/Los_Angeles)')).toBeVisible();
  await expect(tray.getByText('365 used, coverage 100.0 %')).toBeVisible();
  await expect(tray.getByText(/seattle-weather\.csv, imported/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('files that cannot be taken are refused with a clear word and leave nothing behind', async ({
  page,
}) => {
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'text/csv', buffer });
  for (const [name, buffer, words] of [
    ['empty.csv', Buffer.alloc(0), 'empty (0 bytes)'],
    ['picture.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]), 'a picture (PNG)'],
    ['page.xls', Buffer.from('<!DOCTYPE html><html></html>'), 'a web page'],
  ] as const) {
    await chooseFile(page, file(name, buffer));
    await expect(page.getByRole('alert')).toContainText(words);
  }
  // Repairable problems are shown and asked about; nothing is stored before they are answered.
  for (const [name, content, words] of [
    ['words.csv', 'name,town\nAnn,Ayr\nBob,Bath\n', /No column says when/],
    ['notes.csv', 'day,note\n2026-01-01,fine\n2026-01-02,wet\n', /No column holds numbers/],
    ['ambiguous.csv', 'day,flow\n03/04/2026,1\n05/06/2026,2\n', /The dates fit several orders/],
    ['headings.csv', 'day,flow\n', /headings but no rows/],
  ] as const) {
    await chooseFile(page, file(name, Buffer.from(content)));
    await expect(page.getByRole('region', { name: 'Answer these first' })).toContainText(words);
    await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
    await expectNoSidewaysScroll(page);
  }
  await page.goto('/data/no-such-page');
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
  await page.getByRole('button', { name: 'Go to On watch' }).click();
  await expect(page.getByRole('heading', { name: 'On watch', level: 1 })).toBeVisible();
});

test('refused rows are told by line, column, value and reason; the good ones are taken', async ({
  page,
}, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  const rows = Array.from(
    { length: 40 },
    (_, i) => `0${1 + (i % 9)}.0${1 + Math.floor(i / 9)}.2026 06:00;${i},5`,
  );
  rows[4] = 'soon;1,5';
  rows[7] = '09.01.2026 07:00;many';
  await chooseFile(page, {
    name: 'messy.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Zeit;Fluss (m³/h)\n${rows.join('\n')}\n`),
  });
  await expect(
    page.getByRole('radiogroup', { name: 'Decimal sign' }).getByRole('radio', { name: 'comma' }),
  ).toBeChecked();
  await page
    .getByRole('group', { name: 'Which number is the day' })
    .getByRole('button', { name: /day first/ })
    .click();
  await page.getByLabel('Name of the asset').fill(`Flow meter ${info.project.name}`);
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '38 samples added' })).toBeVisible();
  await expect(page.getByText('Line 6: not a time in the chosen format')).toBeVisible();
  await expect(page.getByText('Line 9: not a number')).toBeVisible();
  await expect(page.getByText('Fluss: “many”')).toBeVisible();
});

test('two machines in one file stay two, and stored values change only after a question', async ({
  page,
}, info) => {
  await signInAs(page, 'Analyst');
  const plant = `Machines ${info.project.name}`;
  const gas = `Gas ${info.project.name}`;
  const rows = (value: number) =>
    ['06:00', '07:00', '08:00'].flatMap((clock, i) =>
      ['Dryer 1', 'Dryer 2'].map((machine, k) => `2026-11-19 ${clock};${machine};${value + i + 10 * k}`),
    );
  const file = (name: string, value: number) => ({
    name,
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `Zeit;Anlage;${gas} (kWh);Dampf (t)\n${rows(value)
        .map((row) => `${row};1`)
        .join('\n')}\n`,
    ),
  });
  await page.goto('/data/intake');
  await chooseFile(page, file('machines.csv', 1));
  await expect(page.getByRole('button', { name: /^Column Anlage: Name/ }).first()).toBeVisible();
  await expect(
    page.getByRole('img', { name: '7 lines: 6 taken, 0 refused, 0 repeated, 1 left out' }),
  ).toBeVisible();
  await expect(page.getByRole('group', { name: /^Series Dryer \d \/ / })).toHaveCount(4);
  await expectAccessible(page);
  await page.getByLabel('Name of the asset').fill(plant);
  await page.getByLabel('Time zone').fill('Europe/London');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '12 samples added' })).toBeVisible();
  await expectAccessible(page);

  await page.goto('/data/intake');
  await chooseFile(page, file('machines-corrected.csv', 3));
  await expect(page.getByText(`${gas}, Dryer 2, ${plant} (kWh)`)).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '6 values would be corrected' })).toBeVisible();
  await expect(page.getByText(`${plant}: 3 values of 3 in the file`)).toHaveCount(2);
  await expectNoSidewaysScroll(page);
  await page.getByRole('button', { name: 'Keep what is stored, take the rest' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing new in this file' })).toBeVisible();
});
