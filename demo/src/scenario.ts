import type { MetricKind } from '@vivid-beacon/core';
import { localClock } from './localClock';
import { addElectricity, addFleet, addOutput } from './machines';
import { drift, noise, seedOf } from './noise';

/** One metric of the scenario: what it is, and its value at any time. */
export interface ScenarioMetric {
  readonly plant: string;
  readonly area: string;
  readonly asset: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly decimals: number;
  /** null while the device says nothing. */
  readonly valueAt: (t: number) => number | null;
}

export interface ScenarioPlant {
  readonly name: string;
  readonly zone: string;
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

export const PLANTS: readonly ScenarioPlant[] = [
  { name: 'Quayside', zone: 'Europe/London' },
  { name: 'Foundry Lane', zone: 'Europe/London' },
  { name: 'Upper Weir', zone: 'Europe/Berlin' },
];

/**
 * The metrics of Hollowmere Linen. Everything follows from `anchor`, the moment the demo was laid out
 * for (ms): the same anchor gives the same samples, whenever and in whatever order they are asked for.
 *
 * Stories to find: Quayside's Ironer 2 slows over six weeks and runs hot at the end; rewash at Quayside
 * peaks; a steam trap at Foundry Lane leaks, so that Dryer 3 needs more gas per kg; Upper Weir's portal
 * P-11 loses packets when its cabinet is hot; jobs pile up on Mondays; Quayside's steam meter S-03 has been
 * silent for six hours, and Upper Weir's water meter was for six hours four days ago.
 */
export function scenario(anchor: number): ScenarioMetric[] {
  return PLANTS.flatMap((plant) => plantMetrics(plant, anchor));
}

type Shape = (t: number, seed: number) => number | null;

function plantMetrics({ name: plant, zone }: ScenarioPlant, anchor: number): ScenarioMetric[] {
  const clock = localClock(zone);
  const metrics: ScenarioMetric[] = [];
  const quayside = plant === 'Quayside';
  const foundry = plant === 'Foundry Lane';
  const weir = plant === 'Upper Weir';
  const size = quayside ? 1.25 : foundry ? 1 : 0.8;

  const add = (
    place: readonly [area: string, asset: string],
    [name, unit, kind, minutes, decimals]: readonly [string, string, MetricKind, number, number],
    shape: Shape,
  ): void => {
    const seed = seedOf(`${plant}/${place[1]}/${name}`);
    const scale = 10 ** decimals;
    metrics.push({
      plant,
      area: place[0],
      asset: place[1],
      name,
      unit,
      kind,
      intervalMs: minutes * MINUTE,
      maxGapMs: Math.max(3 * minutes, 10) * MINUTE,
      decimals,
      valueAt: (t) => {
        const value = shape(t, seed);
        return value === null ? null : Math.round(value * scale) / scale;
      },
    });
  };

  /** How busy the plant is, 0 to about 1.1: full by day, a third by night, half on Sundays. */
  const load = (t: number): number => {
    const { hour, weekday } = clock(t);
    const rise = clamp((hour - 4.5) / 2, 0, 1) * clamp((23 - hour) / 2, 0, 1);
    const day = weekday === 6 ? 0.5 : weekday === 5 ? 0.8 : 1;
    return (0.35 + 0.65 * rise) * day * (1 + 0.06 * drift(11, t, 3 * HOUR));
  };
  const jitter = (seed: number, t: number, width: number): number =>
    width * (noise(seed, t / MINUTE) - 0.5) * 2;
  /** 1 inside a stretch counted from the anchor, with soft edges. */
  const during = (t: number, from: number, to: number, edge: number): number =>
    clamp((t - anchor - from) / edge, 0, 1) * clamp((anchor + to - t) / edge, 0, 1);
  const ramp = (t: number, from: number, to: number): number =>
    clamp((t - anchor - from) / (to - from), 0, 1);

  // Wash house
  const wash = ['Wash house', 'Wash house'] as const;
  const washedAt = (t: number): number => 62 * size * load(t);
  add(wash, ['Washed weight', 'kg', 'amount', 5, 1], (t, s) => washedAt(t) + jitter(s, t, 4));
  const rewashShare = (t: number, s: number): number => {
    const usual = 2.3 + 0.5 * drift(s, t, 5 * HOUR);
    if (!quayside) return usual;
    const now = during(t, -3 * HOUR, 4 * HOUR, 2 * HOUR) * 3.2;
    const before = [2.2, 4.6, 9, 16].reduce(
      (sum, days) => sum + during(t, -days * DAY, -days * DAY + 7 * HOUR, 2.5 * HOUR) * 2.4,
      0,
    );
    return usual + now + before;
  };
  add(wash, ['Rewash weight', 'kg', 'amount', 5, 2], (t, s) =>
    Math.max(0, (washedAt(t) * rewashShare(t, s)) / 100 + jitter(s, t, 0.12)),
  );
  add(
    wash,
    ['Water used', 'L', 'amount', 5, 0],
    (t, s) => washedAt(t) * (8.3 + 0.4 * drift(s, t, 9 * HOUR)) + jitter(s, t, 12),
  );
  for (const line of [1, 2]) {
    const asset = ['Wash house', `Washer line ${line}`] as const;
    add(
      asset,
      ['Washed weight', 'kg', 'amount', 5, 1],
      (t, s) => (washedAt(t) / 2) * (line === 1 ? 1.04 : 0.96) + jitter(s, t, 3),
    );
    add(asset, ['State', '', 'state', 1, 0], (t, s) => {
      const fault = noise(s, Math.floor(t / (47 * MINUTE))) < 0.03;
      return fault ? 2 : noise(s + 1, Math.floor(t / (11 * MINUTE))) < 0.6 + 0.4 * load(t) ? 1 : 0;
    });
  }

  // Ironing hall
  for (const n of [1, 2]) {
    const asset = ['Ironing hall', `Ironer ${n}`] as const;
    const slow = quayside && n === 2;
    add(asset, ['Bed temperature', '°C', 'level', 1, 1], (t, s) => {
      const usual = 193 + 3.5 * drift(s, t, 50 * MINUTE) + jitter(s, t, 0.5);
      if (!slow) return usual;
      const past = [1.4, 3.3, 5.1, 8.2, 10.7, 12.4].reduce(
        (sum, days, i) =>
          sum + during(t, -days * DAY, -days * DAY + (60 + 12 * i) * MINUTE, 15 * MINUTE) * 15,
        0,
      );
      return usual + past + during(t, -36 * MINUTE, 45 * MINUTE, 22 * MINUTE) * 18.5;
    });
    add(
      asset,
      ['Feed speed', 'm/min', 'level', 1, 1],
      (t, s) =>
        28 - (slow ? 4.6 * ramp(t, -42 * DAY, 0) : 0) + 0.7 * drift(s, t, 2 * HOUR) + jitter(s, t, 0.3),
    );
    add(
      asset,
      ['Steam pressure', 'bar', 'level', 1, 2],
      (t, s) => 7.1 + 0.15 * drift(s, t, HOUR) + jitter(s, t, 0.03),
    );
  }

  // Dryers
  for (const n of [1, 2, 3, 4]) {
    const asset = ['Dryers', `Dryer ${n}`] as const;
    const driedAt = (t: number): number => 14 * size * load(t) * (0.92 + 0.04 * n);
    const leak = foundry && n === 3;
    const perKg = (t: number, s: number): number =>
      1.0 + 0.02 * n + 0.05 * drift(s, t, 7 * HOUR) + (leak ? 0.3 * ramp(t, -35 * DAY, 0) : 0);
    add(asset, ['Dried weight', 'kg', 'amount', 5, 2], (t, s) => driedAt(t) + jitter(s, t, 0.6));
    add(asset, ['Gas used', 'kWh', 'amount', 5, 2], (t, s) => driedAt(t) * perKg(t, s) + jitter(s, t, 0.4));
    add(
      asset,
      ['Exhaust temperature', '°C', 'level', 5, 1],
      (t, s) =>
        88 + 6 * drift(s, t, 90 * MINUTE) + (leak ? 7 * ramp(t, -35 * DAY, 0) : 0) + jitter(s, t, 0.6),
    );
  }

  // Boiler house
  const boiler = ['Boiler house', 'Boiler'] as const;
  add(boiler, ['Steam pressure', 'bar', 'level', 1, 2], (t, s) => {
    const usual = 5.6 + 0.18 * drift(s, t, 80 * MINUTE) + jitter(s, t, 0.03);
    return foundry ? usual + during(t, -22 * MINUTE, 60 * MINUTE, 14 * MINUTE) * 0.62 : usual;
  });
  add(
    boiler,
    ['Flue temperature', '°C', 'level', 5, 0],
    (t, s) => 182 + 12 * load(t) + 4 * drift(s, t, 4 * HOUR),
  );
  add(['Boiler house', 'Gas meter'], ['Meter reading', 'm³', 'register', 15, 1], (t) => {
    const days = (t - anchor) / DAY + 400;
    const leak = foundry ? 1.6 * Math.max(0, days - 365) ** 2 : 0;
    return days * 620 * size - ((310 * size) / (2 * Math.PI)) * Math.cos(2 * Math.PI * days) + leak;
  });
  add(['Boiler house', 'Steam meter S-03'], ['Steam flow', 't/h', 'level', 5, 2], (t, s) =>
    quayside && t > anchor - 6 * HOUR
      ? null
      : 1.2 * size * load(t) + 0.1 * drift(s, t, 2 * HOUR) + jitter(s, t, 0.03),
  );

  // Utilities
  add(['Utilities', 'Water meter'], ['Meter reading', 'm³', 'register', 15, 2], (t) => {
    if (weir && t > anchor - 4 * DAY && t < anchor - 4 * DAY + 6 * HOUR) return null;
    const days = (t - anchor) / DAY + 700;
    return days * 110 * size - ((50 * size) / (2 * Math.PI)) * Math.cos(2 * Math.PI * days);
  });
  add(['Utilities', 'Electricity meter'], ['Meter reading', 'kWh', 'register', 15, 1], (t) => {
    const days = (t - anchor) / DAY + 900;
    return days * 2900 * size - ((1200 * size) / (2 * Math.PI)) * Math.cos(2 * Math.PI * days);
  });
  add(
    ['Utilities', 'Electricity meter'],
    ['Power', 'kW', 'level', 5, 1],
    (t, s) => 165 * size * load(t) + 14 + jitter(s, t, 4),
  );
  add(
    ['Utilities', 'Compressor A'],
    ['Air pressure', 'bar', 'level', 1, 2],
    (t, s) => 6.9 + 0.12 * drift(s, t, 25 * MINUTE) + jitter(s, t, 0.04),
  );
  add(['Utilities', 'Compressor A'], ['State', '', 'state', 1, 0], (t, s) =>
    noise(s, Math.floor(t / (7 * MINUTE))) < 0.55 + 0.3 * load(t) ? 1 : 0,
  );
  add(
    ['Utilities', 'Weather mast'],
    ['Outside air temperature', '°C', 'level', 15, 1],
    (t, s) => 9 + 4 * Math.sin(((clock(t).hour - 9) / 24) * 2 * Math.PI) + 5 * drift(s, t, 5 * DAY),
  );

  // Tag-reader network
  const portal = ['Tag network', 'Portal P-11'] as const;
  const cabinet = (t: number): number =>
    27 +
    7 *
      Math.max(0, Math.sin(((clock(t).hour - 8) / 12) * Math.PI)) *
      (clock(t).hour > 8 && clock(t).hour < 20 ? 1 : 0) +
    5 * drift(77, t, 2 * DAY);
  add(portal, ['Cabinet temperature', '°C', 'level', 5, 1], (t, s) => cabinet(t) + jitter(s, t, 0.4));
  add(portal, ['Packet loss', '%', 'level', 1, 2], (t, s) => {
    const usual = Math.max(0, 0.25 + 0.15 * drift(s, t, HOUR) + jitter(s, t, 0.08));
    return weir ? usual + Math.max(0, cabinet(t) - 33.5) * 1.1 : usual;
  });
  add(
    portal,
    ['Latency', 'ms', 'level', 1, 1],
    (t, s) => 14 + 5 * load(t) + 3 * drift(s, t, 30 * MINUTE) + jitter(s, t, 1.5),
  );
  add(portal, ['Tag reads', 'reads', 'amount', 15, 0], (t, s) => 900 * size * load(t) + jitter(s, t, 40));
  add(['Tag network', 'Gateway G-07'], ['Late reads', 'reads/h', 'level', 15, 0], (t, s) => {
    const usual = 11 + 6 * drift(s, t, 4 * HOUR) + jitter(s, t, 3);
    return weir ? usual + during(t, -80 * MINUTE, 2 * HOUR, 20 * MINUTE) * 27 : usual;
  });

  const shape = { plant, size, load };
  addOutput(add, shape);
  addElectricity(add, shape);
  if (quayside) addFleet(add);

  // Desks
  add(['Desks', 'Customer desk'], ['Open jobs', 'jobs', 'level', 15, 0], (t, s) => {
    const { hour, weekday } = clock(t);
    const week = weekday + hour / 24;
    const pile =
      week < 0.5
        ? 12 + 60 * week
        : week < 5
          ? Math.max(8, 42 * Math.exp(-(week - 0.5) * 0.55))
          : 8 + 2 * (week - 5);
    return pile * size + 3 * drift(s, t, 3 * HOUR);
  });
  add(['Desks', 'Customer desk'], ['Jobs received', 'jobs', 'amount', 60, 0], (t, s) =>
    Math.max(0, (clock(t).weekday === 0 ? 11 : 6) * size * load(t) + jitter(s, t, 2)),
  );
  add(['Desks', 'Delivery desk'], ['Rounds', 'rounds', 'amount', 60, 0], (t) => roundsAt(clock(t).hour));
  add(['Desks', 'Delivery desk'], ['Rounds on time', 'rounds', 'amount', 60, 0], (t, s) => {
    const rounds = roundsAt(clock(t).hour);
    const late = weir ? 0.09 : 0.04;
    let onTime = 0;
    for (let i = 0; i < rounds; i++) if (noise(s + i, t / HOUR) > late) onTime++;
    return onTime;
  });
  return metrics;
}

function roundsAt(hour: number): number {
  return hour >= 5 && hour < 21 ? 8 : 2;
}

function clamp(x: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, x));
}

/**
 * The samples of a metric that are known at `until`: times are whole intervals with `from` < t; an amount
 * is known once its interval is over.
 */
export function samplesBetween(
  metric: ScenarioMetric,
  from: number,
  until: number,
): { t: number[]; v: number[] } {
  const step = metric.intervalMs;
  const last = metric.kind === 'amount' ? until - step : until;
  const t: number[] = [];
  const v: number[] = [];
  for (let at = (Math.floor(from / step) + 1) * step; at <= last; at += step) {
    const value = metric.valueAt(at);
    if (value === null) continue;
    t.push(at);
    v.push(value);
  }
  return { t, v };
}
