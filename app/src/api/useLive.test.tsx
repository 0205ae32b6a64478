import { QueryClient, QueryClientProvider, QueryObserver } from '@tanstack/react-query';
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useConnectionStore } from '../stores/connectionStore';
import { useLive } from './useLive';

/** The browser's end of live messages, driven by the test. */
class StandInSource extends EventTarget {
  static readonly CLOSED = 2;
  static opened: StandInSource[] = [];
  readyState = 0;

  constructor(readonly url: string) {
    super();
    StandInSource.opened.push(this);
  }

  close(): void {
    this.readyState = StandInSource.CLOSED;
  }

  hears(topic: string): void {
    this.dispatchEvent(new MessageEvent('change', { data: JSON.stringify({ topic, ids: [] }) }));
  }

  connects(): void {
    this.readyState = 1;
    this.dispatchEvent(new Event('open'));
  }

  /** The connection breaks; the browser retries by itself unless it was refused. */
  fails(refused: boolean): void {
    if (refused) this.readyState = StandInSource.CLOSED;
    this.dispatchEvent(new Event('error'));
  }
}

let client: QueryClient;
let readAgain: string[];
beforeEach(() => {
  jest.useFakeTimers();
  StandInSource.opened = [];
  (globalThis as { EventSource?: unknown }).EventSource = StandInSource;
  client = new QueryClient();
  readAgain = [];
  jest.spyOn(client, 'invalidateQueries').mockImplementation(async (filter) => {
    readAgain.push(String(filter?.queryKey ?? 'everything'));
  });
});
afterEach(() => {
  jest.useRealTimers();
  client.clear();
});

function listen(): StandInSource {
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  renderHook(() => useLive(true), { wrapper });
  const [source] = StandInSource.opened;
  act(() => source.connects());
  readAgain.length = 0;
  return source;
}
const connected = (): boolean => useConnectionStore.getState().connected;

describe('live messages', () => {
  it('make old what they name', () => {
    const source = listen();
    act(() => source.hears('flags'));
    expect(readAgain).toEqual(['watch', 'flags']);
  });

  it('say when the database is away, and read everything when it is back', () => {
    const source = listen();
    act(() => source.hears('away'));
    expect(connected()).toBe(false);
    act(() => source.hears('everything'));
    expect(connected()).toBe(true);
    expect(readAgain).toEqual(['everything']);
  });

  it('read everything after the connection was lost', () => {
    const source = listen();
    act(() => source.fails(false));
    expect(connected()).toBe(false);
    act(() => source.connects());
    expect(connected()).toBe(true);
    expect(readAgain).toEqual(['everything']);
    expect(StandInSource.opened).toHaveLength(1);
  });

  it('ask who is signed in when they are refused, and try again', () => {
    const source = listen();
    act(() => source.fails(true));
    expect(readAgain).toEqual(['session']);
    act(() => jest.advanceTimersByTime(2000));
    expect(StandInSource.opened).toHaveLength(2);
    act(() => StandInSource.opened[1].connects());
    expect(readAgain).toEqual(['session', 'everything']);
  });

  it('reads everything on screen again when the rights change, shows nothing of before meanwhile, and says so', async () => {
    const source = listen();
    let answer = 'Of another plant';
    const read = jest.fn(async () => answer);
    const watched = new QueryObserver(client, {
      queryKey: ['boards', '1'],
      queryFn: read,
      staleTime: Infinity,
    });
    const shown: unknown[] = [];
    const stop = watched.subscribe(({ data }) => shown.push(data));
    await act(() => jest.advanceTimersByTimeAsync(10));
    client.setQueryData(['boards', '2'], 'Of another plant, not on screen');
    answer = 'Of the own plant';
    await act(async () => {
      source.dispatchEvent(new MessageEvent('rights', { data: '{}' }));
      await jest.advanceTimersByTimeAsync(10);
    });
    stop();
    expect(useConnectionStore.getState().rightsChanged).toBe(true);
    expect(readAgain).toContain('session');
    expect(client.getQueryData(['boards', '2'])).toBeUndefined();
    const after = shown.slice(shown.indexOf('Of another plant') + 1);
    expect([after.includes(undefined), after.at(-1)]).toEqual([true, 'Of the own plant']);
  });
});
