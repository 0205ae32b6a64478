import { View } from 'react-native';
import { act, fireEvent, screen, within } from '@testing-library/react';
import type { FirstSteps, Role } from '@vivid-beacon/core';
import { RoleGate } from '../screens/RoleGate';
import { FirstStepsSection, isSetUp } from '../screens/watch/FirstStepsSection';
import { renderScreen } from '../testing/renderScreen';
import { Button } from './Button';
import { ListPage, ListWithDetail } from './ListWithDetail';
import { useLeaving } from './LeaveTray';
import { Page } from './Page';
import { TermButton } from './TermButton';
import { Tray } from './Tray';
import { Words } from './Words';
import { personOf, signedIn } from '../testing/signedIn';

jest.setTimeout(30_000);
let mockPath = '/alarms';
let mockWide = true;
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  usePathname: () => mockPath,
  useRouter: () => ({ push: mockPush, replace: jest.fn() }),
  Slot: () => <p>the page of the address</p>,
}));
jest.mock('../hooks/useLayout', () => ({
  useLayout: () => ({ wide: mockWide, low: false, width: 1280, height: 800 }),
}));

const session = (role: Role) => ({
  'GET /api/session': signedIn(personOf(role, 'Ana Field', '1')),
});

describe('a list with its detail', () => {
  const shown = () =>
    renderScreen(
      <ListWithDetail
        base="/alarms"
        detail={/^\/alarms\/\d+$/}
        list={
          <Page title="Alarms">
            <Words as="body">the list</Words>
          </Page>
        }
      />,
      {},
    );

  it('stand side by side on a wide sheet, of which the entry is the main one', () => {
    mockPath = '/alarms/5';
    shown();
    expect(screen.getByText('the page of the address')).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'Alarms' })).getByText('the list')).toBeTruthy();
    expect(screen.queryByRole('main')).toBeNull();
  });

  it('are the main page while none is chosen, with what to do beside it', () => {
    mockPath = '/alarms';
    shown();
    expect(within(screen.getByRole('main')).getByText('the list')).toBeTruthy();
    expect(screen.getByText('the page of the address')).toBeTruthy();
    renderScreen(<ListPage list={<p>only the list</p>} hint="Choose an alarm." />, {});
    expect(screen.getByText('Choose an alarm.')).toBeTruthy();
    mockWide = false;
    renderScreen(<ListPage list={<p>only the list</p>} hint="Choose an alarm." />, {});
    expect(screen.getByText('only the list')).toBeTruthy();
    mockWide = true;
  });

  it('are pages of their own on the phone, and so is every other page below', () => {
    mockPath = '/alarms/rules/new';
    const { unmount } = shown();
    expect(screen.queryByText('the list')).toBeNull();
    unmount();
    mockPath = '/alarms/5';
    mockWide = false;
    shown();
    expect(screen.queryByText('the list')).toBeNull();
    mockWide = true;
  });
});

describe('a page that changes things', () => {
  const gated = (role: Role) =>
    renderScreen(
      <RoleGate least="analyst" to="write alarm rules">
        <Words as="body">the editor</Words>
      </RoleGate>,
      session(role),
    );

  it('tells those who may only look so, before they begin', async () => {
    gated('operator');
    expect(await screen.findByText('To write alarm rules takes the role analyst')).toBeTruthy();
    expect(screen.getByText(/Ana Field, operator/)).toBeTruthy();
    expect(screen.queryByText('the editor')).toBeNull();
  });

  it('opens for the role and those above it', async () => {
    gated('administrator');
    expect(await screen.findByText('the editor')).toBeTruthy();
  });
});

describe('leaving', () => {
  function Editor({ changed, onLeave }: { readonly changed: boolean; readonly onLeave: () => void }) {
    const { ask, question } = useLeaving(changed, onLeave);
    return (
      <>
        <Button label="Done here" onPress={ask} />
        {question}
      </>
    );
  }

  it('asks where something would be lost, also when the page is closed, and else does not', async () => {
    const left = jest.fn();
    const { person, rerender } = renderScreen(<Editor changed={false} onLeave={left} />, {});
    const closed = (): boolean => {
      const event = new Event('beforeunload', { cancelable: true });
      act(() => void window.dispatchEvent(event));
      return !event.defaultPrevented;
    };
    expect(closed()).toBe(true);
    await person.click(screen.getByRole('button', { name: 'Done here' }));
    expect(left).toHaveBeenCalledTimes(1);
    rerender(<Editor changed onLeave={left} />);
    expect(closed()).toBe(false);
    await person.click(screen.getByRole('button', { name: 'Done here' }));
    const tray = within(await screen.findByRole('dialog'));
    await person.click(tray.getByRole('button', { name: 'Go on here' }));
    expect(left).toHaveBeenCalledTimes(1);
    await person.click(screen.getByRole('button', { name: 'Done here' }));
    await person.click(await screen.findByRole('button', { name: 'Leave and lose the changes' }));
    expect(left).toHaveBeenCalledTimes(2);
  });
});

describe('a tray', () => {
  it('closes by Escape while what lies under it still has the focus and a use of its own for that key', () => {
    const onClose = jest.fn();
    const onKeyDown = jest.fn((event: { stopPropagation: () => void }) => event.stopPropagation());
    renderScreen(
      <>
        <View {...({ onKeyDown } as object)} tabIndex={0} role="group" aria-label="A drawing" />
        <Tray title="A cell" open onClose={onClose}>
          <Words as="body">Its value</Words>
        </Tray>
      </>,
      {},
    );
    fireEvent.keyDown(screen.getByRole('group', { name: 'A drawing' }), { key: 'Escape' });
    expect(onClose).toHaveBeenCalledTimes(1);
    expect(onKeyDown).not.toHaveBeenCalled();
    // Within it, Escape is heard once.
    fireEvent.keyDown(screen.getByText('Its value'), { key: 'Escape' });
    expect(onClose).toHaveBeenCalledTimes(2);
  });
});

describe('first steps', () => {
  const steps: FirstSteps = {
    plant: true,
    data: true,
    board: false,
    band: false,
    rule: false,
    people: true,
    away: false,
  };

  it('are ticked, lead on, and are put away', async () => {
    const { person, sent } = renderScreen(<FirstStepsSection steps={steps} />, {
      'PUT /api/first-steps': undefined,
    });
    expect(screen.getByText('2 of 5')).toBeTruthy();
    expect(screen.getByText('A file or a feed, done')).toBeTruthy();
    await person.click(screen.getByRole('link', { name: /An alarm rule/ }));
    expect(mockPush).toHaveBeenCalledWith('/alarms/rules/new');
    await person.click(screen.getByRole('button', { name: 'Put these steps away' }));
    expect(sent.find(({ path }) => path === '/api/first-steps')?.body).toEqual({ away: true });
  });

  it('are over once all are done, put away or not', () => {
    const all = { plant: true, data: true, board: true, band: true, rule: true, people: true };
    expect([isSetUp(steps), isSetUp({ ...all, away: false })]).toEqual([false, true]);
  });
});

describe('a word of the product', () => {
  it('says what it means, with the others below', async () => {
    const { person } = renderScreen(<TermButton term="rehearsal" />, {});
    await person.click(screen.getByRole('button', { name: 'What Rehearsal means' }));
    const tray = within(await screen.findByRole('dialog'));
    expect(tray.getByText(/^An alarm rule run over the past/)).toBeTruthy();
    expect(tray.getByText('Indicator')).toBeTruthy();
  });
});
