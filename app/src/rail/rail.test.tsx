import fc from 'fast-check';
import { fireEvent, screen } from '@testing-library/react';
import type { LevelSpan, WindowSpec } from '@vivid-beacon/core';
import { renderScreen } from '../testing/renderScreen';
import { absoluteWindow, RAIL_WINDOWS, railDomain, railUnits, railWord } from './railWindows';
import { TimeRail } from './TimeRail';

jest.setTimeout(30_000);
jest.mock('../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const NOW = Date.UTC(2026, 10, 19, 12);

describe('windows of the rail', () => {
  it.each(Object.entries(RAIL_WINDOWS))('%s has a word', (word, window) => {
    expect(railWord(window)).toBe(word);
  });

  it('has no word for others', () => {
    expect(railWord({ kind: 'rolling', count: 3, unit: 'hour' })).toBe('custom');
  });

  it.each([
    [1, 'hour', HOUR / 4],
    [7, 'day', 6 * HOUR],
    [31, 'week', DAY],
    [365, 'month', 7 * DAY],
  ])('of %d days are drawn by the %s', (days, bar, tickMs) => {
    expect(railUnits({ start: NOW - days * DAY, end: NOW })).toEqual({ bar, tickMs });
  });

  it('have room around them, more before than after', () => {
    const { start, end } = railDomain({ start: NOW - 6 * HOUR, end: NOW });
    expect(NOW - 6 * HOUR - start).toBe(HOUR);
    expect(end - NOW).toBe(HOUR / 3);
  });

  it('are snapped to ticks of the local day and never empty', () => {
    const written = fc.record({
      start: fc.integer({ min: 0, max: 400 * DAY }).map((t) => NOW - t),
      length: fc.integer({ min: -DAY, max: 40 * DAY }),
      tickMs: fc.constantFrom(HOUR / 4, 6 * HOUR, DAY),
    });
    fc.assert(
      fc.property(written, ({ start, length, tickMs }) => {
        const window = absoluteWindow(start, start + length, tickMs, 'Asia/Kathmandu');
        if (window.kind !== 'absolute') throw new Error('not absolute');
        const [from, to] = [window.start, window.end].map((text) => Date.parse(`${text}+05:45`));
        expect(to - from).toBeGreaterThanOrEqual(tickMs);
        expect(Math.abs(from - start)).toBeLessThanOrEqual(tickMs / 2);
        expect((from + 5.75 * HOUR) % tickMs).toBe(0);
      }),
    );
  });
});

const TODAY: WindowSpec = { kind: 'toDate', unit: 'day' };

function show(window: WindowSpec = TODAY, part: Partial<Parameters<typeof TimeRail>[0]> = {}) {
  const onChange = jest.fn();
  const onDomain = jest.fn();
  const view = renderScreen(
    <TimeRail
      window={window}
      zone="UTC"
      now={NOW}
      spans={[]}
      onChange={onChange}
      onDomain={onDomain}
      {...part}
    />,
  );
  return { ...view, onChange, onDomain };
}

describe('the rail', () => {
  it('sets the window of everything by a word', async () => {
    const { person, onChange } = show();
    expect(screen.getByRole('radio', { name: 'Today' }).getAttribute('aria-checked')).toBe('true');
    await person.click(screen.getByRole('radio', { name: '7 days' }));
    expect(onChange).toHaveBeenLastCalledWith(RAIL_WINDOWS.week);
  });

  it('is set by a divider that is dragged, to the time it is let go at', () => {
    HTMLElement.prototype.setPointerCapture ??= () => undefined;
    const { onChange } = show({ kind: 'absolute', start: '2026-11-18T00:00', end: '2026-11-19T00:00' });
    const [start] = screen.getAllByRole('slider');
    const { min, max, from } = {
      min: Number(start.getAttribute('aria-valuemin')),
      max: Number(start.getAttribute('aria-valuemax')),
      from: Number(start.getAttribute('aria-valuenow')),
    };
    for (const [kind, clientX] of [
      ['pointerdown', 100],
      ['pointermove', 140],
      ['pointerup', 140],
    ] as const)
      fireEvent(start, new MouseEvent(kind, { bubbles: true, clientX }));
    const { start: set, end } = onChange.mock.lastCall[0];
    expect(end).toMatch(/^2026-11-19T00:00/);
    expect(Date.parse(`${set}Z`)).toBeGreaterThan(from);
    expect(max).toBeGreaterThan(min);
  });

  it('goes to the window before, and to the one after only where there is one', async () => {
    const yesterday: WindowSpec = { kind: 'absolute', start: '2026-11-18T00:00', end: '2026-11-19T00:00' };
    const { person, onChange } = show(yesterday);
    await person.click(screen.getByRole('button', { name: 'Window before' }));
    expect(onChange).toHaveBeenLastCalledWith({
      kind: 'absolute',
      start: '2026-11-17T00:00:00',
      end: '2026-11-18T00:00:00',
    });
    await person.click(screen.getByRole('button', { name: 'Window after' }));
    expect(onChange).toHaveBeenLastCalledWith({
      kind: 'absolute',
      start: '2026-11-19T00:00:00',
      end: '2026-11-20T00:00:00',
    });
  });

  it('does not go beyond now', () => {
    show({ kind: 'absolute', start: '2026-11-19T00:00', end: '2026-11-20T00:00' });
    expect(screen.getByRole('button', { name: 'Window after' }).getAttribute('aria-disabled')).toBe('true');
  });

  it('tells for how long something was in Breach inside the window', () => {
    const midnight = Date.UTC(2026, 10, 19);
    const spans: LevelSpan[] = [
      { start: midnight - HOUR, end: midnight + HOUR, level: 'breach' },
      { start: midnight + 3 * HOUR, end: midnight + 5 * HOUR, level: 'breach' },
      { start: midnight + 6 * HOUR, end: midnight + 7 * HOUR, level: 'caution' },
      { start: midnight - 9 * HOUR, end: midnight - 8 * HOUR, level: 'breach' },
    ];
    show(TODAY, { spans });
    expect(screen.getByRole('status').textContent).toMatch(/3\sh in Breach$/);
  });

  it('says that there was none, or what it is told to say', () => {
    const { unmount } = show();
    expect(screen.getByRole('status').textContent).toBe('no breach');
    unmount();
    show(TODAY, { told: 'reading the levels' });
    expect(screen.getByRole('status').textContent).toBe('reading the levels');
  });

  it('asks for the levels of a little more than the window, in whole hours', () => {
    const { onDomain } = show();
    const { start, end } = onDomain.mock.lastCall[0];
    expect(start % HOUR).toBe(0);
    expect(end % HOUR).toBe(0);
    expect(start).toBeLessThan(Date.UTC(2026, 10, 19));
    expect(end).toBeGreaterThanOrEqual(NOW);
  });

  it('takes a window of two local times, the end after the start', async () => {
    const { person, onChange } = show({
      kind: 'absolute',
      start: '2026-11-18T06:00',
      end: '2026-11-18T14:00',
    });
    await person.click(screen.getByRole('radio', { name: 'Custom' }));
    const to = await screen.findByLabelText<HTMLInputElement>('To');
    const look = screen.getByRole('button', { name: 'Show this window' });
    fireEvent.change(to, { target: { value: '2026-11-18T05:00' } });
    expect(await screen.findByText('must lie after the start')).toBeTruthy();
    expect(look.getAttribute('aria-disabled')).toBe('true');
    fireEvent.change(to, { target: { value: '2026-11-18T15:30' } });
    await person.click(look);
    expect(onChange).toHaveBeenLastCalledWith({
      kind: 'absolute',
      start: '2026-11-18T06:00:00',
      end: '2026-11-18T15:30:00',
    });
    expect(screen.queryByRole('button', { name: 'Show this window' })).toBeNull();
  });

  it('is only the border while it is folded', () => {
    show(TODAY, { folded: true });
    expect(screen.queryByRole('radio', { name: 'Today' })).toBeNull();
    expect(screen.queryByRole('status')).toBeNull();
    expect(screen.getByRole('region', { name: 'Time rail' })).toBeTruthy();
  });
});
