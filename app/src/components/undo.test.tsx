import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useUndoStore } from '../stores/undoStore';
import { UndoStrip } from './UndoStrip';

const offer = (undo: () => Promise<unknown>): void =>
  useUndoStore.getState().actions.give({ words: 'Gas, Boiler removed', undo });

describe('what can be undone', () => {
  it('stays until it is undone, and is gone then', async () => {
    const undo = jest.fn().mockResolvedValue(undefined);
    offer(undo);
    const person = userEvent.setup();
    render(<UndoStrip />);
    expect(screen.getByRole('status').textContent).toContain('Gas, Boiler removed.');
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(screen.queryByRole('status')).toBeNull());
    expect(undo).toHaveBeenCalledTimes(1);
  });

  it('says why it could not be, and can be tried again or put away', async () => {
    const undo = jest.fn().mockRejectedValue(new Error('Another metric bears its name now.'));
    offer(undo);
    const person = userEvent.setup();
    render(<UndoStrip />);
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    await screen.findByText('Could not undo. Another metric bears its name now.');
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    expect(undo).toHaveBeenCalledTimes(2);
    await person.click(screen.getByRole('button', { name: 'Dismiss' }));
    expect(screen.queryByRole('status')).toBeNull();
  });
});
