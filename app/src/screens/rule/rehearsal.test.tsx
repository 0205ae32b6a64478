import { limitsOfTest } from '@vivid-beacon/core';
import { fireEvent, screen } from '@testing-library/react';
import { scaleLinear } from 'd3-scale';
import { renderScreen } from '../../testing/renderScreen';
import { draggedLimits } from './draggedLimits';
import { LimitHandle } from './LimitHandle';
import { RehearsalStrip } from './RehearsalStrip';

const DAY = 86_400_000;
const y = scaleLinear().domain([100, 200]).range([72, 0]);

describe('the handle of a limit on the course', () => {
  const show = (value: number, decimals = 1) => {
    const onChange = jest.fn();
    renderScreen(
      <LimitHandle
        x={300}
        value={value}
        scale={y}
        name="Limit on the course"
        unit="°C"
        decimals={decimals}
        onChange={onChange}
      />,
      {},
    );
    return { slider: screen.getByRole('slider', { name: 'Limit on the course' }), onChange };
  };

  it('tells its value and its ends', () => {
    const { slider } = show(150);
    expect(slider.getAttribute('aria-valuetext')!.replace(/\s/g, ' ')).toBe('150.0 °C');
    expect(slider.getAttribute('aria-valuemin')).toBe('100');
    expect(slider.getAttribute('aria-valuemax')).toBe('200');
    expect(slider.getAttribute('aria-orientation')).toBe('vertical');
  });

  it('is moved by the arrow keys, six steps with Shift, and stops at the ends of the scale', () => {
    const { slider, onChange } = show(150);
    fireEvent.keyDown(slider, { key: 'ArrowUp' });
    expect(onChange).toHaveBeenLastCalledWith(150.1);
    fireEvent.keyDown(slider, { key: 'ArrowDown', shiftKey: true });
    expect(onChange).toHaveBeenLastCalledWith(149.4);
    fireEvent.keyDown(slider, { key: 'Home' });
    expect(onChange).toHaveBeenCalledTimes(2);
  });

  it('does not leave the scale', () => {
    const { slider, onChange } = show(200, 0);
    fireEvent.keyDown(slider, { key: 'ArrowUp' });
    expect(onChange).toHaveBeenLastCalledWith(200);
  });
});

describe('limits on the course', () => {
  it('are those of a limit and of the ends of a band, which do not pass one another', () => {
    const [limit] = limitsOfTest({ kind: 'limit', side: 'above', limit: 5, deadband: 1 });
    expect(limit.test(7)).toEqual({ kind: 'limit', side: 'above', limit: 7, deadband: 1 });
    const [high, low] = limitsOfTest({ kind: 'outside', low: 2, high: 8, deadband: 0 });
    expect([high.value, low.value]).toEqual([8, 2]);
    expect(high.test(1)).toMatchObject({ low: 2, high: 2 });
    expect(low.test(9)).toMatchObject({ low: 8, high: 8 });
  });

  it('are none where no value decides', () => {
    expect(limitsOfTest({ kind: 'silence', forMs: 60_000 })).toEqual([]);
    expect(limitsOfTest({ kind: 'consumption', limit: 3, per: 'day', pace: false })).toEqual([]);
  });
});

describe('the limits of a rule of two stages', () => {
  const limit = (value: number) => ({ kind: 'limit', side: 'above', limit: value, deadband: 0 }) as const;
  const caution = {
    test: limit(195),
    priority: 'low',
    message: '',
    toDo: '',
    told: [],
    escalation: null,
  } as const;

  it('are dragged each for itself', () => {
    const onTest = jest.fn();
    const onCaution = jest.fn();
    const [breach, milder] = draggedLimits({ test: limit(205), caution }, onTest, onCaution);
    expect([breach.level, milder.level, milder.name]).toEqual([
      'breach',
      'caution',
      'Caution: Limit on the course',
    ]);
    breach.move(210);
    milder.move(190);
    expect(onTest).toHaveBeenCalledWith(limit(210));
    expect(onCaution).toHaveBeenCalledWith({ ...caution, test: limit(190) });
  });

  it('of changes and amounts stay more than nothing', () => {
    const onTest = jest.fn();
    const test = { kind: 'consumption', limit: 50, per: 'day', pace: false } as const;
    draggedLimits({ test, caution: null }, onTest, jest.fn())[0].move(-3);
    expect(onTest).toHaveBeenCalledWith({ ...test, limit: 0.05 });
  });
});

describe('a strip of the rehearsed time', () => {
  const strip = (alarms: { start: number; end: number | null }[], course: boolean) => {
    renderScreen(
      <RehearsalStrip
        width={300}
        start={10 * DAY}
        length={10 * DAY}
        alarms={alarms}
        course={course ? { t: [9, 11, 12, 25].map((d) => d * DAY), v: [150, 160, null, 170], y } : null}
        cautions={[]}
        limits={[{ name: 'Limit', value: 180, level: 'breach' }]}
      />,
      {},
    );
    return document.body;
  };

  it('marks alarms that begin in it, and the rest of one that began before', () => {
    const found = strip(
      [
        { start: 8 * DAY, end: 11 * DAY },
        { start: 15 * DAY, end: null },
        { start: 30 * DAY, end: 31 * DAY },
      ],
      false,
    );
    const bars = [...found.querySelectorAll('rect')].filter((each) => each.getAttribute('y') === '20');
    expect(bars.map((each) => [each.getAttribute('x'), each.getAttribute('width')])).toEqual([
      ['0', '30'],
      ['150', '150'],
    ]);
    // One star: only one of them begins here.
    expect(found.querySelectorAll('path')).toHaveLength(1);
  });

  it('draws the part of the course that lies in it, with the limit across', () => {
    const found = strip([], true);
    const [line, limit] = [...found.querySelectorAll('path')].map((each) => each.getAttribute('d'));
    expect(line).toMatch(/^M30 /);
    expect(limit).toBe(`M0 ${y(180)}H300`);
  });
});
