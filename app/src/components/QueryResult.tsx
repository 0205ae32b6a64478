import type { ReactNode } from 'react';
import { isGone } from '../api/client';
import { Loading } from './Loading';
import { Message } from './Message';

/** A query and its state. */
export interface PendingQuery<T> {
  readonly data: T | undefined;
  readonly error: Error | null;
  readonly refetch: () => unknown;
}

interface AnswerProps<T> {
  readonly query: PendingQuery<T>;
  /** What is being read, for people: "Loading alarms". */
  readonly reading: string;
  readonly children: (data: T) => ReactNode;
}

/** Shows the result of a query, its loading state, or its error. What is gone is not shown, whatever was read of it before. */
export function QueryResult<T>({ query, reading, children }: AnswerProps<T>) {
  if (query.data !== undefined && !isGone(query.error)) return <>{children(query.data)}</>;
  if (query.error !== null) {
    return (
      <Message
        kind="error"
        title="This could not be loaded"
        text={query.error.message}
        action={{ label: 'Try again', onPress: () => void query.refetch() }}
      />
    );
  }
  return <Loading what={reading} />;
}
