import { frameBatcher } from './frameBatcher';

describe('answers drawn together', () => {
  let frames: (() => void)[] = [];
  beforeEach(() => {
    jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
    frames = [];
    jest.spyOn(window, 'requestAnimationFrame').mockImplementation((frame) => frames.push(() => frame(0)));
  });
  afterEach(() => {
    jest.useRealTimers();
    jest.restoreAllMocks();
  });

  it('comes at once where nothing else is under way', async () => {
    const done: string[] = [];
    frameBatcher(() => false)(() => done.push('a'));
    await Promise.resolve();
    expect(done).toEqual(['a']);
    expect(frames).toHaveLength(0);
  });

  it('waits for the next frame while more is under way, and keeps the order', async () => {
    const done: string[] = [];
    let more = true;
    const schedule = frameBatcher(() => more);
    schedule(() => done.push('a'));
    // Nothing waits behind the last one, yet it does not overtake those before it.
    more = false;
    schedule(() => done.push('b'));
    await Promise.resolve();
    expect(done).toEqual([]);
    frames[0]();
    expect(done).toEqual(['a', 'b']);
    schedule(() => done.push('c'));
    await Promise.resolve();
    expect(done).toEqual(['a', 'b', 'c']);
  });

  it('comes once also where the browser draws no frames', () => {
    const done: string[] = [];
    frameBatcher(() => true)(() => done.push('a'));
    jest.advanceTimersByTime(300);
    frames[0]();
    expect(done).toEqual(['a']);
  });
});
