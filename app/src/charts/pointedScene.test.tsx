import { fireEvent, render, screen } from '@testing-library/react';
import { ringOf } from '@vivid-beacon/core';
import { gaugeScene, ringScene } from '@vivid-beacon/core/src/pictures';
import { DAY } from '@vivid-beacon/core/src/drawing/palette';
import { PointedScene } from './PointedScene';
import { SceneView } from './SceneView';

const ring = ringOf([
  { key: 'a', name: 'Quayside', value: 3 },
  { key: 'b', name: 'Upper Weir', value: 1 },
])!;
const scene = ringScene({ ring, focused: null, total: null }, 200);

describe('a scene whose parts are pointed at', () => {
  it('is walked with the arrow keys, tells each part, and acts on it with Enter', () => {
    const pressed: string[] = [];
    render(<PointedScene scene={scene} name="Washed weight" onPress={(key) => pressed.push(key)} />);
    const group = screen.getByRole('group', { name: /^Washed weight: Quayside 75 %, Upper Weir 25 %\./ });
    const told = (): string | null => screen.getByRole('status').getAttribute('aria-label');
    expect(told()).toBeFalsy();
    fireEvent.keyDown(group, { key: 'Enter' });
    expect(pressed).toEqual([]);
    fireEvent.keyDown(group, { key: 'ArrowRight' });
    expect(told()).toBe('Quayside 75 %');
    fireEvent.keyDown(group, { key: 'ArrowRight' });
    fireEvent.keyDown(group, { key: 'Enter' });
    fireEvent.keyDown(group, { key: 'ArrowRight' });
    fireEvent.keyDown(group, { key: ' ' });
    expect([told(), pressed]).toEqual(['Quayside 75 %', ['b']]);
    fireEvent.keyDown(group, { key: 'ArrowLeft' });
    expect(told()).toBe('Upper Weir 25 %');
    fireEvent.keyDown(group, { key: 'Escape' });
    expect(told()).toBeFalsy();
  });

  it('acts on the part that is pressed, and on none beside it', () => {
    const pressed: string[] = [];
    render(<PointedScene scene={scene} name="Washed weight" onPress={(key) => pressed.push(key)} />);
    const group = screen.getByRole('group', { name: /^Washed weight/ });
    fireEvent.click(group, { clientX: 100 + 80, clientY: 100 + 5 });
    fireEvent.click(group, { clientX: 100 - 60, clientY: 100 - 60 });
    fireEvent.click(group, { clientX: 100, clientY: 100 });
    expect(pressed).toEqual(['a', 'b']);
  });
});

describe('a scene on the screen', () => {
  const options = { level: 'breach', band: null, reference: null, unit: 'kW', decimals: 0 } as const;

  it('has the colours of the theme, its words, and what it refers to once', () => {
    const drawn = gaugeScene({ ...options, value: 42 }, 200);
    const { container } = render(<SceneView scene={drawn} name={drawn.spoken} />);
    expect(screen.getByRole('img', { name: '42 kW' })).toBeTruthy();
    expect(container.textContent).toContain('42');
    const lights = container.querySelectorAll('radialGradient');
    expect(lights).toHaveLength(1);
    expect(container.querySelectorAll(`[fill="url(#${lights[0].id})"]`)).toHaveLength(2);
    expect(container.querySelector('stop')!.getAttribute('stop-color')).toBe(DAY.breach);
  });

  it('keeps the elements it has when it becomes another', () => {
    const { container, rerender } = render(<SceneView scene={gaugeScene({ ...options, value: 10 }, 200)} />);
    const before = [...container.querySelectorAll('path')];
    rerender(<SceneView scene={gaugeScene({ ...options, value: 12 }, 200)} />);
    const after = new Set(container.querySelectorAll('path'));
    expect(before.filter((path) => after.has(path))).toHaveLength(before.length);
  });
});
