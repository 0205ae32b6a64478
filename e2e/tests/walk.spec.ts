import { expect, test, type Page } from '@playwright/test';
import type { Readout } from '@vivid-beacon/core';
import { makeReadout } from '../../core/src/boards';
import { expectNoSidewaysScroll, expectRead, serverOf, signInAs, visit } from './helpers';
import { SCREENS } from './screenList';

/* All screens in circumstances that are not the usual ones. */

const MINUTE = 60_000;

/** Opens a screen and waits until it has been read. */
async function open(page: Page, path: string): Promise<void> {
  await visit(page, path);
  await expectRead(page);
}

/**
 * Words that stick out of the screen, and buttons that lie on one another. What can be scrolled sideways, or is cut with an
 * ellipsis, is meant so.
 */
async function expectNothingCutOff(page: Page, path: string): Promise<void> {
  const wrong = await page.evaluate(() => {
    /** The part of an element that its surroundings show; null = none of it. */
    const shown = (element: Element): DOMRect | null => {
      const own = element.getBoundingClientRect();
      let [left, top] = [own.left, Math.max(0, own.top)];
      let [right, bottom] = [own.right, Math.min(innerHeight, own.bottom)];
      for (let each = element.parentElement; each; each = each.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(each);
        const box = each.getBoundingClientRect();
        if (overflowX !== 'visible') [left, right] = [Math.max(left, box.left), Math.min(right, box.right)];
        if (overflowY !== 'visible') [top, bottom] = [Math.max(top, box.top), Math.min(bottom, box.bottom)];
      }
      return right - left > 1 && bottom - top > 1 ? new DOMRect(left, top, right - left, bottom - top) : null;
    };
    const scrolls = (element: Element | null): boolean => {
      for (let each = element; each; each = each.parentElement) {
        const { overflowX } = getComputedStyle(each);
        if ((overflowX === 'auto' || overflowX === 'scroll') && each.scrollWidth > each.clientWidth + 1)
          return true;
      }
      return false;
    };
    const out: string[] = [];
    for (const element of document.querySelectorAll('[dir="auto"]')) {
      if (!shown(element) || scrolls(element)) continue;
      const box = element.getBoundingClientRect();
      const text = (element.textContent ?? '').slice(0, 60);
      if (box.right > innerWidth + 1 || box.left < -1) out.push(`sticks out: ${text}`);
      const style = getComputedStyle(element);
      const clipped =
        style.overflowX === 'hidden' && style.textOverflow !== 'ellipsis' && style.webkitLineClamp === 'none';
      if (clipped && element.scrollWidth > element.clientWidth + 1) out.push(`cut off: ${text}`);
    }
    const buttons = [...document.querySelectorAll('[role="button"], button, [role="radio"]')].flatMap(
      (element) => {
        const box = shown(element);
        // Parts of a drawing are buttons for screen readers only.
        const isPressed = getComputedStyle(element).pointerEvents !== 'none';
        return box && isPressed && !scrolls(element) ? [{ element, box }] : [];
      },
    );
    for (const [i, a] of buttons.entries()) {
      for (const b of buttons.slice(i + 1)) {
        if (a.element.contains(b.element) || b.element.contains(a.element)) continue;
        const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        const name = (each: Element): string => each.getAttribute('aria-label') ?? each.textContent ?? '';
        if (wide > 4 && high > 4) out.push(`on one another: ${name(a.element)} / ${name(b.element)}`);
      }
    }
    return out.slice(0, 8);
  });
  expect(wrong, path).toEqual([]);
  await expectNoSidewaysScroll(page);
}

test('with the role of a viewer nothing is offered that would be refused', async ({ page }) => {
  test.slow();
  await signInAs(page, 'Manager');
  const refused: string[] = [];
  page.on('response', (answer) => {
    if (answer.status() === 403) refused.push(`${answer.request().method()} ${answer.url()}`);
  });
  for (const path of SCREENS) {
    await open(page, path);
    await expectNothingCutOff(page, path);
    await expect(
      page.getByRole('button', {
        // Boards of one's own are for everybody.
        name: /^(?!Change (how you|the password)|New board)(Add|New|Edit|Change|Remove|Withdraw|Import|Intake|Put in force|Shelve|Restore|Acknowledge|Undo|Flag)\b/,
      }),
      path,
    ).toHaveCount(0);
  }
  expect(refused).toEqual([]);
});

