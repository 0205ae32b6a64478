import { type WindowSpec } from './windowSpec';
import { WINDOW_UNITS, type WindowUnit } from './windowUnit';

/**
 * A window as short text for an address: "last:24:hour", "periods:7:day:current", "next:2:week",
 * "to-date:day", or an ISO 8601 interval of local times, "2026-11-19T06:00/2026-11-20".
 * @example windowText({ kind: 'toDate', unit: 'day' }) // => 'to-date:day'
 */
export function windowText(window: WindowSpec): string {
  switch (window.kind) {
    case 'rolling':
      return `last:${window.count}:${window.unit}`;
    case 'periods':
    case 'next':
      return [window.kind, window.count, window.unit, ...(window.current ? ['current'] : [])].join(':');
    case 'toDate':
      return `to-date:${window.unit}`;
    case 'absolute':
      return `${window.start}/${window.end}`;
  }
}

/** Undoes {@link windowText}; null for text that means no window. */
export function readWindowText(text: string): WindowSpec | null {
  if (text.includes('/')) {
    const [start, end, ...rest] = text.split('/');
    const local = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2})?)?$/;
    return rest.length === 0 && local.test(start) && local.test(end)
      ? { kind: 'absolute', start, end }
      : null;
  }
  const [kind, ...parts] = text.split(':');
  if (kind === 'to-date')
    return isUnit(parts[0]) && parts.length === 1 ? { kind: 'toDate', unit: parts[0] } : null;
  const [number, unit, current, ...rest] = parts;
  const count = Number(number);
  if (!Number.isInteger(count) || count < 1 || count > 1000 || !isUnit(unit) || rest.length > 0) return null;
  if (kind === 'last') return current === undefined ? { kind: 'rolling', count, unit } : null;
  if (kind !== 'periods' && kind !== 'next') return null;
  if (current !== undefined && current !== 'current') return null;
  return { kind, count, unit, current: current === 'current' };
}

function isUnit(text: string | undefined): text is WindowUnit {
  return (WINDOW_UNITS as readonly (string | undefined)[]).includes(text);
}
