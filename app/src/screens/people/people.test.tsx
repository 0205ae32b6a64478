import { act, screen, waitFor, within } from '@testing-library/react';
import { USUAL_FORMATS, type Account, type OwnAccount, type TrailEntry } from '@vivid-beacon/core';
import { usePerson } from '../../api/session';
import { RightsStrip } from '../../components/RightsStrip';
import { useConnectionStore } from '../../stores/connectionStore';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { listedBoard } from '../../testing/boards';
import { SIGNED_OUT, personOf, signedIn } from '../../testing/signedIn';
import { agentWords } from '../account/agentWords';
import { OwnAccountScreen } from '../account/OwnAccountScreen';
import { WelcomeScreen } from '../account/WelcomeScreen';
import { SecondFactorGate } from '../account/SecondFactorGate';
import { RoleGate } from '../RoleGate';
import { SignInScreen } from '../SignInScreen';
import { TrailScreen } from '../trail/TrailScreen';
import { entryTitle, memberChanges } from '../trail/trailWords';
import { AccountScreen } from './AccountScreen';
import { InviteScreen } from './InviteScreen';
import { PeopleScreen } from './PeopleScreen';
import { rightsWords } from './rightsWords';

jest.setTimeout(30_000);
const mockPush = jest.fn();
const mockReplace = jest.fn();
jest.mock('expo-router', () => ({
  useRouter: () => ({ push: mockPush, navigate: jest.fn(), replace: mockReplace }),
  usePathname: () => '/people',
}));

const NOW = Date.now();
const plant = (id: string, name: string) => ({
  id,
  parentId: null,
  name,
  kind: 'plant',
  zone: 'Europe/London',
  plantId: id,
  ownZone: 'Europe/London',
  path: [id],
  title: name,
  attributes: {},
});
const PLANTS = [plant('1', 'Quayside'), plant('2', 'Foundry Lane')];
const account = (part: Partial<Account> = {}): Account => ({
  id: '7',
  name: 'Bela Strand',
  email: 'bela@hollowmere.example',
  role: 'operator',
  rights: { everywhere: null, plants: { '1': 'operator' } },
  state: 'active',
  seenAt: NOW,
  secondFactor: { on: false, required: false },
  invitedUntil: null,
  linkedAt: null,
  ...part,
});
const entry = (part: Partial<TrailEntry> = {}): TrailEntry => ({
  id: '12',
  at: NOW,
  personId: '1',
  personName: 'Runa Feld',
  address: '10.0.0.7',
  request: 'PUT /api/accounts/:id',
  action: 'changed',
  subject: 'person',
  subjectId: '7',
  name: 'Bela Strand',
  plantId: null,
  plantName: null,
  before: { name: 'Bela' },
  after: { name: 'Bela Strand' },
  hash: 'ab'.repeat(32),
  ...part,
});
const BASE: Answers = {
  'GET /api/session': signedIn(personOf('administrator', 'Runa Feld')),
  'GET /api/assets': PLANTS,
  'GET /api/accounts': {
    items: [account(), account({ id: '8', name: 'Nora Lind', state: 'invited', seenAt: null })],
    total: 2,
  },
  'GET /api/accounts/7': account(),
  'GET /api/trail': { items: [entry()], total: 1 },
};
const LINK = { path: `/welcome#${'a'.repeat(43)}`, endsAt: NOW + 3_600_000 };

describe('the list of people', () => {
  it('tells rights with the names of plants, and who has not come yet', async () => {
    const { person } = renderScreen(<PeopleScreen />, BASE);
    expect(await screen.findByText(/^operator at Quayside · last here/)).toBeTruthy();
    expect(screen.getByText(/invited, the link has ended$/)).toBeTruthy();
    await person.click(screen.getByRole('link', { name: /Nora Lind/ }));
    expect(mockPush).toHaveBeenCalledWith('/people/8');
  });
});

