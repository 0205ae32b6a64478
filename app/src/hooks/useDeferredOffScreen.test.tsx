import { act, render, screen } from '@testing-library/react';
import { useDeferredOffScreen } from './useDeferredOffScreen';

jest.mock('./whenIdle', () => ({
  whenIdle: (work: () => void) => {
    const timer = setTimeout(work, 100);
    return () => clearTimeout(timer);
  },
}));

function Shown({ value, inSight }: { readonly value: number; readonly inSight: boolean }) {
  return useDeferredOffScreen(<p>{`value ${value}`}</p>, inSight);
}

describe('what is drawn out of sight', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('stays as it was until nothing more urgent waits', () => {
    const { rerender } = render(<Shown value={1} inSight={false} />);
    expect(screen.getByText('value 1')).toBeTruthy();
    rerender(<Shown value={2} inSight={false} />);
    rerender(<Shown value={3} inSight={false} />);
    expect(screen.getByText('value 1')).toBeTruthy();
    act(() => jest.advanceTimersByTime(100));
    expect(screen.getByText('value 3')).toBeTruthy();
    // Idle again.
    rerender(<Shown value={4} inSight={false} />);
    expect(screen.getByText('value 3')).toBeTruthy();
  });

  it('is as it should be as soon as it is in sight', () => {
    const { rerender } = render(<Shown value={1} inSight={false} />);
    rerender(<Shown value={2} inSight={false} />);
    rerender(<Shown value={2} inSight />);
    expect(screen.getByText('value 2')).toBeTruthy();
    rerender(<Shown value={3} inSight />);
    expect(screen.getByText('value 3')).toBeTruthy();
  });
});
