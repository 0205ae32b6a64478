import { AsyncLocalStorage } from 'node:async_hooks';

/** Whose request is being answered, for the trail. */
export interface Origin {
  /** null = nobody is signed in. */
  readonly person: string | null;
  readonly name: string | null;
  /** Network address. */
  readonly address: string;
  /** "PUT /api/assets/:id". */
  readonly request: string;
  /** ms. */
  readonly at: number;
}

/*
 * Passed along by Node instead of by hand: every transaction that a request begins tells the database its origin, so that
 * no endpoint can change something without it.
 */
const origins = new AsyncLocalStorage<Origin>();

/** Runs `work`, and says of every change in it that it came from there. */
export function from<T>(origin: Origin, work: () => T): T {
  return origins.run(origin, work);
}

/** The origin of what is being done; undefined = the server itself. */
export function currentOrigin(): Origin | undefined {
  return origins.getStore();
}
