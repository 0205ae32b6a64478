import fc from 'fast-check';
import { makeReadout } from '../board/board';
import type { Metric } from '../api/metrics';
import type { TrendAnswer } from '../api/readings';
import { WHOLE_SCOPE, type QueryAnswer } from '../domain/query';
import { NOTHING_ALONG } from '../drawing/trend/trendPlot';
import type { Mark } from '../drawing/scene';
import { formOf, READOUT_FORMS, type ReadoutForm } from './forms';
import { isProblem, type ReadingAnswers, type ReadoutInputs } from './readoutData';

/* From the questions of a form to what it draws and says, for each form and any answer. */

const NOW = Date.UTC(2026, 10, 19, 12);
const HOUR = 3_600_000;
const WINDOW = { start: NOW - 24 * HOUR, end: NOW };
const METRIC = {
  id: '1',
  name: 'Washed weight',
  assetId: 'a',
  assetName: 'Washer 1',
  plantName: 'Quayside',
  zone: 'UTC',
  unit: 'kg',
};
const METRICS = new Map([['1', METRIC as Metric]]);
const BAND = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;

const inputsOf = (form: ReadoutForm, grouped: boolean): ReadoutInputs => ({
  readout: makeReadout('r', form, {
    measures: [{ metricId: '1', summary: 'sum', per: null }],
    groupBy: grouped ? { kind: 'asset' } : null,
    band: BAND,
    text: '# Head\n\nWords for *everybody*.',
  }),
  window: { kind: 'rolling', count: 24, unit: 'hour' },
  scope: WHOLE_SCOPE,
  hours: null,
  follows: false,
  metrics: METRICS,
  facts: new Map(),
  view: { width: 480, zoomed: null, now: NOW },
});

const value = fc.option(fc.double({ min: 0, max: 1e5, noNaN: true }), { nil: null });

/** An answer to a query with one value for each group, or with hourly values. */
function answerOf(values: readonly (number | null)[], byHour: boolean): QueryAnswer {
  const n = byHour ? 24 : 1;
  const start = Array.from({ length: n }, (_, i) => WINDOW.start + i * (byHour ? HOUR : 24 * HOUR));
  return {
    window: WINDOW,
    start,
    end: start.map((at) => at + (byHour ? HOUR : 24 * HOUR)),
    zone: 'UTC',
    now: NOW,
    units: ['kg'],
    groups: values.map((each, i) => ({
      name: `Washer ${i + 1}`,
      assetId: `${i + 1}`,
      measures: [
        {
          metricIds: ['1'],
          perMetricIds: [],
          withinIds: [],
          values: start.map(() => each),
          coverage: start.map(() => 1),
          samples: start.map(() => (each === null ? 0 : 60)),
          previous: each,
          partial: false,
          asOf: NOW - HOUR,
        },
      ],
    })),
  } as unknown as QueryAnswer;
}

const courseOf = (values: readonly (number | null)[]): TrendAnswer => ({
  window: WINDOW,
  zone: 'UTC',
  unit: 'kg',
  now: NOW,
  t: values.map((_, i) => WINDOW.start + i * HOUR),
  v: values,
  bucket: null,
  until: null,
  gaps: [],
  samples: values.length,
});

const textsOf = (marks: readonly Mark[]): string[] =>
  marks.flatMap((mark) =>
    mark.kind === 'text'
      ? mark.words.map(({ text }) => text)
      : mark.kind === 'group'
        ? textsOf(mark.marks)
        : [],
  );

describe.each(READOUT_FORMS)('the form %s', (form) => {
  const { requests, data, scene, table } = formOf(form);

  it.each([true, false])('draws and tells all that comes back, grouped: %s', (grouped) => {
    fc.assert(
      fc.property(
        fc.array(value, { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 120, max: 900 }),
        (values, width) => {
          const inputs = inputsOf(form, grouped);
          const asked = requests(inputs)!;
          const answers: ReadingAnswers = asked.map(({ kind, ask }) =>
            kind === 'query'
              ? answerOf(grouped ? values : values.slice(0, 1), 'bucket' in ask && ask.bucket !== null)
              : courseOf(values),
          );
          const made = data(inputs, answers);
          if (isProblem(made)) {
            expect(made.problem.title).not.toBe('');
            return;
          }
          const drawn = scene(made, { width, height: null, focus: null, along: NOTHING_ALONG });
          expect(drawn.width).toBe(width);
          expect(drawn.height).toBeGreaterThan(0);
          expect(JSON.stringify(drawn).match(/.{40}(NaN|Infinity|undefined)/)).toBeNull();
          expect(drawn.spoken).not.toBe('');
          const { columns, rows } = table(made);
          expect(rows.every((row) => row.length === columns.length)).toBe(true);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('says what is missing, and draws no number for it', () => {
    const inputs = inputsOf(form, true);
    const answers = requests(inputs)!.map(() => answerOf([null, null], form === 'trend'));
    const made = data(inputs, answers);
    if (isProblem(made) || form === 'note') return;
    const texts = textsOf(scene(made, { width: 480, height: null, focus: null, along: NOTHING_ALONG }).marks);
    expect(texts).not.toContain('0 kg');
    expect(texts.some((text) => /No data|No readings|–/.test(text))).toBe(true);
  });
});
