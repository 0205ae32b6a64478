import { screen, waitFor, within } from '@testing-library/react';
import {
  ALARM_TEST_KINDS,
  bandOfTest,
  firstTest,
  DEFAULT_RULE,
  testWords,
  type AlarmRule,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';
import { madeIndicator } from '../../testing/madeIndicator';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { RuleEditorScreen } from '../RuleEditorScreen';
import { asideWords, watchedWords } from './asideWords';
import { firstDraft } from './draft';
import { rehearsalNotes } from './rehearsalNotes';
import { ruleSentence } from './ruleSentence';
import { judgedOf } from './useJudged';

jest.setTimeout(30_000);
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn(), navigate: jest.fn() }) }));

const DAY = 86_400_000;
const metric = {
  id: '10',
  name: 'Bed temperature',
  unit: '°C',
  kind: 'level',
  origin: 'samples',
  decimals: 1,
  intervalMs: 60_000,
  assetId: '2',
  assetName: 'Ironer 2',
  plantId: '1',
  plantName: 'Quayside',
  zone: 'UTC',
  last: { t: 0, v: 190 },
} as Metric;
const twin = { ...metric, id: '11', assetId: '3', assetName: 'Ironer 3' } as Metric;
const state = { ...metric, id: '12', name: 'State', unit: '', kind: 'state' } as Metric;
const assets = [
  { id: '1', parentId: null, name: 'Quayside', attributes: {} },
  { id: '2', parentId: '1', name: 'Ironer 2', attributes: { Maker: 'Weld' } },
  { id: '3', parentId: '1', name: 'Ironer 3', attributes: { Maker: 'Acre' } },
];
const rehearsal = {
  window: { start: 0, end: 90 * DAY },
  alarms: [
    { start: DAY, end: 2 * DAY },
    { start: 5 * DAY, end: null },
  ],
  longestMs: DAY,
  share: 0.1,
  outsideHours: 1,
  dataMs: 90 * DAY,
  caution: null,
  samples: 1000,
  metrics: 1,
  learntOnItself: false,
  unlearnt: 0,
};
const answers: Answers = {
  'GET /api/metrics': [metric, twin, state],
  'GET /api/alarm-rules': [],
  'GET /api/assets': assets,
  'GET /api/people': [
    { id: '5', name: 'Dele Marsh', role: 'operator' },
    { id: '6', name: 'Ines Holt', role: 'analyst' },
  ],
  'POST /api/readings/distribution': {
    values: Array.from({ length: 200 }, (_, i) => i + 10),
    bucket: 'day',
    interval: { start: 0, end: 1 },
  },
  'POST /api/alarm-rules/rehearsal': rehearsal,
  'POST /api/alarm-rules/rehearsal/course': { t: [0, DAY], v: [190, 200], unit: '°C', decimals: 1 },
  'POST /api/alarm-rules/rehearsal/limits': {
    curve: [
      { limit: 150, fires: 40 },
      { limit: 220, fires: 0 },
    ],
    onceAWeek: { limit: 203.2, fires: 12 },
  },
  'POST /api/alarm-rules': { id: '1' },
};

