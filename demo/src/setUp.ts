import { DateTime } from 'luxon';
import type { Binding, DerivedWay, Shift, StatusKind, WorkingCalendar } from '@vivid-beacon/core';
import {
  addRemark,
  changeAsset,
  findAsset,
  makeMetric,
  publicHolidays,
  putJob,
  readAsServer,
  putStop,
  readSetting,
  withTransaction,
  writeCalendar,
  writeDerived,
  writeFactor,
  writeReferenceValues,
  writeSetting,
  writeStatusKinds,
  type Queryable,
  type Pool,
} from '@vivid-beacon/server';
import type { IdOf } from './layout';
import { fleetItems } from './machines';
import { noise, seedOf } from './noise';
import { PLANTS } from './scenario';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

interface SetUp {
  readonly pool: Pool;
  readonly assets: ReadonlyMap<string, string>;
  readonly idOf: IdOf;
  readonly personId: string;
  readonly anchor: number;
}

/**
 * What the people of Hollowmere Linen have set up besides their feeds: attributes, working calendars, derived
 * metrics, factors, budgets, stop log and job log, remarks. Everything follows from the anchor; done once.
 *
 * @returns false if it was done before.
 */
export async function setUpDemo(parts: SetUp): Promise<boolean> {
  if (await readSetting(parts.pool, 'demo-set-up')) return false;
  await withTransaction(parts.pool, async (db) => {
    await addAttributes(db, parts);
    await addCalendars(db, parts);
    await addDerived(db, parts);
    await addBudgets(db, parts);
    await addStops(db, parts);
    await addJobs(db, parts);
    await addRemarks(db, parts);
    await writeSetting(db, 'demo-set-up', { at: parts.anchor });
  });
  return true;
}

async function addAttributes(db: Queryable, { assets, anchor }: SetUp): Promise<void> {
  /** The ironers were overhauled one after another, three weeks apart. */
  const overhaul = (key: string): string => {
    const weeks = 6 + 3 * Number(key.slice(-1)) + PLANTS.findIndex(({ name }) => key.startsWith(name));
    return DateTime.fromMillis(anchor - weeks * 7 * DAY, { zone: 'utc' }).toISODate()!;
  };
  const facts: readonly [RegExp, (plant: string, key: string) => Record<string, string | number>][] = [
    [
      /^[^/]+$/,
      (plant) => ({
        'Floor area (m²)': { Quayside: 4200, 'Foundry Lane': 3650, 'Upper Weir': 2900 }[plant]!,
      }),
    ],
    [/Wash house$/, () => ({ 'Rated output (kg/h)': 2400 })],
    [/Washer line \d$/, () => ({ 'Rated output (kg/h)': 1200, 'Year built': 2017 })],
    [
      /Ironer \d$/,
      (_, key) => ({ 'Working width (m)': 3.3, 'Rated speed (m/min)': 32, 'Last overhaul': overhaul(key) }),
    ],
    [/Dryer \d$/, () => ({ 'Rated output (kg/h)': 320, 'Burner (kW)': 210 })],
    [/ (A|B|C)$/, (_, key) => fleetFacts(key.split('/')[1])],
    [/Boiler$/, () => ({ 'Steam capacity (t/h)': 4, 'Next inspection': '2027-03-01' })],
  ];
  for (const [key, id] of assets) {
    const found = facts.find(([pattern]) => pattern.test(key));
    const asset = found && (await findAsset(readAsServer(db), id));
    if (!asset) continue;
    await changeAsset(db, id, {
      ...asset,
      zone: asset.ownZone,
      attributes: found[1](key.split('/')[0], key),
    });
  }
}

/** What is known of a piece of hired equipment; of other things nothing. */
function fleetFacts(name: string): Record<string, string> {
  const item = fleetItems().find((each) => each.name === name);
  return item ? { Category: item.category, Type: item.type, Model: item.model } : {};
}

