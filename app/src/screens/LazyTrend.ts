import { lazyScreen } from './lazyScreen';

/** A trend of one line, from the script of boards: its drawing is large, and boards are where most of it is needed. */
export const LazyTrend = lazyScreen(async () => (await import('./boardScreens')).SingleTrend);
