import type { Metric, Readout, ReadoutForm, ReadoutParts } from '@vivid-beacon/core';
import { makeReadout, offeredSlots, READOUT_FORMS, traitsOfForm } from '@vivid-beacon/core/src/boards';
import { readoutSentence, UNFOLD } from './readoutSentence';

const METRICS = new Map(
  [
    ['1', 'Gas used', 'Dryer 1'],
    ['2', 'Dried weight', 'Dryer 1'],
  ].map(([id, name, assetName]) => [id, { id, name, assetName } as Metric]),
);
type Parts = ReadoutParts & { readonly form?: ReadoutForm };
const readout = ({ form = 'gauge', ...parts }: Parts = {}): Readout =>
  makeReadout('r', form, { measures: [{ metricId: '1', summary: 'sum', per: null }], ...parts });
const said = (part: Parts, whole = true): string =>
  readoutSentence(readout(part), METRICS, (id) => (id === '9' ? 'Hall' : undefined), whole)
    .map(({ text }) => text)
    .join(' ');
const slots = (part: Parts, whole = true): string[] =>
  readoutSentence(readout(part), METRICS, () => undefined, whole).flatMap((each) =>
    each.kind === 'slot' ? [each.key] : [],
  );

describe('the sentence of a readout', () => {
  it.each<[Partial<Readout>, string]>([
    [
      {},
      "Show the sum of gas used, Dryer 1 on its own with nothing else over the board's window not grouped for this asset in all hours against no target band and the window before shown with an automatic title",
    ],
    [
      {
        measures: [{ metricId: '1', summary: 'sum', per: null, perAttribute: 'Floor area (m²)' }],
        groupBy: { kind: 'plant' },
      },
      "Show the sum of gas used per floor area over the board's window by plant for all assets in all hours against no target band and the window before shown with an automatic title",
    ],
    [
      {
        measures: [
          { metricId: '1', summary: 'sum', per: { metricId: '2', summary: 'sum', factor: 1, unit: null } },
        ],
        groupBy: { kind: 'plant' },
        scope: { assetIds: ['9'], attributes: [] },
        hours: { kind: 'weekdays', days: [6] },
        band: { direction: 'lower', caution: 1, breach: 2, target: null },
        compare: 'lastYear',
        title: 'Gas',
      },
      "Show the sum of gas used per dried weight over the board's window by plant for Hall on Saturdays against a target band, lower is better and the same last year shown with a title of its own",
    ],
    [{ measures: [] }, 'Show a metric'],
    [{ form: 'note', measures: [] }, 'A note with its text and an automatic title'],
  ])('of %j is "%s"', (part, words) => {
    expect(said(part)).toBe(words);
  });

  it('tells hours as they are said', () => {
    expect(said({ hours: { kind: 'clock', from: '06:00', to: '14:00' } })).toContain(
      'for this asset from 06:00 to 14:00 against',
    );
  });

  it.each(READOUT_FORMS)('of a %s names its slots in the order of the form', (form) => {
    const measures = traitsOfForm(form).measures === 'none' ? { measures: [] } : {};
    expect(slots({ form, ...measures })).toEqual(offeredSlots(readout({ form, ...measures })));
  });

  it('of a trend says by which period it is drawn', () => {
    expect(said({ form: 'trend' })).toContain('by every sample');
    expect(said({ form: 'trend', bucket: 'financialYear' })).toContain('by the financial year');
  });

  it('folds what says nothing yet into one slot, and keeps what does', () => {
    expect(slots({}, false)).toEqual(['summary', 'metric', 'window', 'band', UNFOLD]);
    expect(slots({ groupBy: { kind: 'asset' }, hours: { kind: 'weekdays', days: [1] } }, false)).toEqual([
      'summary',
      'metric',
      'window',
      'group',
      'hours',
      'band',
      UNFOLD,
    ]);
    // In a complete sentence any slot can be opened first.
    expect(slots({}).length).toBeGreaterThan(slots({}, false).length);
    expect(slots({})).not.toContain(UNFOLD);
  });
});
