import type { ReactNode } from 'react';
import { Loading } from './Loading';
import { Notice } from './Notice';

/** A question to the server, as far as it has been answered. */
export interface Asked<T> {
  readonly data: T | undefined;
  readonly error: Error | null;
  readonly refetch: () => unknown;
}

interface AnswerProps<T> {
  readonly query: Asked<T>;
  /** What is being read, for people: "Reading alarms". */
  readonly reading: string;
  readonly children: (data: T) => ReactNode;
}

/** Shows an answer of the server, or that it is on its way, or why it could not be had. */
export function Answer<T>({ query, reading, children }: AnswerProps<T>) {
  if (query.data !== undefined) return <>{children(query.data)}</>;
  if (query.error !== null) {
    return (
      <Notice
        kind="error"
        title="This could not be read"
        text={query.error.message}
        action={{ label: 'Read again', onPress: () => void query.refetch() }}
      />
    );
  }
  return <Loading what={reading} />;
}
