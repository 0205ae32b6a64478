import type { Alarm } from '@vivid-beacon/core';

const HOUR = 3_600_000;

/** An alarm raised an hour ago that nobody has acknowledged. */
export function madeAlarm(id: string, now: number, part: Partial<Alarm> = {}): Alarm {
  return {
    id,
    ruleId: '3',
    ruleName: `Alarm ${id}`,
    state: 'unacknowledged',
    shelvedUntil: null,
    asideReason: null,
    level: 'breach',
    priority: 'medium',
    test: { kind: 'limit', side: 'above', limit: 205, deadband: 0 },
    over: null,
    toDo: '',
    metricId: '5',
    metricName: 'Bed temperature',
    unit: '°C',
    decimals: 0,
    assetId: '2',
    assetName: 'Ironer 2',
    plantId: '1',
    plantName: 'Quayside',
    zone: 'UTC',
    raisedAt: now - HOUR,
    raisedValue: 212,
    returnedAt: null,
    latestValue: 210,
    acknowledgedBy: null,
    acknowledgedAt: null,
    escalatedAt: null,
    ...part,
  };
}
