import { fireEvent } from '@testing-library/react';
import { renderScreen } from '../testing/renderScreen';
import { keyName, useKeys } from './useKeys';

function Screen({ heard, dialog = false }: { readonly heard: string[]; readonly dialog?: boolean }) {
  useKeys({
    d: () => heard.push('d'),
    '?': () => heard.push('?'),
    Escape: () => heard.push('Escape'),
    'Ctrl+z': () => heard.push('Ctrl+z'),
    'Ctrl+Shift+z': () => heard.push('Ctrl+Shift+z'),
  });
  return (
    <>
      <input aria-label="field" />
      <button type="button">button</button>
      {dialog && <div role="dialog" />}
    </>
  );
}

describe('useKeys', () => {
  it('hears keys of the screen with Ctrl or Cmd, and leaves others alone', () => {
    const heard: string[] = [];
    renderScreen(<Screen heard={heard} />);
    for (const event of [
      { key: 'd' },
      { key: 'D', shiftKey: true },
      { key: '?', shiftKey: true },
      { key: 'Escape' },
      { key: 'z', ctrlKey: true },
      { key: 'Z', metaKey: true, shiftKey: true },
      { key: 'd', ctrlKey: true },
      { key: 'd', altKey: true },
      { key: 'x' },
    ])
      fireEvent.keyDown(document.body, event);
    expect(heard).toEqual(['d', 'd', '?', 'Escape', 'Ctrl+z', 'Ctrl+Shift+z']);
  });

  it('is silent while something is typed, a dialog is open, or the key was taken', () => {
    const heard: string[] = [];
    const { getByLabelText, getByRole, rerender } = renderScreen(<Screen heard={heard} />);
    fireEvent.keyDown(getByLabelText('field'), { key: 'd' });
    const button = getByRole('button');
    button.addEventListener('keydown', (event) => event.preventDefault());
    fireEvent.keyDown(button, { key: 'd' });
    rerender(<Screen heard={heard} dialog />);
    fireEvent.keyDown(document.body, { key: 'd' });
    expect(heard).toEqual([]);
  });

  it('names keys the same however they are pressed', () => {
    const key = (part: object) =>
      keyName({ key: 'a', ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...part });
    expect([key({}), key({ metaKey: true }), key({ altKey: true }), key({ key: 'ArrowLeft' })]).toEqual([
      'a',
      'Ctrl+a',
      'Alt+a',
      'ArrowLeft',
    ]);
  });
});
