import { readingHandler } from '../readings/readingHandler';
import { readWatch } from './readWatch';

export const onWatchReading = readingHandler('onWatch', (context) => readWatch(context), { unbounded: true });
