import { useQueryClient } from '@tanstack/react-query';
import { del, get, set } from 'idb-keyval';
import { useEffect, useState } from 'react';
import { keepAnswers, restoreAnswers, type AnswerStore } from './keptAnswers';

export const DEVICE_STORE: AnswerStore = { get, set, del };

/** Puts back and keeps the answers of a person on this device. @returns true once they may be shown. */
export function useKeptAnswers(personId: string | null): boolean {
  const client = useQueryClient();
  const [ready, setReady] = useState<string | null>(null);
  useEffect(() => {
    if (personId === null) return undefined;
    let stop = (): void => undefined;
    let gone = false;
    void restoreAnswers(client, DEVICE_STORE, personId, Date.now())
      .catch(() => undefined)
      .then(() => {
        if (gone) return;
        setReady(personId);
        stop = keepAnswers(client, DEVICE_STORE, personId, Date.now);
      });
    return () => {
      gone = true;
      stop();
    };
  }, [client, personId]);
  return ready === personId;
}
