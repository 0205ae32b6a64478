import { screen, waitFor } from '@testing-library/react';
import {
  alarmHealth,
  checkHealth,
  DEFAULT_RULE,
  type AlarmRule,
  type Annunciation,
  type Metric,
  type Role,
} from '@vivid-beacon/core';
import { renderScreen, type Answers } from '../../testing/renderScreen';
import { QUIET_WATCH } from '../../testing/usual';
import { RuleEditorScreen } from '../RuleEditorScreen';
import { AlarmHealthScreen } from './AlarmHealthScreen';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush, navigate: jest.fn() }) }));

const MINUTE = 60_000;
const WEEK = { start: 0, end: 7 * 86_400_000 };
const alarms: Annunciation[] = Array.from({ length: 30 }, (_, i) => ({
  ruleId: i < 20 ? '1' : '2',
  priority: 'low',
  raisedAt: i * MINUTE,
  returnedAt: (i + 3) * MINUTE,
  acknowledgedAt: i === 0 ? 2 * MINUTE : null,
}));
const health = alarmHealth(alarms, WEEK, 1);
const answers = (role: Role): Answers => ({
  'GET /api/session': signedIn(personOf(role, 'Ines', '1')),
  'GET /api/on-watch': QUIET_WATCH,
  'PUT /api/alarm-health/operators': undefined,
  'GET /api/alarm-health': {
    health,
    checks: checkHealth(health, 12),
    rules: [
      { id: '1', name: 'Dryer hot', inForce: true },
      { id: '2', name: 'Old rule', inForce: false },
    ],
  },
});

describe('alarm health', () => {
  it('tells each figure with its guideline, and opens a frequent rule to mend it', async () => {
    const { person, sent } = renderScreen(<AlarmHealthScreen />, answers('analyst'));
    expect(await screen.findByText('Alarms in the worst ten minutes')).toBeTruthy();
    expect(screen.getByText('at most 150, manageable up to 300')).toBeTruthy();
    expect(screen.getByText('20 times, 67 % of all')).toBeTruthy();
    expect(screen.getByText('10 times, 33 % of all · out of force')).toBeTruthy();
    await person.click(screen.getByRole('link', { name: /Dryer hot/ }));
    expect(mockPush).toHaveBeenCalledWith({ pathname: '/alarms/rules/new', params: { from: '1' } });
    expect(screen.queryByRole('link', { name: /Old rule/ })).toBeNull();
    await person.click(screen.getByRole('radio', { name: '3 people' }));
    await waitFor(() => expect(sent.some(({ path }) => path.endsWith('days=7&operators=3'))).toBe(true));
    expect(sent.find(({ method }) => method === 'PUT')).toMatchObject({
      path: '/api/alarm-health/operators',
      body: { operators: 3 },
    });
  });

  it('lets those who cannot change rules only read', async () => {
    renderScreen(<AlarmHealthScreen />, answers('operator'));
    await screen.findByText('Dryer hot');
    expect(screen.queryByRole('link', { name: /Dryer hot/ })).toBeNull();
  });
});

describe('changing a rule', () => {
  it('begins with the rule as it is, and puts the new one in its place', async () => {
    const rule: AlarmRule = {
      ...DEFAULT_RULE,
      id: '1',
      name: 'Dryer hot',
      metricId: '10',
      test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
      onDelayMs: 300_000,
      level: 'caution',
      latching: true,
      unit: '°C',
      decimals: 0,
      inForce: true,
      inForceFrom: 0,
      watched: { metrics: 0, suppressed: 0, aside: 0, how: null, problem: null },
    };
    const metric = {
      id: '10',
      name: 'Bed temperature',
      assetName: 'Dryer',
      unit: '°C',
      kind: 'level',
      origin: 'samples',
      decimals: 1,
    };
    const { person, sent } = renderScreen(<RuleEditorScreen from="1" />, {
      ...answers('analyst'),
      'GET /api/metrics': [metric as Metric],
      'GET /api/alarm-rules/1': { rule, watches: [] },
      'GET /api/assets': [],
      'GET /api/people': [],
      'POST /api/alarm-rules/rehearsal': {
        window: WEEK,
        alarms: [],
        longestMs: 0,
        share: 0,
        outsideHours: 0,
        samples: 0,
        metrics: 1,
        learntOnItself: false,
        unlearnt: 0,
      },
      'POST /api/alarm-rules/rehearsal/limits': { curve: [], onceAWeek: null },
      'POST /api/alarm-rules': { id: '2' },
    });
    expect(await screen.findByText(/^Replaces "Dryer hot": Caution above 205/)).toBeTruthy();
    const limit = await screen.findByLabelText('Limit');
    await person.clear(limit);
    await person.type(limit, '212');
    await person.click(screen.getByRole('button', { name: 'Replace the rule' }));
    await waitFor(() => {
      const put = sent.find(({ method, path }) => method === 'POST' && path === '/api/alarm-rules');
      expect(put?.body).toMatchObject({
        replaces: '1',
        test: { kind: 'limit', side: 'above', limit: 212, deadband: 4 },
        latching: true,
        level: 'caution',
      });
    });
  });
});
