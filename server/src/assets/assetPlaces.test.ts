import fc from 'fast-check';
import { startTestServer, type TestServer } from '../testing/testServer';

let test: TestServer;
beforeAll(async () => {
  test = await startTestServer();
}, 60_000);
afterAll(() => test.stop());

/** What the table must hold, computed from the tree alone. */
const NAIVE = `
  with recursive place as (
    select id as asset_id, zone, id as plant_id, name as plant_name, 1 as depth, array[id] as path, name as title
    from asset where parent_id is null
    union all
    select child.id, coalesce(child.zone, place.zone), place.plant_id, place.plant_name, place.depth + 1,
           place.path || child.id, place.title || ' / ' || child.name
    from asset child join place on child.parent_id = place.asset_id)
  select asset_id, zone, plant_id, plant_name, depth, path, title from place order by asset_id`;

/** Every metric under all the names above it. */
const NAIVE_TITLES = `
  select metric.id as metric_id, place.title || ' / ' || metric.name as title
  from metric join asset_place place on place.asset_id = metric.asset_id
  where metric.removed_at is null order by metric.id`;

/** A metric on an asset, named after it. */
const ADD_METRIC = `
  insert into metric (asset_id, key, name, unit, kind, interval_ms, max_gap_ms, decimals, created_at)
  select id, 'key-' || id, 'of ' || id, '', 'level', 60000, 180000, 1, now() from asset order by id desc limit 1`;

const ZONES = ['UTC', 'Europe/London', 'Asia/Kathmandu'];

type Step =
  | { readonly kind: 'add'; readonly under: number; readonly zone: number }
  | { readonly kind: 'move'; readonly which: number; readonly under: number }
  | { readonly kind: 'rename'; readonly which: number }
  | { readonly kind: 'zone'; readonly which: number; readonly zone: number }
  | { readonly kind: 'remove'; readonly which: number }
  | { readonly kind: 'renameMetric' | 'removeMetric'; readonly which: number }
  | { readonly kind: 'zoneOfAll'; readonly zone: number };

const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ kind: fc.constant('add' as const), under: fc.nat(30), zone: fc.nat(5) }),
  },
  {
    weight: 3,
    arbitrary: fc.record({ kind: fc.constant('move' as const), which: fc.nat(30), under: fc.nat(30) }),
  },
  fc.record({ kind: fc.constant('rename' as const), which: fc.nat(30) }),
  fc.record({ kind: fc.constant('zone' as const), which: fc.nat(30), zone: fc.nat(2) }),
  fc.record({ kind: fc.constant('remove' as const), which: fc.nat(30) }),
  fc.record({ kind: fc.constantFrom('renameMetric' as const, 'removeMetric' as const), which: fc.nat(30) }),
  fc.record({ kind: fc.constant('zoneOfAll' as const), zone: fc.nat(2) }),
);

describe('asset_place and metric_title', () => {
  it('say of every asset its plant, zone and way down, and of every metric its full name, after any changes of the tree', async () => {
    const { pool } = test.server.app;
    let names = 0;
    const run = async (steps: readonly Step[]): Promise<void> => {
      await pool.query('delete from metric');
      await pool.query('delete from asset');
      for (const each of steps) {
        const { rows } = await pool.query<{ id: string }>('select id from asset order by id');
        const at = (n: number): string | null => (rows.length === 0 ? null : rows[n % rows.length].id);
        switch (each.kind) {
          case 'add': {
            const under = each.under > 22 ? null : at(each.under);
            const zone = under === null ? ZONES[each.zone % 3] : (ZONES[each.zone] ?? null);
            await pool.query(`insert into asset (parent_id, name, kind, zone) values ($1, $2, 'x', $3)`, [
              under,
              `a${names++}`,
              zone,
            ]);
            await pool.query(ADD_METRIC);
            break;
          }
          case 'move':
            // Only where it makes no cycle; the server refuses those before.
            await pool.query(
              `with recursive below as (select id from asset where id = $1::bigint union all
                 select child.id from asset child join below on child.parent_id = below.id)
               update asset set parent_id = $2::bigint where id = $1::bigint and $2::bigint is not null
                 and not exists (select 1 from below where id = $2::bigint)`,
              [at(each.which), at(each.under)],
            );
            break;
          case 'rename':
            await pool.query('update asset set name = $2 where id = $1::bigint', [
              at(each.which),
              `r${names++}`,
            ]);
            break;
          case 'zone':
            await pool.query('update asset set zone = $2 where id = $1::bigint', [
              at(each.which),
              ZONES[each.zone],
            ]);
            break;
          case 'remove':
            await pool.query(
              `with gone as (
                 delete from metric where asset_id = $1::bigint
                   and not exists (select 1 from asset child where child.parent_id = $1::bigint) returning asset_id)
               delete from asset using gone where id = gone.asset_id`,
              [at(each.which)],
            );
            break;
          case 'renameMetric':
            await pool.query(`update metric set name = $2 where asset_id = $1::bigint`, [
              at(each.which),
              `m${names++}`,
            ]);
            break;
          case 'removeMetric':
            await pool.query('update metric set removed_at = now() where asset_id = $1::bigint', [
              at(each.which),
            ]);
            break;
          case 'zoneOfAll':
            // Many at once, parents and children among them.
            await pool.query('update asset set zone = $1 where id % 2 = 0 or parent_id is null', [
              ZONES[each.zone],
            ]);
        }
      }
      const kept = await pool.query('select * from asset_place order by asset_id');
      const naive = await pool.query(NAIVE);
      expect(kept.rows).toEqual(naive.rows);
      const titles = await pool.query('select metric_id, title from metric_title order by metric_id');
      expect(titles.rows).toEqual((await pool.query(NAIVE_TITLES)).rows);
    };
    await fc.assert(fc.asyncProperty(fc.array(step, { maxLength: 25 }), run), { numRuns: 40 });
  }, 120_000);
});
