import { screen, waitFor } from '@testing-library/react';
import type { RuleInput } from '@vivid-beacon/core';
import { writeDefinitionsFile } from '@vivid-beacon/core/src/boards';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { signedIn } from '../../testing/signedIn';
import { DEFAULT_METRIC } from '../../testing/usual';
import { DefinitionsInScreen } from './DefinitionsInScreen';
import { DefinitionsOut } from './DefinitionsOut';

jest.setTimeout(30_000);
const mockRouter = { push: jest.fn(), navigate: jest.fn() };
jest.mock('expo-router', () => ({ useRouter: () => mockRouter }));

const rule = (name: string, metricId: string): RuleInput => ({
  name,
  metricId,
  under: null,
  attributes: [],
  over: null,
  test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
  priority: 'medium',
  message: '',
  toDo: '',
  told: ['3'],
  escalation: null,
  caution: null,
  onDelayMs: 0,
  offDelayMs: 0,
  hours: null,
  level: 'breach',
  suppress: null,
  latching: false,
  replaces: null,
});
const metric = (id: string, name: string) => ({
  id,
  key: name,
  name,
  assetName: 'Ironer 1',
  plantName: 'Quayside',
  unit: '°C',
});
const TEXT = writeDefinitionsFile(
  { definitions: [], rules: [rule('Too hot', '10'), rule('Too wet', '11'), rule('Too slow', '12')] },
  {
    metrics: [metric('10', 'Bed'), metric('11', 'Moisture'), metric('12', 'Speed')] as never,
    assets: [],
    boards: [],
    indicators: [],
    people: [{ id: '3', name: 'Dele Marsh' }],
  },
);

function show(answers: Answers = {}) {
  return renderScreen(<DefinitionsInScreen />, {
    'GET /api/session': signedIn('analyst'),
    // Speed is not here, and nobody called Dele Marsh.
    'POST /api/metrics/named': () => [metricHere('20', 'Bed'), metricHere('21', 'Moisture')],
    'GET /api/people': [],
    'GET /api/alarm-rules': [],
    ...answers,
  });
}
const metricHere = (id: string, name: string) => ({
  ...DEFAULT_METRIC,
  id,
  key: name,
  name,
  assetId: '2',
  assetName: 'Ironer 1',
  plantId: '1',
  plantName: 'Quayside',
  unit: '°C',
});

const choose = async (person: ReturnType<typeof renderScreen>['person'], text: string): Promise<void> =>
  person.upload(
    await screen.findByLabelText('File of rules and indicators'),
    // jsdom has files without text().
    Object.assign(new File([text], 'rules.json', { type: 'application/json' }), {
      text: () => Promise.resolve(text),
    }),
  );

describe('a file of rules', () => {
  it('is told line by line before and after, and only what can be made is made', async () => {
    const { person, sent } = show({
      'POST /api/alarm-rules': new Refused(403, { code: 'NOT_ALLOWED', message: 'Not at this plant.' }),
    });
    await choose(person, TEXT);
    expect(await screen.findByText('2 can be made, 1 not made.')).toBeTruthy();
    expect(screen.getAllByText('can be made · Dele Marsh is not here and is left out.')).toHaveLength(2);
    expect(screen.getByText('not made · Speed, Quayside / Ironer 1 is not here.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Make 2 of 3' }));
    expect(await screen.findByText('3 not made.')).toBeTruthy();
    expect(screen.getAllByText('not made · Not at this plant.')).toHaveLength(2);
    const posted = sent.filter(({ method, path }) => method === 'POST' && path === '/api/alarm-rules');
    expect(posted.map(({ body }) => body)).toMatchObject([
      { name: 'Too hot', metricId: '20', told: [] },
      { name: 'Too wet', metricId: '21', told: [] },
    ]);
  });

  it('that is something else is refused with why', async () => {
    const { person } = show();
    await choose(person, '{"kind":"vivid-beacon-board"}');
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toContain('not a file of rules and indicators'),
    );
  });
});

describe('a list', () => {
  it('goes out as a file, or says why not; only those who build bring one in', async () => {
    const write = jest.fn(() => Promise.reject(new Error('No connection.')));
    const { person, unmount } = renderScreen(
      <DefinitionsOut what="Rules" file="rules.json" build={false} write={write} />,
      {},
    );
    await person.click(screen.getByRole('button', { name: 'Rules as a file' }));
    expect((await screen.findByRole('alert')).textContent).toContain('No connection.');
    expect(screen.queryByRole('button', { name: 'From a file' })).toBeNull();
    unmount();
    const again = renderScreen(<DefinitionsOut what="Rules" file="rules.json" build write={write} />, {});
    await again.person.click(screen.getByRole('button', { name: 'From a file' }));
    expect(mockRouter.push).toHaveBeenCalledWith('/from-file');
  });
});
