import { readFile } from 'node:fs/promises';
import ExcelJS from 'exceljs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, signInAs } from './helpers';

interface TestFile {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}

const choose = (page: Page, ...files: TestFile[]) => page.locator('input[type=file]').setInputFiles(files);
const text = (name: string, lines: readonly string[], encoding: BufferEncoding = 'utf8'): TestFile => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(lines.join('\r\n'), encoding),
});
const chosen = (page: Page, group: string, word: string) =>
  expect(
    page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: word, exact: true }),
  ).toBeChecked();

/** A report as people print it: title rows, Latin-1, decimal commas, a repeated hour, blanks, a bad cell, a total. */
function report(name: string, mark: string): TestFile {
  const rows = ['00:00', '00:30', '01:00', '01:30', '01:00', '01:30', '02:00'].map(
    (clock, i) => `25.10.2026 ${clock};1.20${i},5;${i === 2 ? '-' : `${i},25`}`,
  );
  return text(
    name,
    [
      'Energiebericht Größe 1',
      'Site:;Quayside',
      '',
      `Zeit;Gas ${mark} [kWh];Dampf [t/h]`,
      ...rows,
      '25.10.2026 02:30;defekt;1,0',
      'Summe;8.424,5;21,5',
    ],
    'latin1',
  );
}

async function workbook(mark: string): Promise<TestFile> {
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Notes').addRow(['Readings of October']);
  const sheet = book.addWorksheet('Dryers');
  sheet.addRow(['Dryer 1', null, 'Dryer 2', null]);
  sheet.mergeCells('A1:B1');
  sheet.mergeCells('C1:D1');
  sheet.addRow(['Time', 'Gas (kWh)', `Time ${mark}`, 'Gas (kWh)']);
  for (let i = 0; i < 24; i++) {
    const t = new Date(Date.UTC(2026, 9, 20, i));
    sheet.addRow([t, 20 + i / 4, t, i === 3 ? { error: '#N/A' } : 30 + i / 4]);
  }
  const buffer = Buffer.from(await book.xlsx.writeBuffer());
  return {
    name: 'dryers.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer,
  };
}

test('a messy report is recognised, taken row by row, remembered, and can be undone', async ({
  page,
}, info) => {
  const asset = `Meters ${info.project.name}`;
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  await choose(page, report('report.csv', info.project.name));
  await chosen(page, 'Between columns', 'semicolon');
  await chosen(page, 'Decimal sign', 'comma');
  await expect(page.getByRole('radiogroup', { name: 'How times are written' })).toContainText('day first');
  await expect(page.getByLabel('Rows above the headings')).toHaveValue('2');
  await expectNoSidewaysScroll(page);
  await page.getByLabel('Name of the asset').fill(asset);
  await page.getByLabel('Time zone').fill('Europe/London');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '14 samples added' })).toBeVisible();
  // 2 lines above the headings, the headings themselves, a total and a blank line hold no data.
  await expect(page.getByText(/1 as totals of the rows above/)).toBeVisible();
  await expect(
    page.getByText(/1 blank cell left as missing, 4 times in the hour that a clock change repeats/),
  ).toBeVisible();
  await expect(page.getByText('Line 12: not a number')).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download the balance' }).click();
  const refused = await readFile(await (await waiting).path(), 'utf8');
  expect(refused).toContain(`report.csv,refused,12,Gas ${info.project.name},defekt,not a number`);
  expect(refused).toContain('lines of the file');

  // The next file with the same layout is mapped automatically.
  await page.goto('/data/intake');
  await choose(page, report('report-again.csv', info.project.name));
  await expect(page.getByText(/Read and mapped like report\.csv/)).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Nothing new in this file' })).toBeVisible();

  await page.goto('/data/files');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Undo report.csv', exact: true }).first().click();
  await expect(page.getByText(/Undone: 14 samples taken away/)).toBeVisible();
});

test('several files at once: a spreadsheet with merged headings, then one row per sample with a doubtful date', async ({
  page,
}, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  const long = text('long.csv', [
    `timestamp,tag,value ${info.project.name},unit`,
    ...Array.from(
      { length: 12 },
      (_, i) =>
        `03/04/2026 ${String(i).padStart(2, '0')}:00,${['Flow', 'Temp'][i % 2]},${i}.5,${['m3/h', '°C'][i % 2]}`,
    ),
  ]);
  await choose(page, await workbook(info.project.name), long);
  await expect(page.getByText('Then long.csv.')).toBeVisible();
  await chosen(page, 'Sheet', 'Dryers');
  await expect(page.getByRole('button', { name: /^Column Dryer \d Time.*: Time/ })).toHaveCount(4);
  await expect(page.getByRole('group', { name: 'Series Dryer 2 Gas' })).toBeVisible();
  await page.getByLabel('Name of the asset').fill(`Two dryers ${info.project.name}`);
  await page.getByLabel('Time zone').fill('Europe/Berlin');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '47 samples added' })).toBeVisible();
  await page.getByRole('button', { name: 'Next file (1 left)' }).click();

  await expect(page.getByRole('button', { name: /^Column tag: Name/ }).first()).toBeVisible();
  await expect(page.getByText(/The dates fit several orders/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  await page
    .getByRole('group', { name: 'Which number is the day' })
    .getByRole('button', { name: /^month first/ })
    .click();
  await expect(page.getByRole('group', { name: 'Series Temp' })).toBeVisible();
  await page.getByLabel('Name of the asset').fill(`Line ${info.project.name}`);
  await page.getByLabel('Time zone').fill('Europe/Berlin');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('heading', { name: '12 samples added' })).toBeVisible();
});

