import { createRequire } from 'node:module';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Signs in as one of the demo accounts that the sign-in screen offers. */
export async function signInAs(page: Page, duty: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: new RegExp(`^Sign in as ${duty}`) }).click();
  await expectFirstScreen(page);
}

/** The first screen after signing in; like any page that is loaded anew it may take as long as a navigation. */
export async function expectFirstScreen(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { name: 'On watch', level: 1 })).toBeVisible({ timeout: 60_000 });
}

/** A file of an open data set from a package: daily weather of Seattle, NOAA (vega-datasets). */
export function openData(file: string): string {
  const main = createRequire(import.meta.url).resolve('vega-datasets');
  const root = main.slice(0, main.lastIndexOf('vega-datasets/build'));
  return path.join(root, 'vega-datasets', 'data', file);
}

/** No violation of WCAG 2.2 A and AA that axe-core can find. @param rules only these, where only they can differ. */
export async function expectAccessible(page: Page, rules?: readonly string[]): Promise<void> {
  // Without frames of other origins, the results need no page of their own to be put together in.
  const axe = new AxeBuilder({ page }).setLegacyMode();
  const { violations } = await (
    rules ? axe.withRules([...rules]) : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  expect(
    violations.map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 3)
          .map(({ html }) => html.slice(0, 160))
          .join(' | ')}`,
    ),
  ).toEqual([]);
}

/** The page does not scroll sideways. */
export async function expectNoSidewaysScroll(page: Page): Promise<void> {
  const extra = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(extra).toBeLessThanOrEqual(0);
}

export type Send = <T = { id: string }>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: object,
) => Promise<T>;

/** Calls the server with the session of the page. */
export function serverOf(page: Page): Send {
  return async (method, path, body) =>
    page.evaluate(
      async ([method, path, body]) => {
        const session = await (await fetch('/api/session')).json();
        const answer = await fetch(path, {
          method,
          headers: { 'content-type': 'application/json', 'x-form-token': session.csrfToken },
          body: body && JSON.stringify(body),
        });
        if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
        return answer.status === 204 ? undefined : answer.json();
      },
      [method, path, body] as const,
    );
}

/** Nothing on the page is drawn or written from NaN or an infinite number. */
export async function expectRealNumbers(page: Page): Promise<void> {
  const wrong = await page.evaluate(() => {
    const bad = /NaN|Infinity|undefined/;
    const drawn = [...document.querySelectorAll('svg *')].flatMap((element) =>
      [...element.attributes]
        .filter(({ value }) => bad.test(value))
        .map(({ name, value }) => `${name}=${value}`),
    );
    const written = document.body.innerText.split('\n').filter((line) => bad.test(line));
    return [...drawn, ...written].slice(0, 10);
  });
  expect(wrong).toEqual([]);
}

/**
 * Opens another screen of the running app, as a link does: no page is loaded anew, which takes most of the time of `goto`.
 * Resolves when the page has begun to change.
 */
export async function visit(page: Page, path: string): Promise<void> {
  await page.evaluate(
    (to) =>
      new Promise<void>((resolve) => {
        const changes = new MutationObserver(() => {
          changes.disconnect();
          requestAnimationFrame(() => requestAnimationFrame(() => resolve()));
        });
        changes.observe(document.body, { childList: true, subtree: true, attributes: true });
        history.pushState(null, '', to);
        dispatchEvent(new PopStateEvent('popstate', { state: null }));
        setTimeout(resolve, 2000);
      }),
    path,
  );
}

/** The screen that is open has read what it shows. */
export async function expectRead(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByText(/^(Reading|Opening|Loading|Running)/)).toHaveCount(0);
}
