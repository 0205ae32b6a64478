import type { AppContext } from '../http/appContext';

/** What a push is taken with: also in a thread that has nothing else. */
export type PushContext = Pick<AppContext, 'pool' | 'now'>;
