import type { AppContext } from '../http/appContext';

/** What taking a push needs, also in a worker thread. */
export type PushContext = Pick<AppContext, 'pool' | 'now'>;
