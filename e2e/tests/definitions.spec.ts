import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import type { DefinitionsFile } from '../../core/src';
import { expectAccessible, serverOf, signInAs } from './helpers';

/** What a button hands out as a file. */
async function fileOf(page: Page, button: string): Promise<DefinitionsFile> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: button }).click();
  return JSON.parse(readFileSync(await (await waiting).path(), 'utf8')) as DefinitionsFile;
}

async function choose(page: Page, file: DefinitionsFile): Promise<void> {
  await page.getByLabel('File of rules and indicators').setInputFiles({
    name: 'definitions.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
}

test('rules and indicators go out as files and come in again, each told', async ({ page }, info) => {
  await signInAs(page, 'Analyst');
  await page.goto('/alarms');
  await expect(page.getByRole('button', { name: 'Rules as a file' })).toBeVisible();
  const rules = await fileOf(page, 'Rules as a file');
  expect(rules.rules.length).toBeGreaterThan(0);
  await page.goto('/indicators');
  const indicators = await fileOf(page, 'Indicators as a file');
  expect(indicators.definitions.length).toBeGreaterThan(0);

  // The same again is here already, all of it.
  await page.getByRole('button', { name: 'From a file' }).click();
  await choose(page, { ...rules, definitions: [] });
  const n = rules.rules.length;
  await expect(page.getByText(`${n} are here already, left as they are.`)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Make / })).toHaveCount(0);
  await expectAccessible(page);

  // Under other names they are made; an indicator first, and a rule that judges it.
  const [first] = indicators.definitions;
  const name = `Copied ${info.project.name}`;
  const monthly = rules.rules.find(({ over }) => !over) ?? rules.rules[0];
  await choose(page, {
    ...indicators,
    definitions: [{ ...first, definition: { ...first.definition, name } }],
    rules: [{ ...monthly, name }],
    metrics: [...rules.metrics, ...indicators.metrics],
    assets: [...rules.assets, ...indicators.assets],
    people: rules.people,
  });
  await expect(page.getByText('2 can be made.')).toBeVisible();
  await page.getByRole('button', { name: 'Make 2 of 2' }).click();
  await expect(page.getByText('2 made.')).toBeVisible();

  const send = serverOf(page);
  const named = async (path: string): Promise<{ id: string; name: string }[]> => {
    const answer = await page.request.get(`${path}?search=${encodeURIComponent(name)}`);
    return ((await answer.json()) as { items: { id: string; name: string }[] }).items;
  };
  for (const path of ['/api/indicators', '/api/alarm-rules']) {
    const made = await named(path);
    expect(made.map((each) => each.name)).toEqual([name]);
    await send('DELETE', `${path}/${made[0].id}`);
  }
});
