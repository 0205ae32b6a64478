import { formatLength, formatTime, type Handover } from '@vivid-beacon/core';
import { alarmStateWords } from '../alarmWords';
import { dueWords } from '../dueWords';
import { siteMoment } from '../siteMoment';

/** One line of a handover: what, more about it, and where it leads. */
export interface HandoverLine {
  readonly key: string;
  readonly title: string;
  readonly second: string;
  readonly href: string | null;
}

/** One part of a handover: its heading, what stands at the right of it, its lines, and what it says without any. */
export interface HandoverPart {
  readonly title: string;
  readonly aside: string;
  readonly lines: readonly HandoverLine[];
  readonly none: string;
}

const REMARK_KIND = { reason: 'Reason', abnormal: 'Abnormal', note: 'Note' } as const;

/** The parts of a handover in the order in which a shift lead goes through them: what is open, then what happened. */
export function handoverParts(handover: Handover): HandoverPart[] {
  const { zone, now } = handover;
  const alarm = (each: Handover['standing'][number]): HandoverLine => ({
    key: each.id,
    title: each.ruleName,
    second: `${each.assetName}, ${siteMoment(each.raisedAt, zone, now)}. ${alarmStateWords(each, now)}`,
    href: `/alarms/${each.id}`,
  });
  const count = (rows: readonly unknown[]): string => String(rows.length);
  const { standing, setAside, openFlags, silent, raised, stops, remarks, closedFlags } = handover;
  return [
    {
      title: 'Active alarms',
      aside: count(standing),
      lines: standing.map(alarm),
      none: 'No active alarms.',
    },
    {
      title: 'Shelved or out of service',
      aside: count(setAside),
      none: 'No rule is shelved or out of service.',
      lines: setAside.map(({ ruleId, ruleName, assetName, aside }) => ({
        key: `${ruleId} ${assetName}`,
        title: ruleName,
        second: `${assetName}, ${aside.until === null ? 'out of service' : `shelved until ${siteMoment(aside.until, zone, now)}`}, ${aside.by}: ${aside.reason}`,
        href: null,
      })),
    },
    {
      title: 'Open flags',
      aside: count(openFlags),
      none: 'No open flags.',
      lines: openFlags.map((flag) => {
        const due = dueWords(flag.dueAt, now, zone);
        return {
          key: flag.id,
          title: flag.title,
          second: `${flag.assetName}, with ${flag.to.name}, ${due.overdue ?? due.words}`,
          href: `/flags/${flag.id}`,
        };
      }),
    },
    {
      title: 'Silent feeds',
      aside: String(silent.count[handover.plantId] ?? 0),
      none: 'All feeds are reporting.',
      lines: silent.feeds.map((feed) => ({
        key: feed.id,
        title: `${feed.assetName}, ${feed.name.toLowerCase()}`,
        second: `silent for ${formatLength(feed.health.quietMs ?? 0)}`,
        href: `/data/metrics/${feed.id}`,
      })),
    },
    {
      title: 'Alarms in this shift',
      aside: count(raised),
      lines: raised.map(alarm),
      none: 'No alarms in this shift.',
    },
    {
      title: 'Stops in this shift',
      aside: stops.length > 0 ? `${stops.length}, ${formatLength(handover.stoppedMs)}` : '0',
      none: 'No stops in this shift.',
      lines: stops.map((stop) => ({
        key: stop.id,
        title: `${stop.assetName}: ${stop.reason}`,
        second: `${formatTime(stop.start, zone)} to ${stop.end === null ? 'now' : formatTime(stop.end, zone)}${stop.note ? `, ${stop.note}` : ''}`,
        href: null,
      })),
    },
    {
      title: 'Remarks in this shift',
      aside: count(remarks),
      none: 'No remarks.',
      lines: remarks.map(({ id, kind, text, author, assetName }) => ({
        key: id,
        title: `${REMARK_KIND[kind]}: ${text}`,
        second: `${assetName}, ${author}`,
        href: null,
      })),
    },
    {
      title: 'Flags closed in this shift',
      aside: count(closedFlags),
      none: 'No flags were closed.',
      lines: closedFlags.map((flag) => ({
        key: flag.id,
        title: flag.title,
        second: [flag.to.name, flag.cause, flag.outcomeNote].filter(Boolean).join(', '),
        href: `/flags/${flag.id}`,
      })),
    },
  ];
}
