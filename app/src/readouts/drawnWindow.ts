import { formatWindow, sinceWords } from '@vivid-beacon/core';
import type { ReadData } from '@vivid-beacon/core/src/boards';

/** The stretch of time shown: as dates, or relative to a start event. */
export function drawnWindow(data: ReadData & { readonly aligned?: boolean }): string {
  const { window, zone, now } = data;
  return data.aligned
    ? `${sinceWords(window.start)} to ${sinceWords(window.end)}`
    : formatWindow(window.start, window.end, zone, now);
}