test('at 200 % nothing is cut off, and a board has half of the height', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a wide sheet is zoomed into');
  test.slow();
  await page.setViewportSize({ width: 640, height: 400 });
  await signInAs(page, 'Analyst');
  for (const path of SCREENS) {
    await open(page, path);
    await expectNothingCutOff(page, path);
  }
  await open(page, '/boards/1');
  const height = await page.evaluate(() => {
    const readout = document.querySelector('[role="region"]');
    let scrolled = readout?.parentElement ?? null;
    while (scrolled && !['auto', 'scroll'].includes(getComputedStyle(scrolled).overflowY))
      scrolled = scrolled.parentElement;
    return scrolled?.clientHeight ?? 0;
  });
  expect(height).toBeGreaterThanOrEqual(200);
});

test('names of 120 characters, and names written from right to left, fit everywhere', async ({
  page,
  baseURL,
}, info) => {
  test.slow();
  await signInAs(page, 'Analyst');
  const send = serverOf(page);
  const { token } = await send<{ token: string }>('POST', '/api/push-tokens', {
    name: `Names ${info.project.name}`,
  });
  for (const [kind, word] of [
    ['long', 'Heissmangel-Dampfdruckueberwachung '],
    ['rtl', 'מכבש הקיטור הגדול של המכבסה '],
  ] as const) {
    const name = `${word.repeat(9)}${info.project.name}`.slice(-120).trim();
    const plant = await send('POST', '/api/assets', { name, kind: 'plant', zone: 'Europe/London' });
    const metric = await send<{ id: string; key: string }>('POST', '/api/metrics', {
      assetId: plant.id,
      name,
      unit: 'bar',
      kind: 'level',
      intervalMs: MINUTE,
    });
    const now = Date.now();
    await page.request.post(`${baseURL}/api/samples`, {
      headers: { authorization: `Bearer ${token}` },
      data: {
        samples: Array.from({ length: 90 }, (_, i) => ({
          metric: metric.key,
          t: now - i * MINUTE,
          v: 5 + (i % 4),
        })),
      },
    });
    const measures = [{ metricId: metric.id, summary: 'mean' as const, per: null }];
    const band = { direction: 'lower' as const, caution: 6, breach: 7, target: 5 };
    const of = (id: string, form: Readout['form'], more = measures): Readout =>
      makeReadout(id, form, { measures: more, band, title: id === 'r1' ? name : null });
    const board = await send('POST', '/api/boards', {
      title: name.slice(0, 120),
      document: {
        version: 3,
        window: { kind: 'rolling', count: 2, unit: 'hour' },
        scope: { assetIds: [plant.id], attributes: [] },
        hours: null,
        readouts: [
          of('r1', 'gauge'),
          of('r2', 'lamp'),
          of('r3', 'figure'),
          of('r4', 'straight'),
          of('r5', 'trend', [...measures, { metricId: '1', summary: 'mean', per: null }]),
        ],
      },
    });
    const indicator = await send('POST', '/api/indicators', {
      name,
      assetId: plant.id,
      measure: measures[0],
      window: { kind: 'rolling', count: 1, unit: 'hour' },
      judge: { kind: 'limits', band },
      target: { kind: 'none' },
      reference: { kind: 'before' },
      decimals: 1,
    });
    for (const path of [
      ...[
        '/',
        '/boards',
        `/boards/${board.id}`,
        `/boards/${board.id}/readouts/r1`,
        `/boards/${board.id}/readouts/r5`,
      ],
      ...[
        '/alarms',
        '/handover',
        '/indicators',
        `/indicators/${indicator.id}`,
        `/indicators/${indicator.id}/edit`,
      ],
      ...[
        '/losses',
        '/data',
        `/data/assets/${plant.id}`,
        `/data/metrics/${metric.id}`,
        '/data/feeds',
        '/data/logs',
      ],
      '/data/calendars',
    ]) {
      await open(page, path);
      await expectNothingCutOff(page, `${kind} ${path}`);
    }
  }
});
