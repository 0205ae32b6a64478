import { screen, waitFor, within } from '@testing-library/react';
import type { Metric, IndicatorPast, Role } from '@vivid-beacon/core';
import { emptyReadout, followIndicators } from '@vivid-beacon/core/src/boards';
import { madeIndicator } from '../../testing/madeIndicator';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { readoutSentence } from '../editor/readoutSentence';
import { IndicatorEditorScreen } from './IndicatorEditorScreen';
import { IndicatorScreen } from './IndicatorScreen';
import { IndicatorsScreen } from './IndicatorsScreen';
import { indicatorChangeWords, judgeWords, shownValue } from './indicatorWords';
import { otherJudge, withMetric } from './indicatorDraft';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => '/',
  useRouter: () => ({ push: mockPush, navigate: jest.fn() }),
}));

const DAY = 86_400_000;
const NOW = Date.now();
const metric = {
  id: '10',
  name: 'Washed weight',
  unit: 'kg',
  kind: 'amount',
  origin: 'samples',
  decimals: 0,
  assetId: '2',
  assetName: 'Wash house',
  plantId: '1',
  plantName: 'Quayside',
  zone: 'UTC',
  last: { t: 0, v: 100 },
} as Metric;
const indicator = madeIndicator(NOW);
const { definition, reading } = indicator;
const past: IndicatorPast = {
  bucket: 'month',
  zone: 'UTC',
  financialYearMonth: 1,
  periods: [
    {
      start: Date.UTC(2026, 8, 1),
      end: Date.UTC(2026, 9, 1),
      value: 400_000,
      coverage: 1,
      target: null,
      level: 'nodata',
      version: 1,
    },
    {
      start: Date.UTC(2026, 9, 1),
      end: NOW + DAY,
      value: 380_000,
      coverage: 0.9,
      target: 400_000,
      level: 'caution',
      version: 2,
    },
  ],
};
const answers = (role: Role): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Ines Varga', '5')),
  'GET /api/indicators': [indicator],
  'GET /api/indicators/1': {
    indicator,
    versions: [
      { version: 2, validFrom: NOW - DAY, by: 'Ines Varga', definition },
      {
        version: 1,
        validFrom: 0,
        by: '',
        definition: { ...definition, target: { kind: 'fixed', value: 300_000 } },
      },
    ],
    targets: [{ start: new Date(NOW).toISOString().slice(0, 8) + '01', value: 400_000, month: false }],
  },
  'GET /api/indicators/1/history': past,
  'GET /api/metrics': [metric],
  'GET /api/people': [{ id: '5', name: 'Ines Varga', role: 'analyst' }],
  'GET /api/boards': [],
  'GET /api/calendars/1': { shifts: [], holidays: [], firstWeekday: 1, financialYearMonth: 1 },
  'POST /api/indicators/preview': { target: 340_000, band: indicator.band, reading, ...past },
  'POST /api/indicators/suggested-targets': {
    bucket: 'month',
    suggestions: [{ kind: 'median', value: 385_000, values: 12, from: null, to: null }],
  },
  'POST /api/readings/distribution': { values: [1, 2, 3], bucket: 'day', interval: { start: 0, end: 1 } },
  'PUT /api/indicators/1': undefined,
  'PUT /api/indicators/1/targets': undefined,
  'POST /api/indicators': { id: '9' },
});
const plain = (text: string): string => text.replace(/\s/g, ' ');