describe('writing a rule', () => {
  it('begins with a limit above nearly all of the past, and every part can be changed', async () => {
    const { person, sent } = renderScreen(<RuleEditorScreen from={null} />, answers);
    await person.click(await screen.findByRole('radio', { name: /Bed temperature, Ironer 2/ }));
    expect(await screen.findByLabelText('Limit')).toHaveProperty('value', '208');
    const sentence = (): string =>
      screen
        .getAllByRole('button')
        .map(({ textContent }) => textContent)
        .join(' ')
        .replace(/\s+/g, ' ');

    await person.click(await screen.findByRole('button', { name: 'Take the limit of at most one a week' }));
    expect(screen.getByLabelText('Limit')).toHaveProperty('value', '203.2');

    await person.click(screen.getByRole('button', { name: 'bed temperature, Ironer 2' }));
    await person.click(await screen.findByRole('radio', { name: 'All 2 in Quayside' }));
    await waitFor(() => expect(sentence()).toContain('bed temperature of each asset in Quayside'));
    await person.click(await screen.findByRole('button', { name: 'Only with an attribute' }));
    await person.click(screen.getByRole('radio', { name: /Maker/ }));
    expect(await screen.findByText(/^Now Ironer 3\. Assets are added/)).toBeTruthy();
    await person.click(screen.getByRole('checkbox', { name: 'Weld' }));
    expect(sentence()).toContain('of each asset in Quayside with Maker Acre or Weld');

    await person.click(screen.getByRole('button', { name: 'medium-priority Breach' }));
    await person.click(screen.getByRole('radio', { name: 'High' }));
    await person.click(screen.getByRole('button', { name: 'at any time' }));
    await person.click(screen.getByRole('radio', { name: 'Own hours' }));
    await person.click(screen.getByRole('radio', { name: 'on weekdays' }));
    expect(sentence()).toContain('on Saturdays, Sundays');
    await person.click(screen.getByRole('radio', { name: 'In working hours' }));
    await person.click(screen.getByRole('button', { name: 'in any state' }));
    await person.click(screen.getByRole('radio', { name: /State, Ironer 2/ }));
    expect(sentence()).toContain('state is not running');

    await person.click(screen.getByRole('button', { name: 'nobody' }));
    const told = screen.getByRole('group', { name: 'Who gets a notice' });
    await person.click(within(told).getByRole('checkbox', { name: 'Dele Marsh' }));
    await person.type(screen.getByLabelText('What to do'), 'Slow the feed');
    await person.click(screen.getByRole('radio', { name: 'Notify others after 15 min' }));
    const putInForce = screen.getByRole('button', { name: 'Put in force' });
    // Then there is nobody to notify, so it is not complete.
    expect(putInForce.getAttribute('aria-disabled')).toBe('true');
    const then = screen.getByRole('group', { name: 'Who is notified then' });
    await person.click(within(then).getByRole('checkbox', { name: 'Ines Holt' }));
    await person.click(putInForce);
    await waitFor(() =>
      expect(
        sent.find(({ method, path }) => method === 'POST' && path === '/api/alarm-rules')?.body,
      ).toMatchObject({
        metricId: '10',
        under: '1',
        attributes: [{ name: 'Maker', values: ['Acre', 'Weld'] }],
        test: { kind: 'limit', side: 'above', limit: 203.2 },
        priority: 'high',
        hours: { kind: 'working', inside: true },
        suppress: { metricId: '12', code: 1, is: false },
        told: ['5'],
        toDo: 'Slow the feed',
        escalation: { afterMs: 900_000, to: ['6'] },
      }),
    );
  });

  it('turns to another kind of test with its own numbers, and its name follows until it is changed', async () => {
    const { person } = renderScreen(<RuleEditorScreen from={null} />, answers);
    await person.click(await screen.findByRole('radio', { name: /Bed temperature, Ironer 2/ }));
    const name = (await screen.findByLabelText('Name of the rule')) as HTMLInputElement;
    expect(name.value).toBe('Ironer 2 bed temperature high');
    await person.click(screen.getByRole('radio', { name: 'silence' }));
    await waitFor(() => expect(name.value).toBe('Ironer 2 bed temperature silent'));
    expect(screen.getByLabelText('No sample for')).toBeTruthy();
    expect(screen.queryByLabelText('Limit')).toBeNull();
    await person.type(name, '!');
    await person.click(screen.getByRole('radio', { name: 'run rules' }));
    await screen.findByRole('checkbox', { name: /nine in a row/ });
    expect(name.value).toBe('Ironer 2 bed temperature silent!');
  });
});

