import { fireEvent, render, screen } from '@testing-library/react';
import { ReadoutGuard } from './ReadoutGuard';

let broken = true;
function Drawing() {
  if (broken) throw new RangeError('a scale of nothing');
  return <p>drawn</p>;
}

describe('a readout that cannot be drawn', () => {
  it('says so, leaves the others alone, and is tried again when asked or when it becomes another', () => {
    const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const board = (of: number) => (
      <>
        <p>other</p>
        <ReadoutGuard of={of}>
          <Drawing />
        </ReadoutGuard>
      </>
    );
    broken = true;
    const { rerender } = render(board(1));
    expect(screen.getByText('other')).toBeTruthy();
    expect(screen.getByText(/Tell your administrator: a scale of nothing/)).toBeTruthy();
    broken = false;
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(screen.getByText('drawn')).toBeTruthy();
    broken = true;
    rerender(board(2));
    expect(screen.queryByText('drawn')).toBeNull();
    broken = false;
    rerender(board(3));
    expect(screen.getByText('drawn')).toBeTruthy();
    silent.mockRestore();
  });
});
