import { useEffect } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import type { LiveMessage, LiveTopic } from '@vivid-beacon/core';
import { readAgain } from './readAgain';
import { readEverythingElseAgain } from './session';
import { useConnectionStore } from '../stores/connectionStore';

/** The queries that a change invalidates. Readings follow samples at most every few seconds. */
const OLD: Readonly<Record<Exclude<LiveTopic, 'away' | 'everything'>, readonly string[]>> = {
  alarms: ['watch', 'alarms'],
  flags: ['watch', 'flags'],
  boards: ['boards'],
  metrics: ['metrics'],
  samples: ['readings'],
  logs: ['logs', 'watch'],
  notices: ['notices'],
  indicators: ['indicators', 'watch', 'readings'],
};
/** Retry delay of a refused connection while the database is unavailable. */
const TRY_AGAIN_MS = 2000;
const READINGS_AT_MOST_EVERY_MS = 5000;

/** Keeps screens up to date while signed in. The browser reconnects by itself. */
export function useLive(on: boolean): void {
  const client = useQueryClient();
  const setConnected = useConnectionStore((state) => state.actions.setConnected);
  useEffect(() => {
    if (!on) return undefined;
    const refresh = makeRefresher(client);
    let lost = false;
    let source: EventSource;
    let again: ReturnType<typeof setTimeout> | undefined;
    const open = (): void => {
      source = new EventSource('/api/live');
      source.addEventListener('open', () => {
        setConnected(true);
        // Changes during a lost connection were missed, so everything is refetched.
        if (lost) void client.invalidateQueries();
        // So were changes between the first fetch and this moment: alarms must not be missed.
        else for (const topic of OLD.alarms) readAgain(client, topic);
        lost = false;
      });
      source.addEventListener('error', () => {
        lost = true;
        setConnected(false);
        if (source.readyState !== EventSource.CLOSED) return;
        // Refused: the session has ended, which leads to the sign-in screen, or the server is not ready yet.
        void client.invalidateQueries({ queryKey: ['session'] });
        again = setTimeout(open, TRY_AGAIN_MS);
      });
      source.addEventListener('rights', () => {
        lost = true;
        void takeNewRights(client);
      });
      source.addEventListener('change', (event: MessageEvent<string>) => {
        const { topic } = JSON.parse(event.data) as LiveMessage;
        if (topic === 'away' || topic === 'everything') setConnected(topic === 'everything');
        if (topic === 'everything') void client.invalidateQueries();
        else if (topic !== 'away') refresh(topic);
      });
    };
    open();
    return () => {
      clearTimeout(again);
      source.close();
    };
  }, [on, client, setConnected]);
}

/** What was read with other rights is forgotten before anything is read again; the page says why. */
async function takeNewRights(client: QueryClient): Promise<void> {
  useConnectionStore.getState().actions.setRightsChanged(true);
  await client.invalidateQueries({ queryKey: ['session'] });
  await readEverythingElseAgain(client);
}

function makeRefresher(client: QueryClient): (topic: keyof typeof OLD) => void {
  let waiting: ReturnType<typeof setTimeout> | null = null;
  return (topic) => {
    if (topic !== 'samples') {
      for (const each of OLD[topic]) readAgain(client, each);
      return;
    }
    waiting ??= setTimeout(() => {
      waiting = null;
      for (const each of OLD.samples) readAgain(client, each);
    }, READINGS_AT_MOST_EVERY_MS);
  };
}