test('files that cannot be read say why, and nothing is taken', async ({ page }) => {
  await signInAs(page, 'Analyst');
  await page.goto('/data/intake');
  const alert = page.getByRole('alert');
  await choose(
    page,
    text('wide.csv', [Array(10_001).fill('a').join(','), `2026-01-01,${Array(10_000).fill('1').join(',')}`]),
  );
  await expect(alert).toContainText('10001 columns');
  await choose(page, {
    name: 'line.csv',
    mimeType: 'text/csv',
    buffer: Buffer.concat([Buffer.from('t,v\n2026-01-01,"'), Buffer.alloc(30_000_000, 97)]),
  });
  await expect(page.getByRole('button', { name: 'Import', exact: true }).or(alert)).toBeVisible();
  await choose(page, { name: 'empty.csv', mimeType: 'text/csv', buffer: Buffer.alloc(0) });
  await expect(alert).toContainText('empty (0 bytes)');
  await choose(page, {
    name: 'picture.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]),
  });
  await expect(alert).toContainText('a picture (PNG)');
  await choose(page, {
    name: 'fake.xlsx',
    mimeType: 'application/zip',
    buffer: Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]),
  });
  await expect(alert).toContainText(/cut off|damaged|no spreadsheet/);
});

test('an asset is added, found and moved; a metric shows samples, coverage and its settings', async ({
  page,
}, info) => {
  const wide = info.project.name === 'wide';
  const name = `Kettle ${info.project.name}`;
  await signInAs(page, 'Analyst');
  await page.goto('/data');
  await page.getByLabel('Search assets').fill('Ironer 2');
  await expect(page.getByRole('tree', { name: 'Assets' }).getByText('Ironer 1')).toHaveCount(0);
  await page.getByLabel('Search assets').fill('');
  await page.getByRole('button', { name: 'Add asset', exact: true }).click();
  const tray = page.getByRole('dialog').last();
  await tray.getByLabel('Name of the asset').fill(name);
  await tray.getByLabel(/^Kind, such as/).fill('meter');
  await tray.getByLabel(/^Attributes/).fill('Floor area (m²): 12,5\nwrong');
  await expect(tray.getByText('Line 2 must be a name, a colon and a value')).toBeVisible();
  await tray.getByLabel(/^Attributes/).fill('Floor area (m²): 12,5');
  if (!wide) await tray.getByLabel('Time zone').fill('Europe/London');
  await tray.getByRole('button', { name: 'Add asset', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByLabel('Search assets').fill(name);
  await page
    .getByRole('tree')
    .getByRole('link', { name: new RegExp(name) })
    .click();
  await expect(page.getByText('12.5', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Edit asset' }).click();
  await page.getByRole('dialog').last().getByRole('button', { name: 'Move' }).click();
  await page.getByRole('dialog').last().getByLabel('Search parent').fill('Upper Weir Desks');
  await page.getByRole('dialog').last().getByRole('radio', { name: /Desks/ }).first().click();
  await page.getByRole('dialog').last().getByRole('button', { name: 'Save asset' }).click();
  await expect(page.getByText(/Upper Weir \/ Desks/).first()).toBeVisible();
  await page
    .getByRole('radiogroup', { name: 'Add a metric' })
    .getByRole('radio', { name: 'from samples' })
    .click();
  await page.getByRole('dialog').last().getByLabel('Name of the metric').fill('Heat');
  await page.getByRole('dialog').last().getByLabel('Unit', { exact: true }).fill('kWh');
  await page.getByRole('dialog').last().getByRole('button', { name: 'Add metric' }).click();
  await expect(page.getByText('nothing has come yet')).toBeVisible();

  await page.goto('/data/feeds');
  await expectAccessible(page);
  await page.getByRole('radio', { name: /^Silent/ }).click();
  await expect(page.getByText('Steam flow, Steam meter S-03')).toBeVisible();
  await page.getByRole('radio', { name: /^All/ }).click();
  await page.getByLabel('Search metrics').fill('quayside ironer-2 bed-temperature');
  await page.getByRole('link', { name: /Bed temperature, Ironer 2 Quayside/ }).click();
  await expect(page.getByRole('slider', { name: 'Coverage by day' })).toBeVisible();
  await expect(page.getByText(/10,0\d\d samples, times of Europe\/London/)).toBeVisible();
  await page.getByRole('slider', { name: 'Coverage by day' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText(/ covered, [\d,]+ samples/)).toBeVisible();
  const table = page.getByRole('table', { name: 'Samples of Bed temperature' });
  await table.getByRole('rowgroup').evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await expect(table.getByText('reading')).toHaveCount(0);
  await expect(table.getByText('good').first()).toBeVisible();
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
});

test('a derived metric is written with help, its units are checked, and it can be read', async ({
  page,
}, info) => {
  const name = `Gas per kg ${info.project.name}`;
  await signInAs(page, 'Analyst');
  await page.goto('/data');
  await page.getByLabel('Search assets').fill('Dryer 3');
  await page
    .getByRole('tree')
    .getByRole('link', { name: /^Dryer 3/ })
    .first()
    .click();
  await page.getByRole('radio', { name: 'derived from others' }).click();
  const pick = async (metric: RegExp): Promise<void> => {
    await page.getByRole('button', { name: 'Add a metric or number' }).click();
    await page.getByRole('dialog').last().getByRole('radio', { name: metric }).first().click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await pick(/^Gas used, Dryer 3/);
  const expression = page.getByRole('textbox', { name: 'Expression' });
  await expect(expression).toHaveValue('gas_used');
  await expression.fill('gas_used + ');
  await pick(/^Dried weight, Dryer 3/);
  await expect(page.getByText('kWh and kg measure different things')).toBeVisible();
  await expression.fill('gas_used / dried_weight');
  await expect(page.getByText('kWh/kg over the last 24 h')).toBeVisible();
  await expression.fill('gas_used / dried_weight + ro');
  await expect(page.getByRole('button', { name: /^round\(x, decimals\)/ })).toBeVisible();
  await expression.fill('gas_used / dried_weight');
  await page.getByLabel('Name of the metric').fill(name);
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save derived metric' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  await expect(page.getByText('gas_used / dried_weight')).toBeVisible();
});

test('a stop is entered with a thumb and ended later; jobs show the time that counts', async ({
  page,
}, info) => {
  const reason = `Belt off ${info.project.name}`;
  await signInAs(page, 'Shift lead');
  await page.goto('/data/logs');
  await page.getByRole('button', { name: 'Enter a stop' }).click();
  const tray = page.getByRole('dialog').last();
  await tray.getByLabel('Search asset that stopped').fill('Quayside Ironer 1');
  await tray.getByRole('radio', { name: /Ironer 1/ }).click();
  await tray.getByRole('radio', { name: '15 min ago' }).click();
  await tray.getByLabel('Reason of the stop').fill(reason);
  await tray.getByRole('button', { name: 'Enter stop' }).click();
  await expect(page.getByRole('link', { name: new RegExp(`${reason}.*still stopped`) })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: new RegExp(reason) }).click();
  await tray.getByRole('radio', { name: 'running again' }).click();
  await tray.getByRole('button', { name: 'Save stop' }).click();
  await expect(page.getByRole('link', { name: new RegExp(`${reason}.*for 1[56] min`) })).toBeVisible();
  await page.getByRole('radio', { name: 'Jobs' }).click();
  await expect(page.getByText(/\d+ open of \d+/)).toBeVisible();
  await page
    .getByRole('link', { name: /Customer desk/ })
    .first()
    .click();
  await expect(tray.getByText(/in working hours and our own statuses/)).toBeVisible();
});

test('a working calendar takes a shift over midnight and public holidays', async ({ page }, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/data/calendars');
  await page.getByRole('radio', { name: info.project.name === 'wide' ? 'Upper Weir' : 'Quayside' }).click();
  await page.getByRole('button', { name: 'Add a shift' }).click();
  await page.getByLabel('From', { exact: true }).last().fill('22:00');
  await page.getByLabel('To', { exact: true }).last().fill('late');
  await expect(page.getByText('such as 14:00')).toBeVisible();
  await page.getByLabel('To', { exact: true }).last().fill('06:00');
  await page.getByRole('button', { name: 'Public holidays' }).click();
  await page.getByRole('dialog').last().getByLabel('Search country').fill('Austria');
  await page
    .getByRole('dialog')
    .last()
    .getByRole('radio', { name: /Austria/ })
    .click();
  await page
    .getByRole('dialog')
    .last()
    .getByRole('button', { name: /^Take holidays of/ })
    .click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Save calendar' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
});
