import { screen, waitFor } from '@testing-library/react';
import { Words } from '../components/Words';
import { renderScreen } from '../testing/renderScreen';
import { signedIn } from '../testing/signedIn';
import { useStartScreen } from './useStartScreen';

const mockReplace = jest.fn();
const mockPath = { now: '/' };
jest.mock('expo-router', () => ({
  useRouter: () => ({ replace: mockReplace }),
  usePathname: () => mockPath.now,
}));

function Pages() {
  useStartScreen();
  return <Words as="body">Pages</Words>;
}

const open = (path: string, startAt: string) => {
  mockReplace.mockClear();
  mockPath.now = path;
  return renderScreen(<Pages />, { 'GET /api/session': { ...signedIn('viewer'), startAt } });
};

describe('the start screen', () => {
  it('is opened from the first address, once', async () => {
    const { rerender } = open('/', '/boards/7');
    await waitFor(() => expect(mockReplace).toHaveBeenCalledWith('/boards/7'));
    // Back on On watch by a tap, it stays there.
    rerender(<Pages />);
    expect(mockReplace).toHaveBeenCalledTimes(1);
  });

  it('does not lead away from a link that was opened', async () => {
    const { sent } = open('/alarms/3', '/boards/7');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(await screen.findByText('Pages')).toBeTruthy();
    expect(mockReplace).not.toHaveBeenCalled();
  });
});