async function addCalendars(db: Queryable, { assets, personId, anchor }: SetUp): Promise<void> {
  const year = new Date(anchor).getUTCFullYear();
  const shift = (name: string, days: number[], from: string, to: string): Shift => ({ name, days, from, to });
  const week = [1, 2, 3, 4, 5];
  const [england, hesse] = await Promise.all([
    publicHolidays('GB', 'ENG', year - 1, year + 1),
    publicHolidays('DE', 'HE', year - 1, year + 1),
  ]);
  const calendars: Record<string, WorkingCalendar> = {
    Quayside: {
      shifts: [
        shift('Early', [...week, 6], '06:00', '14:00'),
        shift('Late', week, '14:00', '22:00'),
        shift('Night', week, '22:00', '06:00'),
      ],
      holidays: england,
      firstWeekday: 1,
      financialYearMonth: 4,
    },
    'Foundry Lane': {
      shifts: [shift('Early', [...week, 6], '06:00', '14:00'), shift('Late', week, '14:00', '22:00')],
      holidays: england,
      firstWeekday: 1,
      financialYearMonth: 4,
    },
    'Upper Weir': {
      shifts: [shift('Day', week, '07:00', '19:00'), shift('Saturday', [6], '07:00', '13:00')],
      holidays: hesse,
      firstWeekday: 1,
      financialYearMonth: 1,
    },
  };
  for (const [plant, calendar] of Object.entries(calendars)) {
    await writeCalendar(db, assets.get(plant)!, calendar, personId, anchor);
  }
}

async function addDerived(db: Queryable, { assets, idOf, anchor }: SetUp): Promise<void> {
  const metric = (name: string): Binding => ({ kind: 'metric', metricId: idOf(name), summary: null });
  const factorId = (await writeFactor(db, {
    id: null,
    name: 'CO2 of natural gas',
    unit: 'kg/kWh',
    source: 'made-up value of the demo',
    values: [{ from: '2020-01-01', value: 0.18 }],
  }))!;
  const add = async (
    place: string,
    name: string,
    unit: string,
    expression: string,
    bindings: Record<string, Binding>,
    way: DerivedWay = 'totals',
    decimals = 2,
  ): Promise<void> => {
    const id = await makeMetric(readAsServer(db), {
      assetId: assets.get(place)!,
      name,
      unit,
      kind: 'level',
      origin: 'derived',
      intervalMs: 5 * MINUTE,
      maxGapMs: 15 * MINUTE,
      rollover: null,
      decimals,
      at: anchor,
    });
    await writeDerived(db, id, { expression, bindings, way }, anchor);
  };
  for (const { name: plant } of PLANTS) {
    await add(`${plant}/Wash house`, 'Water per kg', 'L/kg', 'water / weight', {
      water: metric(`${plant}/Wash house/Water used`),
      weight: metric(`${plant}/Wash house/Washed weight`),
    });
  }
  const dryers = assets.get('Foundry Lane/Dryers')!;
  const all = (metricName: string): Binding => ({
    kind: 'children',
    assetId: dryers,
    metricName,
    summary: null,
  });
  await add('Foundry Lane/Dryers', 'Gas per kg of all dryers', 'kWh/kg', 'gas / weight', {
    gas: all('Gas used'),
    weight: all('Dried weight'),
  });
  await add('Foundry Lane/Dryers', 'CO2 of drying', 'kg', 'gas * co2', {
    gas: all('Gas used'),
    co2: { kind: 'factor', factorId },
  });
  await add('Quayside/Utilities', 'Power per floor area', 'W/m²', 'power / area', {
    power: metric('Quayside/Electricity meter/Power'),
    area: { kind: 'attribute', assetId: assets.get('Quayside')!, attribute: 'Floor area (m²)' },
  });
  await add(
    'Quayside/Ironer 2',
    'Bed temperature, an hour smoothed',
    '°C',
    'rolling(bed, 60)',
    { bed: metric('Quayside/Ironer 2/Bed temperature') },
    'samples',
    1,
  );
}

async function addBudgets(db: Queryable, { assets, anchor }: SetUp): Promise<void> {
  const first = DateTime.fromMillis(anchor, { zone: 'Europe/London' }).startOf('year').minus({ years: 1 });
  for (const [plant, usual] of [
    ['Quayside', 91_000],
    ['Foundry Lane', 88_000],
  ] as const) {
    const id = await makeMetric(readAsServer(db), {
      assetId: assets.get(plant)!,
      name: 'Electricity budget',
      unit: 'kWh',
      kind: 'amount',
      origin: 'reference',
      period: 'month',
      intervalMs: 31 * DAY,
      maxGapMs: 31 * DAY,
      rollover: null,
      decimals: 0,
      at: anchor,
    });
    await writeReferenceValues(
      db,
      id,
      Array.from({ length: 36 }, (_, i) => ({
        start: first.plus({ months: i }).toISODate()!,
        value: Math.round((usual * (1 + 0.08 * Math.cos((i / 6) * Math.PI))) / 100) * 100,
      })),
    );
  }
}

const STOPS = [
  ['Mechanical', 'Belt torn', 45],
  ['Mechanical', 'Folder jammed', 14],
  ['Supply', 'No steam', 32],
  ['Supply', 'Waiting for linen', 22],
  ['Planned', 'Cleaning', 25],
  ['Electrical', 'Sensor fault', 38],
] as const;

