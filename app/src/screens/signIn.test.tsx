import { screen, waitFor } from '@testing-library/react';
import { Refused, renderScreen, type Answers } from '../testing/renderScreen';
import { SIGNED_OUT } from '../testing/signedIn';
import { SignInScreen } from './SignInScreen';

jest.setTimeout(30_000);

const SIGNED_IN = { ...SIGNED_OUT, person: { id: '1', name: 'Dele Marsh', role: 'analyst' } };

function show(state = SIGNED_OUT, answers: Answers = {}) {
  return renderScreen(<SignInScreen state={state} />, { 'POST /api/session': SIGNED_IN, ...answers });
}

describe('signing in', () => {
  it('sends address and password, by Enter too', async () => {
    const { person, sent } = show();
    await person.type(screen.getByLabelText('E-mail address'), 'dele@hollowmere.example');
    await person.type(screen.getByLabelText('Password'), 'a long enough password{Enter}');
    await waitFor(() =>
      expect(sent).toMatchObject([
        {
          method: 'POST',
          path: '/api/session',
          body: { email: 'dele@hollowmere.example', password: 'a long enough password' },
        },
      ]),
    );
  });

  it('asks for what is missing before anything is sent', async () => {
    const { person, sent } = show();
    await person.type(screen.getByLabelText('E-mail address'), 'dele');
    await person.click(screen.getByRole('button', { name: 'Sign in' }));
    await waitFor(() =>
      expect(screen.getByLabelText('E-mail address').getAttribute('aria-invalid')).toBe('true'),
    );
    expect(sent).toEqual([]);
  });

  it('says why it was refused, and keeps the address', async () => {
    const { person } = show(SIGNED_OUT, {
      'POST /api/session': new Refused(401, {
        code: 'BAD_SIGN_IN' as never,
        message: 'Address or password is wrong.',
      }),
    });
    const email = screen.getByLabelText<HTMLInputElement>('E-mail address');
    await person.type(email, 'dele@hollowmere.example');
    await person.type(screen.getByLabelText('Password'), 'wrong password');
    await person.click(screen.getByRole('button', { name: 'Sign in' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Address or password is wrong.');
    expect(email.value).toBe('dele@hollowmere.example');
  });

  it('hides the password and tells a password manager what is what', () => {
    show();
    const password = screen.getByLabelText('Password');
    expect(password.getAttribute('type')).toBe('password');
    expect(password.getAttribute('autocomplete')).toBe('current-password');
    expect(screen.getByLabelText('E-mail address').getAttribute('autocomplete')).toBe('username');
  });

  it('offers the accounts of a demo, and none otherwise', async () => {
    const account = {
      duty: 'Analyst',
      role: 'analyst',
      plants: [],
      name: 'Dele Marsh',
      email: 'dele@hollowmere.example',
      password: 'demo password',
    } as const;
    const { person, sent, unmount } = show({ ...SIGNED_OUT, demoAccounts: [account] });
    await person.click(screen.getByLabelText('Sign in as Analyst, Dele Marsh'));
    await waitFor(() =>
      expect(sent[0].body).toEqual({ email: account.email, password: account.password, code: null }),
    );
    unmount();
    show();
    expect(screen.queryByText('Look around as')).toBeNull();
  });
});

describe('the provider', () => {
  afterEach(() => window.history.replaceState(null, '', '/'));

  it('is offered where one is set, and says why somebody was sent back', () => {
    window.history.replaceState(null, '', '/?signIn=taken');
    show({ ...SIGNED_OUT, provider: 'Hollowmere accounts' });
    expect(screen.getByRole('button', { name: 'Sign in with Hollowmere accounts' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toContain(
      'belongs to another account of Hollowmere accounts',
    );
  });

  it('is not offered where none is set; a problem that was made up says nothing', () => {
    window.history.replaceState(null, '', '/?signIn=toString');
    const { unmount } = show();
    expect(screen.queryByRole('button', { name: /^Sign in with/ })).toBeNull();
    unmount();
    show({ ...SIGNED_OUT, provider: 'Hollowmere accounts' });
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
