import { WHOLE_SCOPE, type BoardDocument, type Readout, type ReadoutForm } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { absoluteWindow, railDomain, railWord, RAIL_WINDOWS } from '../rail/railWindows';
import { firstBand } from '../bands/firstBand';
import { createReadoutDraftStore } from '../stores/readoutDraftStore';
import { freshId, moveReadout, placeReadout, removeReadout } from './boardEdits';
import { gridRows } from './boardGrid';
import { dueWords } from '../screens/dueWords';

const readout = (id: string, form: ReadoutForm = 'gauge'): Readout => ({
  ...emptyReadout(id, form),
  measures: [{ metricId: '1', summary: 'mean', per: null }],
});
const board = (...ids: string[]): BoardDocument => ({
  version: BOARD_FORMAT_VERSION,
  window: RAIL_WINDOWS.week,
  scope: WHOLE_SCOPE,
  hours: null,
  readouts: ids.map((id) => readout(id)),
});
const ids = (document: BoardDocument): string[] => document.readouts.map(({ id }) => id);

describe('board edits', () => {
  it('place, move and remove readouts and leave the rest as it was', () => {
    expect(ids(placeReadout(board('a'), readout('b')))).toEqual(['a', 'b']);
    expect(placeReadout(board('a', 'b'), { ...readout('a'), title: 'New' }).readouts[0].title).toBe('New');
    expect(ids(moveReadout(board('a', 'b', 'c'), 'c', -1))).toEqual(['a', 'c', 'b']);
    expect(ids(moveReadout(board('a', 'b'), 'a', -1))).toEqual(['a', 'b']);
    expect(ids(removeReadout(board('a', 'b'), 'a'))).toEqual(['b']);
    expect(freshId(board('r1', 'r3'))).toBe('r4');
  });
});

describe('gridRows', () => {
  it('fills every row that has a trend, keeps the order, and never overfills', () => {
    const forms: ReadoutForm[] = ['gauge', 'gauge', 'trend', 'lamp', 'figure', 'trend', 'gauge'];
    const readouts = forms.map((form, i) => readout(`r${i}`, form));
    for (const wide of [true, false]) {
      const rows = gridRows(readouts, wide);
      expect(rows.flat().map(({ readout: { id } }) => id)).toEqual(readouts.map(({ id }) => id));
      for (const cells of rows) {
        const used = cells.reduce((sum, { span }) => sum + span, 0);
        expect(used).toBeLessThanOrEqual(wide ? 12 : 2);
        if (cells.some((cell) => cell.readout.form === 'trend')) expect(used).toBe(wide ? 12 : 2);
      }
    }
  });
});

describe('rail windows', () => {
  it('know the word of a window whatever the order of its parts', () => {
    expect(railWord({ current: true, unit: 'day', count: 7, kind: 'periods' })).toBe('week');
    expect(railWord({ kind: 'rolling', count: 3, unit: 'day' })).toBe('custom');
  });

  it('snap to local ticks and never to nothing', () => {
    const noon = Date.UTC(2026, 5, 1, 11, 20);
    expect(absoluteWindow(noon, noon, 6 * 3_600_000, 'Europe/London')).toEqual({
      kind: 'absolute',
      start: '2026-06-01T12:00',
      end: '2026-06-01T18:00',
    });
  });

  it('span the window with room around it', () => {
    expect(railDomain({ start: 600, end: 1200 })).toEqual({ start: 500, end: expect.closeTo(1233.33, 1) });
  });
});

describe('readout draft', () => {
  const metric = {
    id: '7',
    kind: 'level',
    intervalMs: 60_000,
    last: null,
    health: { state: 'reporting', quietMs: 0 },
  } as never;

  it('keeps everything when the form changes', () => {
    const store = createReadoutDraftStore('r1', null);
    store.getState().actions.chooseMetric(metric);
    store.getState().actions.change({ title: 'Mine', window: { kind: 'toDate', unit: 'day' } });
    store.getState().actions.chooseForm('trend');
    expect(store.getState().readout).toMatchObject({
      id: 'r1',
      form: 'trend',
      title: 'Mine',
      window: { unit: 'day' },
      measures: [{ metricId: '7', summary: 'mean' }],
    });
  });

  it('drops the band with the metric it was made for', () => {
    const store = createReadoutDraftStore('r1', {
      ...readout('r1'),
      band: { direction: 'lower', caution: 1, breach: 2, target: null },
    });
    store.getState().actions.chooseMetric(metric);
    expect(store.getState().readout?.band).toBeNull();
  });

  it('starts a band in order for every direction, also without past values', () => {
    for (const values of [[], [5], [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]]) {
      expect(firstBand(values, 'lower')).toMatchObject({ direction: 'lower' });
      const band = firstBand(values, 'higher');
      if (band.direction === 'higher') expect(band.breach).toBeLessThanOrEqual(band.caution);
    }
  });
});

describe('dueWords', () => {
  it('says when something is due and by how much it is late', () => {
    const now = Date.UTC(2026, 10, 19, 12);
    expect(dueWords(now + 3_600_000, now, 'UTC')).toEqual({ words: 'due 13:00 today', overdue: null });
    expect(dueWords(now - 24 * 3_600_000, now, 'UTC')).toEqual({
      words: 'due 12:00 yesterday',
      overdue: 'Overdue 24\u2009h',
    });
  });
});
