import { reading } from '../readings/reading';
import { readWatch } from './readWatch';

export const onWatchReading = reading('onWatch', (context) => readWatch(context), { unbounded: true });
