import { DAY_MS } from './lengths';
import { resolveWindow } from './window';
import type { WindowSpec } from './windowSpec';

/** About how long a window is, ms: enough to choose periods by. A day where it cannot be told without a calendar. */
export function lengthOfWindow(window: WindowSpec, zone: string): number {
  try {
    // Only its length counts, so any moment does.
    const { start, end } = resolveWindow(window, Date.UTC(2026, 5, 15, 12), zone);
    return end - start;
  } catch {
    return DAY_MS;
  }
}