/** About one stop every three days on each machine, and one that is still open. */
async function addStops(db: Queryable, { assets, anchor }: SetUp): Promise<void> {
  const machines = [...assets].filter(([key]) => /(Ironer|Washer line|Dryer) \d$/.test(key));
  for (const [key, assetId] of machines) {
    const seed = seedOf(`${key} stops`);
    for (let day = 1; day <= 90; day++) {
      if (noise(seed, day) > 0.34) continue;
      const [category, reason, usual] = STOPS[Math.floor(noise(seed + 1, day) * STOPS.length)];
      const start = anchor - day * DAY + Math.floor(noise(seed + 2, day) * 14 * 60) * MINUTE - 14 * HOUR;
      const minutes = Math.max(3, Math.round(usual * (0.4 + 1.4 * noise(seed + 3, day))));
      await putStop(
        db,
        { assetId, start, end: start + minutes * MINUTE, category, reason, note: '' },
        'Dele Marsh',
        anchor,
      );
    }
  }
  await putStop(
    db,
    {
      assetId: assets.get('Foundry Lane/Dryer 4')!,
      start: anchor - 52 * MINUTE,
      end: null,
      category: 'Mechanical',
      reason: 'Belt torn',
      note: 'Spare is on the van.',
    },
    'Dele Marsh',
    anchor,
  );
}

const KINDS: readonly StatusKind[] = [
  { status: 'Received', stopsClock: false, endsJob: false },
  { status: 'In work', stopsClock: false, endsJob: false },
  { status: 'Waiting for customer', stopsClock: true, endsJob: false },
  { status: 'Done', stopsClock: false, endsJob: true },
];
const JOBS = ['Missing linen', 'Wrong count', 'Stained', 'New order', 'Delivery time'] as const;
const CUSTOMERS = [
  'St Brannock Hospital',
  'Harbour Hotel',
  'Weir Clinic',
  'Old Mill Inn',
  'Moor House',
] as const;

async function addJobs(db: Queryable, { assets, anchor }: SetUp): Promise<void> {
  for (const { name: plant } of PLANTS) {
    const assetId = assets.get(`${plant}/Customer desk`);
    if (!assetId) continue;
    await writeStatusKinds(db, assetId, KINDS);
    const seed = seedOf(`${plant} jobs`);
    for (let n = 0; n < 60; n++) {
      const opened = anchor - Math.floor(noise(seed, n) * 40 * 24 * 60) * MINUTE - HOUR;
      const history = [{ at: opened, status: 'Received' }];
      let at = opened + Math.round(20 + 200 * noise(seed + 1, n)) * MINUTE;
      const push = (status: string): void => {
        if (at < anchor) history.push({ at, status });
      };
      push('In work');
      if (noise(seed + 2, n) < 0.4) {
        at += Math.round(60 + 600 * noise(seed + 3, n)) * MINUTE;
        push('Waiting for customer');
        at += Math.round(200 + 2400 * noise(seed + 4, n)) * MINUTE;
        push('In work');
      }
      at += Math.round(40 + 500 * noise(seed + 5, n)) * MINUTE;
      push('Done');
      const pick = <T>(list: readonly T[], salt: number): T =>
        list[Math.floor(noise(seed + salt, n) * list.length)];
      await putJob(
        db,
        {
          assetId,
          number: `${plant.slice(0, 1)}${String(1000 + n)}`,
          category: pick(JOBS, 6),
          customer: pick(CUSTOMERS, 7),
          owner: pick(['Marit Oduya', 'Dele Marsh'], 8),
          fields: {},
          history,
        },
        'Dele Marsh',
        anchor,
      );
    }
  }
}

async function addRemarks(db: Queryable, { assets, personId, anchor }: SetUp): Promise<void> {
  const remark = (place: string, from: number, to: number, kind: 'reason' | 'abnormal', text: string) =>
    addRemark(db, {
      assetId: assets.get(place)!,
      start: anchor - from * HOUR,
      end: anchor - to * HOUR,
      kind,
      text,
      authorId: personId,
      at: anchor - to * HOUR,
    });
  await remark('Quayside/Wash house', 52, 47, 'abnormal', 'Hotel linen with wax stains, washed twice');
  await remark('Foundry Lane/Dryer 3', 30, 26, 'reason', 'Trap on the steam coil leaks, part ordered');
  await remark('Upper Weir/Portal P-11', 9, 6, 'abnormal', 'Cabinet fan found standing');
}
