import type { AlarmRule } from '@vivid-beacon/core';
import { siteMoment } from '../siteMoment';

/** How many metrics a rule watches, and how many of them the plant's state suppresses; empty for a plain one. */
export function watchedWords({ under, watches }: AlarmRule): string {
  const quiet = watches.filter(({ suppressed }) => suppressed).length;
  const many = under === null ? '' : `${watches.length} metrics`;
  const suppressed =
    quiet === 0 ? '' : quiet === watches.length ? 'suppressed now' : `${quiet} suppressed now`;
  return [many, suppressed].filter(Boolean).join(', ');
}

/** How a rule is set aside, by whom and why; empty when it is not. */
export function asideWords({ watches }: AlarmRule, zone: string, now: number): string {
  const aside = watches.filter((watch) => watch.aside !== null);
  if (aside.length === 0) return '';
  const { by, until, reason } = aside[0].aside!;
  const how = until === null ? 'Out of service' : `Shelved until ${siteMoment(until, zone, now)}`;
  const where = aside.length === watches.length ? '' : ` on ${aside.length} of ${watches.length}`;
  return `. ${how}${where}, ${by}: ${reason}`;
}