describe('a rule over periods', () => {
  const derived = {
    ...metric,
    id: '20',
    name: 'Gas per kg',
    unit: 'kWh/kg',
    origin: 'derived',
    decimals: 2,
  } as Metric;
  const indicator = madeIndicator(
    0,
    { name: 'Gas per kg', measure: { metricId: '20', summary: 'mean', per: null }, decimals: 2 },
    'kWh/kg',
  );
  const withDerived: Answers = {
    ...answers,
    'GET /api/metrics': [metric, derived],
    'GET /api/indicators': [indicator],
  };
  const sentRule = (sent: readonly { method: string; path: string; body: unknown }[]) =>
    sent.find(({ method, path }) => method === 'POST' && path === '/api/alarm-rules')?.body;

  it('is all a derived metric can have: full hours first, with their own delays', async () => {
    const { person, sent } = renderScreen(<RuleEditorScreen from={null} />, withDerived);
    await person.click(await screen.findByRole('radio', { name: /Gas per kg, Ironer 2/ }));
    await screen.findByRole('button', { name: 'over each full hour' });
    expect(screen.queryByRole('radio', { name: 'silence' })).toBeNull();
    await person.click(screen.getByRole('button', { name: 'over each full hour' }));
    expect(screen.queryByRole('radio', { name: 'Each sample' })).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'Each full day' }));
    await person.click(await screen.findByRole('button', { name: 'a single day' }));
    await person.click(screen.getByRole('radio', { name: '2 days in a row' }));
    await person.click(screen.getByRole('button', { name: 'Put in force' }));
    await waitFor(() =>
      expect(sentRule(sent)).toMatchObject({
        metricId: '20',
        over: { period: 'day', summary: 'mean', indicatorId: null },
        test: { kind: 'limit', side: 'above' },
        onDelayMs: 23 * 3_600_000,
      }),
    );
  });

  it('watches an indicator by its own target band', async () => {
    const { person, sent } = renderScreen(<RuleEditorScreen from={null} />, withDerived);
    await person.click(await screen.findByRole('radio', { name: /Gas per kg.*Wash house/ }));
    await screen.findByRole('button', { name: 'in Breach by its target band' });
    await person.click(screen.getByRole('button', { name: 'Put in force' }));
    await waitFor(() =>
      expect(sentRule(sent)).toMatchObject({
        name: 'Wash house gas per kg off target',
        over: { period: 'hour', summary: 'mean', indicatorId: '1' },
        test: { kind: 'level', from: 'breach' },
      }),
    );
  });
});

describe('a rule of two stages', () => {
  it('has a Caution before its Breach with its own limit and people, and cannot be saved the wrong way round', async () => {
    const { person, sent } = renderScreen(<RuleEditorScreen from={null} />, answers);
    await person.click(await screen.findByRole('radio', { name: /Bed temperature, Ironer 2/ }));
    await person.click(await screen.findByRole('button', { name: 'no Caution before it' }));
    await person.click(screen.getByRole('radio', { name: 'Caution before it' }));
    const limit = screen.getByLabelText(/^Limit/) as HTMLInputElement;
    await person.clear(limit);
    await person.type(limit, '900');
    await person.tab();
    const putInForce = screen.getByRole('button', { name: 'Put in force' });
    await screen.findByText(/must come before the Breach/);
    expect(putInForce.getAttribute('aria-disabled')).toBe('true');
    await person.clear(limit);
    await person.type(limit, '150');
    await person.tab();
    await person.click(screen.getByRole('checkbox', { name: 'Dele Marsh' }));
    await person.click(putInForce);
    await waitFor(() =>
      expect(
        sent.find(({ method, path }) => method === 'POST' && path === '/api/alarm-rules')?.body,
      ).toMatchObject({
        level: 'breach',
        told: [],
        caution: { test: { kind: 'limit', side: 'above', limit: 150 }, priority: 'low', told: ['5'] },
      }),
    );
  });
});

