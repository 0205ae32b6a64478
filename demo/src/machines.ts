import type { MetricKind } from '@vivid-beacon/core';
import { drift, noise } from './noise';

/* What is compared in Hollowmere Linen: machines by output, rejects and running time; sub-meters; hired equipment. */

const HOUR = 3_600_000;

type Shape = (t: number, seed: number) => number | null;

/** Adds a metric to an asset: its name, unit, kind, interval in minutes and decimals, and its value at any time. */
export type AddMetric = (
  place: readonly [area: string, asset: string],
  metric: readonly [name: string, unit: string, kind: MetricKind, minutes: number, decimals: number],
  shape: Shape,
) => void;

interface PlantShape {
  readonly plant: string;
  readonly size: number;
  /** How busy the plant is, 0 to about 1.1. */
  readonly load: (t: number) => number;
}

/** Hourly output, rejects and running time of ironers and dryers. Ironer 2 rejects most, Dryer 4 runs least. */
export function addOutput(add: AddMetric, { size, load }: PlantShape): void {
  const machines = [
    ...[1, 2].map(
      (n) => ['Ironing hall', `Ironer ${n}`, 420 - 60 * (n - 1), 1.6 + 1.9 * (n - 1), 0.93] as const,
    ),
    ...[1, 2, 3, 4].map(
      (n) => ['Dryers', `Dryer ${n}`, 150 + 6 * n, 0.9 + 0.25 * n, 0.95 - 0.06 * n] as const,
    ),
  ];
  for (const [area, asset, perHour, rejected, busy] of machines) {
    const running = (t: number, seed: number): number =>
      Math.min(1, Math.max(0, load(t) * busy * (1 + 0.1 * drift(seed, t, 5 * HOUR))));
    add([area, asset], ['Hours run', 'h', 'amount', 60, 2], running);
    add([area, asset], ['Hours planned', 'h', 'amount', 60, 2], (t) => (load(t) > 0.3 ? 1 : 0));
    add(
      [area, asset],
      ['Pieces finished', 'pieces', 'amount', 60, 0],
      (t, s) => perHour * size * running(t, s),
    );
    add(
      [area, asset],
      ['Pieces rejected', 'pieces', 'amount', 60, 0],
      (t, s) => (perHour * size * running(t, s) * rejected * (0.7 + 0.6 * noise(s, t / HOUR))) / 100,
    );
  }
}

/** kW at full load and at rest of what is metered; a tenth of the plant is on no sub-meter. */
const SUB_METERS = [
  ['Washers', 58, 3],
  ['Dryer fans', 44, 2],
  ['Ironers', 31, 2],
  ['Compressed air', 19, 9],
  ['Lighting', 7, 4],
] as const;

/** The plant's electricity by quarters of an hour, and the sub-meters below it. */
export function addElectricity(add: AddMetric, { plant, size, load }: PlantShape): void {
  const kw = (t: number, full: number, rest: number): number => rest * size + full * size * load(t);
  for (const [name, full, rest] of SUB_METERS) {
    add(
      ['Electricity', `${name} meter`],
      ['Electricity used', 'kWh', 'amount', 15, 2],
      (t, s) => (kw(t, full, rest) * (1 + 0.04 * drift(s, t, 4 * HOUR))) / 4,
    );
  }
  const unmetered = plant === 'Foundry Lane' ? 1.16 : 1.09;
  add(['Electricity', 'Electricity'], ['Electricity used', 'kWh', 'amount', 15, 2], (t) => {
    const all = SUB_METERS.reduce((sum, [, full, rest]) => sum + kw(t, full, rest), 0);
    return (all * unmetered) / 4;
  });
}

/** Hired equipment by category, type and model, with how often it is out and at what part of its list price. */
export const FLEET = [
  ['Trolley', 'Roll cage', 'RC-180', 3, 0.82, 0.9],
  ['Trolley', 'Roll cage', 'RC-220', 3, 0.74, 0.71],
  ['Trolley', 'Shelf trolley', 'ST-40', 3, 0.55, 0.8],
  ['Trolley', 'Shelf trolley', 'ST-60', 2, 0.38, 0.62],
  ['Mangle', 'Roller mangle', 'RM-160', 2, 0.66, 0.55],
  ['Mangle', 'Roller mangle', 'RM-250', 2, 0.47, 0.86],
  ['Mangle', 'Cabinet mangle', 'CM-90', 2, 0.29, 0.44],
] as const;

/** Each piece of hired equipment, named by its model and a letter. */
export const fleetItems = (): {
  readonly name: string;
  readonly category: string;
  readonly type: string;
  readonly model: string;
  readonly out: number;
  readonly price: number;
}[] =>
  FLEET.flatMap(([category, type, model, count, out, price]) =>
    Array.from({ length: count }, (_, i) => ({
      name: `${model} ${'ABC'[i]}`,
      category,
      type,
      model,
      out: out * (1 - 0.12 * i),
      price: price * (1 - 0.07 * i),
    })),
  );

/** Days of hired equipment: hours out and available, income and what full price would have brought. */
export function addFleet(add: AddMetric): void {
  for (const { name, category, out, price } of fleetItems()) {
    const rate = category === 'Mangle' ? 9 : 1.4;
    const hours = (t: number, seed: number): number =>
      Math.round(24 * Math.min(1, Math.max(0, out + 0.35 * (noise(seed, t / (24 * HOUR)) - 0.5))));
    const day = 24 * 60;
    add(['Hire desk', name], ['Hours out', 'h', 'amount', day, 0], hours);
    add(['Hire desk', name], ['Hours available', 'h', 'amount', day, 0], () => 24);
    add(['Hire desk', name], ['Income', 'GBP', 'amount', day, 2], (t, s) => hours(t, s) * rate * price);
    add(['Hire desk', name], ['Income at list price', 'GBP', 'amount', day, 2], () => 24 * rate);
  }
}