describe('indicators', () => {
  it('are listed with level, value and target, and open', async () => {
    const { person } = renderScreen(<IndicatorsScreen />, answers('operator'));
    const row = await screen.findByRole('link', { name: /Washed weight of the month/ });
    expect(plain(row.textContent!)).toContain('target 340.0 thousand kg');
    // Two plants can each have an indicator of this name.
    expect(plain(row.textContent!)).toContain('Quayside / Wash house');
    expect(screen.queryByRole('button', { name: 'New indicator' })).toBeNull();
    await person.click(row);
    expect(mockPush).toHaveBeenCalledWith('/indicators/1');
  });

  it('show value, change, past and definitions; targets are typed in thousands', async () => {
    const { person, sent } = renderScreen(<IndicatorScreen indicatorId="1" />, answers('analyst'));
    expect(await screen.findByText(/as far as the window has passed/)).toBeTruthy();
    expect(plain(screen.getByText(/on the period before$/).textContent!)).toContain(
      'up 30.0 thousand kg, 10.0 %',
    );
    expect(await screen.findByText('Oct 2026, unfinished')).toBeTruthy();
    expect(screen.getByText(/^Version 1: higher is better/)).toBeTruthy();
    const thisMonth = await screen.findByDisplayValue('400');
    await person.clear(thisMonth);
    await person.type(thisMonth, '410');
    await person.click(screen.getByRole('button', { name: 'Save 1 value' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({
        values: [{ start: new Date(NOW).toISOString().slice(0, 8) + '01', value: 410_000, month: false }],
      }),
    );
  });

  it('of a year can have single months set otherwise', async () => {
    const target = { kind: 'periods', period: 'financialYear', prorate: 'calendar' } as const;
    const ofYear = madeIndicator(NOW, { target });
    const versions = [{ version: 2, validFrom: 0, by: '', definition: ofYear.definition }];
    const month = new Date(NOW).toISOString().slice(0, 8) + '01';
    const { person, sent } = renderScreen(<IndicatorScreen indicatorId="1" />, {
      ...answers('analyst'),
      'GET /api/indicators': [ofYear],
      'GET /api/indicators/1': {
        indicator: ofYear,
        versions,
        targets: [{ start: month, value: 31_000, month: true }],
      },
    });
    await screen.findByText(/The financial year keeps its whole/);
    const field = await screen.findByDisplayValue('31');
    await person.clear(field);
    await person.type(field, '29');
    const [, save] = screen.getAllByRole('button', { name: /^Save/ });
    await person.click(save);
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({
        values: [{ start: month, value: 29_000, month: true }],
      }),
    );
  });

  it('open how a past period was made, by the definition that judged it, and hand it out as a flag', async () => {
    const { person, sent } = renderScreen(<IndicatorScreen indicatorId="1" />, {
      ...answers('operator'),
      'POST /api/readings/value': { ...reading, value: 400_000 },
      'POST /api/flags': {},
    });
    await person.click(await screen.findByRole('link', { name: /Sept? 2026/ }));
    expect(await screen.findByText('Formula')).toBeTruthy();
    const asked = sent.find(({ path }) => path === '/api/readings/value')?.body;
    expect(asked).toMatchObject({
      measure: definition.measure,
      window: { kind: 'absolute', start: '2026-09-01T00:00:00', end: '2026-10-01T00:00:00' },
    });
    await person.click(screen.getByRole('button', { name: 'Flag this period' }));
    await person.click(await screen.findByRole('radio', { name: /Ines Varga/ }));
    await person.click(screen.getByRole('button', { name: 'Hand out the flag' }));
    await waitFor(() =>
      expect(sent.find(({ method, path }) => method === 'POST' && path === '/api/flags')?.body).toMatchObject(
        {
          kind: 'loss',
          metricId: '10',
          evidence: {
            address: '/indicators/1',
            window: { start: Date.UTC(2026, 8, 1), end: Date.UTC(2026, 9, 1) },
            numbers: [{ name: 'Value' }, { text: 'none' }, { text: 'No data' }, { text: '100 %' }, {}],
          },
        },
      ),
    );
  });

  it('are changed from the version they were read in, and a refusal is told', async () => {
    const { person, sent } = renderScreen(<IndicatorEditorScreen indicatorId="1" />, {
      ...answers('analyst'),
      'PUT /api/indicators/1': new Refused(409, {
        code: 'CHANGED_MEANWHILE',
        message: 'Somebody has changed this indicator meanwhile. Read it again.',
      }),
    });
    const clear = await screen.findByLabelText('Clear from');
    await person.clear(clear);
    await person.type(clear, '90');
    expect(screen.getByText('Caution must begin at or before Clear.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Put in force' }).getAttribute('aria-disabled')).toBe('true');
    await person.clear(clear);
    await person.type(clear, '99');
    await person.click(screen.getByRole('button', { name: /^entered by month/ }));
    await person.click(screen.getByRole('radio', { name: 'One value' }));
    await person.click(await screen.findByRole('button', { name: /^Take 385/ }));
    await person.click(screen.getByRole('button', { name: 'Put in force' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toMatchObject({
        from: 2,
        definition: { judge: { clear: 99 }, target: { kind: 'fixed', value: 385_000 } },
      }),
    );
    expect(await screen.findByText(/changed this indicator meanwhile/)).toBeTruthy();
  });

  it('are judged by custom thresholds: added, moved, given a level, taken away', async () => {
    const { person, sent } = renderScreen(<IndicatorEditorScreen indicatorId="1" />, answers('analyst'));
    await person.click(await screen.findByRole('radio', { name: 'Custom shares' }));
    await person.click(screen.getByRole('button', { name: 'Remove threshold 4' }));
    const below = screen.getByRole('radiogroup', { name: 'Below the first threshold' });
    await person.click(within(below).getByRole('radio', { name: 'Caution' }));
    const cut = screen.getByLabelText('Threshold 2');
    await person.clear(cut);
    await person.type(cut, '80');
    expect(
      screen.getAllByText('Threshold 2 must be at least threshold 1 (85), got 80.').length,
    ).toBeGreaterThan(0);
    await person.clear(cut);
    await person.type(cut, '97');
    await person.click(screen.getByRole('button', { name: 'Add a threshold' }));
    await person.click(screen.getByRole('button', { name: 'Put in force' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toMatchObject({
        definition: {
          judge: {
            kind: 'targetCuts',
            cuts: [85, 97, 105, 112.5],
            levels: ['caution', 'caution', 'clear', 'caution', 'caution'],
          },
        },
      }),
    );
  });

  it('are written from a metric on, with a preview before they are added', async () => {
    const { person, sent } = renderScreen(<IndicatorEditorScreen indicatorId={null} />, answers('analyst'));
    await person.click(await screen.findByRole('radio', { name: /Washed weight, Wash house/ }));
    expect(await screen.findByRole('img', { name: /2 periods/ })).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Nobody' }));
    await person.click(await screen.findByRole('radio', { name: /Ines Varga/ }));
    await person.click(screen.getByRole('button', { name: 'Add' }));
    await waitFor(() =>
      expect(
        sent.find(({ method, path }) => method === 'POST' && path === '/api/indicators')?.body,
      ).toMatchObject({
        name: 'Washed weight, Wash house',
        assetId: '2',
        ownerId: '5',
        measure: { metricId: '10', summary: 'sum' },
      }),
    );
  });
});

describe('the words of an indicator', () => {
  it('write numbers in its own format, and a change of nothing without a percentage', () => {
    expect(plain(shownValue(1_234_500, 'kWh', { decimals: 0, display: 'millions' }))).toBe('1.2 million kWh');
    expect(plain(shownValue(null, 'kg', definition))).toContain('–');
    expect(plain(indicatorChangeWords({ ...indicator, reading: { ...reading, previous: 0 } }))).not.toContain(
      '%',
    );
    expect(indicatorChangeWords({ ...indicator, reading: { ...reading, previous: null } })).toBe(
      'no reference',
    );
  });

  it('say how it is judged', () => {
    expect(plain(judgeWords(definition.judge, 'kg', 0))).toBe(
      'higher is better: Clear from 98 % of the target, Caution from 95 %',
    );
    expect(
      plain(
        judgeWords(
          { kind: 'limits', band: { direction: 'lower', caution: 3, breach: 3, target: null } },
          '%',
          1,
        ),
      ),
    ).toBe('lower is better: Clear to 3.0 %');
  });

  it('keep a name of its own when the metric changes, and the direction when the judge does', () => {
    const other = { ...metric, id: '11', name: 'Gas used', assetName: 'Boiler' } as Metric;
    expect(withMetric({ ...definition, name: 'Plan' }, metric, other).name).toBe('Plan');
    expect(withMetric({ ...definition, name: 'Washed weight, Wash house' }, metric, other).name).toBe(
      'Gas used, Boiler',
    );
    expect(otherJudge(definition.judge, 'limits', 100)).toMatchObject({
      band: { direction: 'higher', caution: 100 },
    });
  });
});

describe('a readout of an indicator', () => {
  const readout = { ...emptyReadout('r1', 'gauge'), indicatorId: '1', measures: [definition.measure] };

  it('is what the indicator is now; of one that is gone what it was', () => {
    const [now] = followIndicators([readout], [indicator]);
    expect(now).toMatchObject({ title: definition.name, band: { target: 340_000 }, display: 'thousands' });
    expect(now.reference).toBeUndefined();
    const fixed = { ...definition, reference: { kind: 'fixed', value: 350_000 } as const };
    const against = { ...indicator, definition: fixed, reading: { ...reading, previous: 350_000 } };
    expect(followIndicators([readout], [against])[0]).toMatchObject({
      compare: 'none',
      reference: { kind: 'fixed', value: 350_000 },
    });
    expect(followIndicators([readout], [])).toEqual([readout]);
    const own = [emptyReadout('r2', 'gauge')];
    expect(followIndicators(own, [indicator])).toBe(own);
  });

  it('leaves only what is not governed to choose', () => {
    const text = readoutSentence(
      readout,
      new Map(),
      () => undefined,
      true,
      () => 'Washed weight of the month',
    )
      .map((part) => part.text)
      .join(' ');
    expect(text).toBe('Show the indicator Washed weight of the month shown with an automatic title');
  });
});
