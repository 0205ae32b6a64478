import { render } from '@testing-library/react';
import { useKept } from './useKept';

function Shown({ value }: { readonly value: string | undefined }) {
  const kept = useKept(value);
  return <p>{`${kept.value ?? 'nothing'}${kept.old ? ', old' : ''}`}</p>;
}

describe('useKept', () => {
  it('stays with the last value while there is none, and says that it is old', () => {
    const { container, rerender } = render(<Shown value={undefined} />);
    const says = (value: string | undefined): string | null => {
      rerender(<Shown value={value} />);
      return container.textContent;
    };
    expect(container.textContent).toBe('nothing');
    expect(says('first')).toBe('first');
    expect(says(undefined)).toBe('first, old');
    expect(says('second')).toBe('second');
    expect(says(undefined)).toBe('second, old');
  });
});