describe('the words of a rule', () => {
  const names = {
    metrics: new Map([metric, twin, state].map((each) => [each.id, each] as const)),
    assets: new Map(assets.map((each) => [each.id, each] as const)) as never,
    people: [],
  };
  const judged = (over: RuleInput['over']) => ({ ...names, judged: judgedOf({ over }, metric, undefined) });
  const text = (test: AlarmRule['test']): string =>
    ruleSentence({ ...DEFAULT_RULE, name: '', metricId: '10', test, replaces: null }, judged(null))
      .map((part) => part.text)
      .join(' ')
      .replace(/\s+/g, ' ');

  it.each(ALARM_TEST_KINDS.filter((kind) => kind !== 'level'))(
    'say what a rule of the kind %s looks for',
    (kind) => {
      const test = firstTest(kind, metric, 200);
      const words = text(test);
      expect(words).toContain(testWords(test, '°C', 1).replace(/\s+/g, ' '));
      expect(words).toMatch(
        /^Raise a medium-priority Breach when bed temperature, Ironer 2 in each sample is/,
      );
      // Silence has its own delay; the other tests say how long they must hold.
      expect(words.includes('for a single sample')).toBe(kind !== 'silence');
    },
  );

  it('say which periods are judged, and count bad ones in a row', () => {
    const over = { period: 'hour', summary: 'mean', indicatorId: null } as const;
    const test = { kind: 'limit', side: 'above', limit: 1.35, deadband: 0 } as const;
    const rule = {
      ...DEFAULT_RULE,
      name: '',
      metricId: '10',
      over,
      test,
      onDelayMs: 7_200_000,
      replaces: null,
    };
    const words = ruleSentence(rule, judged(over))
      .map((part) => part.text)
      .join(' ');
    expect(words).toContain('over each full hour is above');
    expect(words).toContain('for 3 hours in a row');
  });

  it('keep what was chosen when the metric is changed, where it fits', () => {
    const draft = firstDraft(metric, 200, null);
    const next = firstDraft(state, 1, { ...draft, priority: 'high', under: '1' });
    expect(next).toMatchObject({
      priority: 'high',
      under: null,
      test: { kind: 'state', code: 1, is: false },
    });
  });

  it('tell how many metrics are watched, and how they are set aside', () => {
    const aside = { kind: 'shelved', at: 0, until: DAY, by: 'Ines', reason: 'Fitter' } as const;
    const watched = { metrics: 2, suppressed: 1, aside: 1, how: aside, problem: null };
    expect(watchedWords({ under: '1', watched })).toBe('2 metrics, 1 suppressed now');
    expect(asideWords({ watched }, 'UTC', 0)).toMatch(/^\. Shelved until .* on 1 of 2, Ines: Fitter$/);
    expect(asideWords({ watched: { ...watched, aside: 2 } }, 'UTC', 0)).toMatch(/[^2], Ines: Fitter$/);
    expect(asideWords({ watched: { ...watched, aside: 0, how: null } }, 'UTC', 0)).toBe('');
  });

  it('of a rehearsal tell the rate, the rule in force, and what looks better than it is', () => {
    const notes = rehearsalNotes(
      { ...rehearsal, learntOnItself: true, unlearnt: 1, metrics: 3 },
      {
        ...rehearsal,
        alarms: [],
      } as never,
      null,
    );
    const all = notes.join(' ').replace(/\s+/g, ' ');
    expect(all).toContain('0.02 a day');
    expect(all).toContain('50 % of them outside working hours');
    expect(all).toContain('The rule in force: 0 times; this one: 2 times');
    expect(all).toContain('looks better than it will be');
    expect(all).toContain('1 of 3 metrics');
  });

  it('show a band on the trend only where a value decides', () => {
    expect(bandOfTest({ kind: 'limit', side: 'below', limit: 5, deadband: 0 })).toMatchObject({
      direction: 'higher',
      breach: 5,
    });
    expect(bandOfTest({ kind: 'outside', low: 3, high: 6, deadband: 0 })).toMatchObject({
      direction: 'inside',
      clearLow: 3,
      clearHigh: 6,
    });
    expect(bandOfTest({ kind: 'silence', forMs: 60_000 })).toBeNull();
  });
});