describe('an invitation', () => {
  it('gives a role at one plant, and shows the link once', async () => {
    const { person, sent } = renderScreen(<InviteScreen />, {
      ...BASE,
      'POST /api/accounts': { id: '9', link: LINK },
    });
    await person.type(screen.getByLabelText('Name'), 'Nora Lind');
    await person.type(screen.getByLabelText('E-mail address'), 'nora@hollowmere.example');
    await person.click(screen.getByRole('button', { name: 'Add a role at one plant' }));
    await person.click(await screen.findByRole('radio', { name: /Foundry Lane/ }));
    const own = await screen.findByRole('radiogroup', { name: 'Role at Foundry Lane' });
    await person.click(within(own).getByRole('radio', { name: 'analyst' }));
    await person.click(screen.getByRole('radio', { name: '7 days' }));
    await person.click(screen.getByRole('button', { name: 'Make the link' }));
    expect(await screen.findByText(`${window.location.origin}${LINK.path}`)).toBeTruthy();
    expect(sent.find(({ method }) => method === 'POST')!.body).toEqual({
      name: 'Nora Lind',
      email: 'nora@hollowmere.example',
      rights: { everywhere: null, plants: { '2': 'analyst' } },
      holdsForH: 168,
    });
  });

  it('keeps what was entered when it is refused', async () => {
    const { person } = renderScreen(<InviteScreen />, {
      ...BASE,
      'POST /api/accounts': new Refused(422, { code: 'BAD_INPUT', message: 'There is an account already.' }),
    });
    await person.type(screen.getByLabelText('Name'), 'Nora Lind');
    await person.click(screen.getByRole('button', { name: 'Make the link' }));
    expect(await screen.findByText('There is an account already.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Nora Lind');
  });
});

describe('an account', () => {
  it('changes rights, and shows what happened to it', async () => {
    const { person, sent } = renderScreen(<AccountScreen accountId="7" />, {
      ...BASE,
      'PUT /api/accounts/7': account(),
    });
    expect(await screen.findByText('Account changed: Bela Strand')).toBeTruthy();
    const save = screen.getByRole('button', { name: 'Save' });
    expect(save.getAttribute('aria-disabled')).toBe('true');
    const everywhere = screen.getByRole('radiogroup', { name: 'Role at every plant' });
    await person.click(within(everywhere).getByRole('radio', { name: 'viewer' }));
    await person.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toMatchObject({
        rights: { everywhere: 'viewer', plants: { '1': 'operator' } },
      }),
    );
  });

  it('is disabled after a question that says what follows', async () => {
    const { person, sent } = renderScreen(<AccountScreen accountId="7" />, {
      ...BASE,
      'PUT /api/accounts/7/disabled': account({ state: 'disabled' }),
    });
    await person.click(await screen.findByRole('button', { name: 'Disable' }));
    const asked = await screen.findByRole('dialog', { name: 'Disable Bela Strand' });
    expect(within(asked).getByText(/signed out everywhere at once/)).toBeTruthy();
    await person.click(within(asked).getByRole('button', { name: 'Disable' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({ disabled: true }),
    );
  });

  it('gets a new link to choose a password', async () => {
    const { person } = renderScreen(<AccountScreen accountId="7" />, {
      ...BASE,
      'POST /api/accounts/7/invitation': LINK,
    });
    await person.click(await screen.findByRole('button', { name: 'Reset the password' }));
    expect(await screen.findByText(/Hand this link to Bela Strand/)).toBeTruthy();
  });
});

describe('the page of an invitation', () => {
  const answers: Answers = {
    'GET /api/session': SIGNED_OUT,
    'POST /api/invitations/read': { name: 'Nora Lind', email: 'nora@hollowmere.example', endsAt: NOW + 1000 },
    'POST /api/invitations': signedIn('operator'),
  };
  beforeEach(() => {
    window.location.hash = LINK.path.split('#')[1];
  });

  it('asks for a long password, and leads to the first screen', async () => {
    const { person, sent } = renderScreen(<WelcomeScreen />, answers);
    const field = await screen.findByLabelText('Password');
    await person.type(field, 'short');
    await person.click(screen.getByRole('button', { name: 'Set the password and sign in' }));
    expect(await screen.findByText(/^A password has at least 15 characters/)).toBeTruthy();
    expect(sent.some(({ path }) => path === '/api/invitations')).toBe(false);
    await person.type(field, ' is not enough of it');
    await person.click(screen.getByRole('button', { name: 'Set the password and sign in' }));
    await waitFor(() => expect(mockReplace).toHaveBeenCalledWith('/'));
    expect(sent.find(({ path }) => path === '/api/invitations')!.body).toEqual({
      token: 'a'.repeat(43),
      password: 'short is not enough of it',
    });
  });

  it('says that a link was used', async () => {
    renderScreen(<WelcomeScreen />, {
      ...answers,
      'POST /api/invitations/read': new Refused(404, {
        code: 'NOT_FOUND',
        message: 'This link was used already.',
      }),
    });
    expect(await screen.findByText(/This link was used already/)).toBeTruthy();
    expect(screen.queryByLabelText('Password')).toBeNull();
  });
});

describe('the own account', () => {
  const own: OwnAccount = {
    name: 'Bela Strand',
    email: 'bela@hollowmere.example',
    rights: { everywhere: null, plants: { '1': 'operator' } },
    startAt: '/',
    formats: null,
    secondFactor: { on: false, required: false },
    recoveryLeft: 0,
    sessions: [
      {
        id: 'a'.repeat(64),
        startedAt: NOW,
        seenAt: NOW,
        agent:
          'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0 Safari/537.36',
        address: '10.0.0.7',
        current: true,
      },
      {
        id: 'b'.repeat(64),
        startedAt: NOW - 3_600_000,
        seenAt: NOW - 60_000,
        agent: 'Mozilla/5.0 (Android 16; Mobile; rv:150.0) Gecko/150.0 Firefox/150.0',
        address: '10.0.0.8',
        current: false,
      },
    ],
  };
  const answers: Answers = {
    ...BASE,
    'GET /api/session': signedIn({ ...personOf('operator'), rights: own.rights }),
    'GET /api/own-account': own,
  };

  it('tells rights and devices, and signs another device out', async () => {
    const { person, sent } = renderScreen(<OwnAccountScreen />, {
      ...answers,
      [`DELETE /api/own-account/sessions/${'b'.repeat(64)}`]: undefined,
    });
    expect(await screen.findByText('Chrome on Linux, this device')).toBeTruthy();
    expect(await screen.findByText('Your rights: operator at Quayside.')).toBeTruthy();
    // Who does not manage people is not led there.
    expect(screen.queryByRole('link', { name: /Trail/ })).toBeNull();
    await person.click(screen.getByRole('button', { name: /^Sign out Firefox on Android/ }));
    await waitFor(() => expect(sent.some(({ method }) => method === 'DELETE')).toBe(true));
  });

  it('is left by signing out, which everything on screen hears of', async () => {
    let out = false;
    const Who = () => <p>{usePerson()?.name ?? 'nobody'}</p>;
    const { person } = renderScreen(
      <>
        <Who />
        <OwnAccountScreen />
      </>,
      {
        ...answers,
        'GET /api/session': () => (out ? SIGNED_OUT : answers['GET /api/session']),
        'DELETE /api/session': () => void (out = true),
      },
    );
    await screen.findByText('Chrome on Linux, this device');
    await person.click(screen.getByRole('button', { name: 'Sign out' }));
    expect(await screen.findByText('nobody')).toBeTruthy();
  });

  it('begins where it is wanted: on a board', async () => {
    const { person, sent } = renderScreen(<OwnAccountScreen />, {
      ...answers,
      'GET /api/boards': [listedBoard({ id: '4', title: 'Dryers' })],
      'PUT /api/own-account': undefined,
    });
    await person.click(await screen.findByRole('radio', { name: 'a board …' }));
    await person.click(await screen.findByRole('radio', { name: /Dryers/ }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({
        name: own.name,
        startAt: '/boards/4',
        formats: null,
      }),
    );
  });

  it('has formats of its own, or those of the device, shown as they would be', async () => {
    const { person, sent } = renderScreen(<OwnAccountScreen />, {
      ...answers,
      'PUT /api/own-account': undefined,
    });
    expect(await screen.findByText(/^Written as Thu 19 Nov 2026, 18:40, −12,345\.6\./)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'your own' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toMatchObject({ formats: USUAL_FORMATS }),
    );
  });

  it('of their own are changed one by one', async () => {
    const formats = { ...USUAL_FORMATS, numbers: '1.234,5', clock: '12' } as const;
    const { person, sent } = renderScreen(<OwnAccountScreen />, {
      ...answers,
      'GET /api/own-account': { ...own, formats },
      'PUT /api/own-account': undefined,
    });
    expect(await screen.findByText(/^Written as Thu 19 Nov 2026, 6:40 pm, −12\.345,6\./)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'Nov 19' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toMatchObject({
        formats: { ...formats, dateOrder: 'monthDay' },
      }),
    );
  });

  it('changes the password with the present one, and says why it was refused', async () => {
    const { person, sent } = renderScreen(<OwnAccountScreen />, {
      ...answers,
      'PUT /api/own-account/password': new Refused(401, {
        code: 'WRONG_PASSWORD',
        message: 'This is not your present password.',
      }),
    });
    await person.type(await screen.findByLabelText('New password'), 'nine brown bears by the river');
    await person.click(screen.getByRole('button', { name: 'Change the password' }));
    expect(await screen.findByText('Give your present password')).toBeTruthy();
    await person.type(screen.getByLabelText('Present password'), 'wrong');
    await person.click(screen.getByRole('button', { name: 'Change the password' }));
    expect(await screen.findByText('This is not your present password.')).toBeTruthy();
    expect(sent.find(({ method }) => method === 'PUT')!.body).toEqual({
      old: 'wrong',
      new: 'nine brown bears by the river',
    });
  });
});

describe('the second factor', () => {
  const own: OwnAccount = {
    name: 'Bela Strand',
    email: 'bela@hollowmere.example',
    rights: { everywhere: 'operator', plants: {} },
    startAt: '/',
    formats: null,
    secondFactor: { on: false, required: true },
    recoveryLeft: 0,
    sessions: [],
  };
  const uri = `otpauth://totp/Vivid%20Beacon:bela?secret=${'A'.repeat(32)}&issuer=Vivid%20Beacon`;

  it('that is required is set up before anything else: secret, first code, recovery codes', async () => {
    const { person, sent } = renderScreen(<SecondFactorGate />, {
      ...BASE,
      'GET /api/own-account': own,
      'POST /api/own-account/second-factor': { secret: 'A'.repeat(32), uri },
      'PUT /api/own-account/second-factor': { recoveryCodes: ['3f9a1-00000'], session: signedIn('operator') },
    });
    await person.type(await screen.findByLabelText(/^Present password/), 'seven grey geese');
    await person.click(screen.getByRole('button', { name: 'Set up a second factor' }));
    expect(await screen.findByText('AAAA '.repeat(8).trim())).toBeTruthy();
    expect(screen.getByRole('img', { name: 'QR code of the secret' })).toBeTruthy();
    await person.type(screen.getByLabelText('Code of six digits'), '287 082');
    await person.click(screen.getByRole('button', { name: 'Confirm' }));
    expect(await screen.findByText('3f9a1-00000')).toBeTruthy();
    expect(sent.find(({ method }) => method === 'PUT')!.body).toEqual({ code: '287 082' });
    await person.click(screen.getByRole('button', { name: 'I have written them down' }));
    expect(screen.queryByText('3f9a1-00000')).toBeNull();
  });

  it('is required of somebody, and removed when their device is lost', async () => {
    const { person, sent } = renderScreen(<AccountScreen accountId="7" />, {
      ...BASE,
      'GET /api/accounts/7': account({ secondFactor: { on: true, required: false } }),
      'PUT /api/accounts/7/second-factor': undefined,
      'DELETE /api/accounts/7/second-factor': undefined,
    });
    await person.click(await screen.findByRole('button', { name: 'Require a second factor' }));
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({ required: true }),
    );
    await person.click(screen.getByRole('button', { name: 'Remove a lost one' }));
    await person.click(await screen.findByRole('button', { name: 'Remove it' }));
    await waitFor(() => expect(sent.some(({ method }) => method === 'DELETE')).toBe(true));
  });

  it('is asked for once the password was right', async () => {
    let tries = 0;

    const { person, sent } = renderScreen(<SignInScreen state={SIGNED_OUT} />, {
      'GET /api/session': SIGNED_OUT,
      'POST /api/session': () =>
        tries++ === 0
          ? new Refused(401, { code: 'CODE_NEEDED', message: 'Give the code of your authenticator app.' })
          : signedIn('operator'),
    });
    expect(screen.queryByLabelText(/authenticator/)).toBeNull();
    await person.type(screen.getByLabelText('E-mail address'), 'bela@hollowmere.example');
    await person.type(screen.getByLabelText('Password'), 'seven grey geese');
    await person.click(screen.getByRole('button', { name: 'Sign in' }));
    await person.type(await screen.findByLabelText(/authenticator/), '287082');
    await person.click(screen.getByRole('button', { name: 'Sign in' }));
    await waitFor(() => expect(sent.filter(({ method }) => method === 'POST')).toHaveLength(2));
    expect(sent.at(-1)!.body).toMatchObject({ password: 'seven grey geese', code: '287082' });
  });
});

describe('the trail', () => {
  it('opens an entry to before and after, and checks the chain', async () => {
    const { person } = renderScreen(<TrailScreen />, {
      ...BASE,
      'GET /api/trail/subjects': [{ subject: 'person', entries: 1 }],
      'GET /api/trail/setting': { days: 1095 },
      'POST /api/trail/check': { entries: 1200, whole: true, broken: null, newest: 'cd'.repeat(32) },
    });
    await person.click(await screen.findByRole('button', { name: 'Details of entry 12' }));
    expect(screen.getByText('PUT /api/accounts/:id')).toBeTruthy();
    expect([screen.getByText('Bela'), screen.getByText('Bela Strand')]).toHaveLength(2);
    await person.click(screen.getByRole('button', { name: 'Check the chain' }));
    expect(await screen.findByText(/^All 1,200 entries follow from one another/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Kind: all' }));
    await person.click(await screen.findByRole('radio', { name: /^account/ }));
    expect(await screen.findByRole('button', { name: 'Kind: account' })).toBeTruthy();
  });

  it('asks before it is kept for a shorter time', async () => {
    const { person, sent } = renderScreen(<TrailScreen />, {
      ...BASE,
      'GET /api/trail/subjects': [],
      'GET /api/trail/setting': { days: 1095 },
      'PUT /api/trail/setting': undefined,
    });
    await person.click(await screen.findByRole('radio', { name: '90 days' }));
    expect(sent.some(({ method }) => method === 'PUT')).toBe(false);
    await person.click(await screen.findByRole('button', { name: 'Cut off older entries' }));
    await waitFor(() => expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({ days: 90 }));
  });

  it('says where a broken chain breaks', async () => {
    const { person } = renderScreen(<TrailScreen />, {
      ...BASE,
      'GET /api/trail/subjects': [],
      'GET /api/trail/setting': { days: 1095 },
      'POST /api/trail/check': { entries: 12, whole: false, broken: 5, newest: 'cd'.repeat(32) },
    });
    await person.click(await screen.findByRole('button', { name: 'Check the chain' }));
    expect(await screen.findByText(/^Entry 5 does not follow/)).toBeTruthy();
  });

  it.each([
    [{}, 'Account changed: Bela Strand'],
    [
      { subject: 'reference_value', name: null, subjectId: '4', action: 'added' },
      'Reference value added: no. 4',
    ],
    [{ subject: 'session', action: 'signInFailed', name: 'Dele Marsh' }, 'Wrong password: Dele Marsh'],
    [{ subject: 'session', action: 'signInFailed', name: null }, 'Wrong password'],
    [{ subject: 'new_table', action: 'removed', name: 'X' }, 'New table removed: X'],
  ])('writes %j as "%s"', (part, words) => {
    expect(entryTitle(entry(part))).toBe(words);
  });

  it('leaves out what is empty before and after', () => {
    const told = memberChanges(entry({ before: null, after: { name: 'A', note: null, told: [1] } }));
    expect(told).toEqual([
      { name: 'name', before: null, after: 'A' },
      { name: 'told', before: null, after: '[1]' },
    ]);
  });
});

describe('pages for administrators of every plant', () => {
  it('are closed to one of some plants, with words', async () => {
    const some = {
      ...personOf('administrator'),
      rights: { everywhere: null, plants: { '1': 'administrator' as const } },
    };
    renderScreen(
      <RoleGate least="administrator" everywhere to="manage people">
        <PeopleScreen />
      </RoleGate>,
      { ...BASE, 'GET /api/session': signedIn(some) },
    );
    expect(
      await screen.findByText('To manage people takes the role administrator at every plant'),
    ).toBeTruthy();
  });
});

describe('words', () => {
  it('tell rights', () => {
    const nameOf = (id: string) => ({ '1': 'Quayside' })[id];
    expect(rightsWords({ everywhere: 'viewer', plants: {} }, nameOf)).toBe('viewer at every plant');
    expect(rightsWords({ everywhere: 'viewer', plants: { '1': 'analyst' } }, nameOf)).toBe(
      'analyst at Quayside, viewer at every other plant',
    );
    const many = Object.fromEntries(['1', '2', '3', '4', '5'].map((id) => [id, 'viewer' as const]));
    expect(rightsWords({ everywhere: null, plants: many }, nameOf)).toContain('roles at 2 more plants');
  });

  it('tell devices', () => {
    expect(agentWords('')).toBe('A browser');
    expect(
      agentWords('Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19.0 Safari/604.1'),
    ).toBe('Safari on iOS');
  });
});

describe('changed rights', () => {
  it('are told until that is dismissed', async () => {
    const { person } = renderScreen(<RightsStrip />, {});
    expect(screen.queryByRole('status')).toBeNull();
    act(() => useConnectionStore.getState().actions.setRightsChanged(true));
    await person.click(await screen.findByRole('button', { name: 'Dismiss' }));
    expect(screen.queryByRole('status')).toBeNull();
  });
});
