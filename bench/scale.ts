/**
 * What each screen asks of the server with 5,000 assets of ten metrics each, a thousand alarm rules with an
 * active alarm and a past one, a thousand open flags, three hundred indicators and two hundred boards,
 * against the demo as it is: bytes of all answers, and the time of the longest. The screens are opened in a
 * browser by turns before and after the assets are added to the demo's database; afterwards they are removed,
 * unless it is run with "keep". Run: BENCH_APP_URL=http://127.0.0.1:… BENCH_DATABASE_URL=…
 * CHROMIUM=/usr/bin/chromium node --import tsx bench/scale.ts beside npm start, with the address of its app
 * and its database.
 */
import { chromium, type Page } from '@playwright/test';
import pg from 'pg';
import { median, report } from './lib/measure';

const ASSETS = 5000;
const METRICS = 10;
const RULES = 1000;
const FLAGS = 1000;
const INDICATORS = 300;
const BOARDS = 200;
const ROUNDS = 3;
const MAX_BYTES = 200_000;
const MAX_RATIO = 1.5;
const SETTLED_MS = 1200;

const url = process.env.BENCH_APP_URL!;
const database = new pg.Client({ connectionString: process.env.BENCH_DATABASE_URL! });
await database.connect();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const page = await context.newPage();
await page.goto(url);
await page.getByLabel('Sign in as Analyst').click();
await page.getByRole('heading', { name: 'On watch' }).waitFor();

interface Asked {
  readonly bytes: number;
  /** Of the longest answer, ms. */
  readonly longest: number;
  readonly path: string;
}

/** Opens a screen with an empty cache and adds up its requests until it is idle. */
async function open(at: string): Promise<Asked> {
  await page.evaluate(async () => {
    for (const { name } of await indexedDB.databases()) indexedDB.deleteDatabase(name!);
  });
  let bytes = 0;
  let longest = 0;
  let path = '';
  const answered = async (response: Awaited<ReturnType<Page['waitForResponse']>>): Promise<void> => {
    const where = new URL(response.url()).pathname;
    if (!where.startsWith('/api/') || where === '/api/live') return;
    const body = await response.body().catch(() => Buffer.alloc(0));
    bytes += body.length;
    const { responseEnd, requestStart } = response.request().timing();
    if (responseEnd - requestStart > longest) [longest, path] = [responseEnd - requestStart, where];
  };
  page.on('response', answered);
  await page.goto(`${url}${at}`);
  await page.waitForTimeout(SETTLED_MS);
  page.off('response', answered);
  return { bytes, longest, path };
}

const idOf = async (text: string): Promise<string> => (await database.query<{ id: string }>(text)).rows[0].id;
const SCREENS: Readonly<Record<string, string>> = {
  'On watch': '/',
  Boards: '/boards',
  'A board': `/boards/${await idOf('select id from board order by id limit 1')}`,
  'A new readout': `/boards/${await idOf('select id from board order by id limit 1')}/readouts/new`,
  Alarms: '/alarms',
  'A new rule': '/alarms/rules/new',
  'Alarm health': '/alarms/health',
  Flags: '/flags',
  Indicators: '/indicators',
  'A new indicator': '/indicators/new',
  Losses: '/losses',
  Handover: '/handover',
  Assets: '/data',
  'An asset': `/data/assets/${await idOf('select asset_id as id from metric order by id limit 1')}`,
  'A metric': `/data/metrics/${await idOf('select id from metric order by id limit 1')}`,
  Feeds: '/data/feeds',
  Logs: '/data/logs',
  Tokens: '/data/tokens',
  Files: '/data/files',
  Factors: '/data/factors',
  Intake: '/data/intake',
  'A new derived metric': `/data/derived/new?assetId=${await idOf('select asset_id as id from metric order by id limit 1')}`,
  Calendars: '/data/calendars',
};

async function walk(): Promise<Map<string, Asked[]>> {
  const found = new Map<string, Asked[]>(Object.keys(SCREENS).map((name) => [name, []]));
  for (let round = 0; round < ROUNDS; round++) {
    for (const [name, at] of Object.entries(SCREENS)) found.get(name)!.push(await open(at));
  }
  return found;
}

const few = await walk();
await database.query(
  `insert into asset (parent_id, name, kind, zone) values (null, 'Scale works', 'plant', 'Europe/London')`,
);
try {
  const plant = await idOf(`select id from asset where name = 'Scale works' and parent_id is null`);
  await database.query(
    `insert into asset (parent_id, name, kind, attributes)
     select $1, 'Hall ' || n, 'area', '{}'::jsonb from generate_series(1, 50) n`,
    [plant],
  );
  await database.query(
    `insert into asset (parent_id, name, kind, attributes)
     select hall.id, 'Machine ' || n, 'machine', jsonb_build_object('Line', n, 'Maker', 'Maker ' || n % 7)
     from asset hall, generate_series(1, $2::int) n where hall.parent_id = $1`,
    [plant, ASSETS / 50],
  );
  await database.query(
    `insert into metric (asset_id, key, name, unit, kind, interval_ms, max_gap_ms, decimals, created_at)
     select place.asset_id, 'scale.' || place.asset_id || '.' || n, 'Value ' || n, 'kWh', 'level', 60000, 180000, 1, now()
     from asset_place place, generate_series(1, $2::int) n where place.plant_id = $1 and place.depth = 3`,
    [plant, METRICS],
  );
  await database.query(
    `insert into metric_latest (metric_id, t, v, silent_at)
     select id, now() + interval '1 hour', 5, now() + interval '2 hours' from metric where key like 'scale.%'`,
  );
  await database.query(
    `insert into alarm_rule (name, metric_id, test, on_delay_ms, off_delay_ms, level, priority, message, to_do,
                             told, escalate_to, latching, in_force_from, created_by, attributes)
     select 'Scale rule ' || row_number() over (order by id), id,
            '{"kind":"limit","side":"above","limit":10,"deadband":0}'::jsonb, 0, 0, 'breach', 'low', '', '', '{}', '{}',
            false, now(), (select min(id) from person), '[]'::jsonb
     from metric where key like 'scale.%.1' order by id limit $1`,
    [RULES],
  );
  await database.query(
    `insert into alarm_watch (rule_id, metric_id, condition)
     select id, metric_id, '{"phase":"normal","seen":0}'::jsonb from alarm_rule where name like 'Scale rule %'`,
  );
  await database.query(
    `insert into alarm (rule_id, metric_id, state, raised_at, raised_value, returned_at)
     select id, metric_id, state, now() - interval '2 days', 11, now() - interval '1 day'
     from alarm_rule, unnest(array['returnedUnacknowledged', 'normal']) state where name like 'Scale rule %'`,
  );
  await database.query(
    `insert into flag (title, note, kind, priority, asset_id, from_person, to_person, created_at, due_at)
     select 'Scale flag ' || row_number() over (order by asset_id), '', 'remark', 'normal', asset_id, (select min(id) from person),
            (select min(id) from person), now(), now() + interval '30 days'
     from asset_place where plant_id = $1 and depth = 3 order by asset_id limit $2`,
    [plant, FLAGS],
  );
  await database.query(
    `with made as (
       insert into indicator (name, asset_id)
       select 'Scale indicator ' || row_number() over (order by asset_id), asset_id from asset_place
       where plant_id = $1 and depth = 3 order by asset_id limit $2 returning id, name, asset_id)
     insert into indicator_version (indicator_id, version, valid_from, definition)
     select made.id, 1, now(), jsonb_set(jsonb_set(jsonb_set(model.definition, '{name}', to_jsonb(made.name)),
              '{assetId}', to_jsonb(made.asset_id::text)), '{measure}', jsonb_build_object('metricId', (
                select metric.id::text from metric where metric.asset_id = made.asset_id order by id limit 1), 'summary', 'mean', 'per', null))
     from made, (select definition from indicator_version order by indicator_id limit 1) model`,
    [plant, INDICATORS],
  );
  await database.query(
    `insert into board (title, document, owner_id, updated_at)
     select 'Scale board ' || n, (select document from board order by id limit 1), (select min(id) from person), now()
     from generate_series(1, $1::int) n`,
    [BOARDS],
  );
  await database.query('vacuum analyze');
  const many = await walk();
  for (const [name, asked] of many) {
    const bytes = median(asked.map((each) => each.bytes));
    report(
      `${name}: bytes with ${ASSETS} assets`,
      bytes,
      MAX_BYTES,
      `${median(few.get(name)!.map((each) => each.bytes))} before`,
    );
    const [now, before] = [asked, few.get(name)!].map((all) => median(all.map(({ longest }) => longest)));
    report(
      `${name}: longest answer against before`,
      now / before,
      MAX_RATIO,
      `${now.toFixed(0)} ms / ${before.toFixed(0)} ms, ${asked[0].path}`,
    );
  }
} finally {
  if (!process.argv.includes('keep')) await takeOut();
  await database.end();
  await browser.close();
}

async function takeOut(): Promise<void> {
  await database.query(`delete from board where title like 'Scale board %'`);
  await database.query(`delete from flag where title like 'Scale flag %'`);
  await database.query(
    `delete from indicator_version using indicator where indicator_id = indicator.id and name like 'Scale indicator %'`,
  );
  await database.query(`delete from indicator where name like 'Scale indicator %'`);
  await database.query(
    `delete from alarm using alarm_rule rule where rule.id = rule_id and rule.name like 'Scale rule %'`,
  );
  await database.query(
    `delete from alarm_watch using alarm_rule rule where rule.id = rule_id and rule.name like 'Scale rule %'`,
  );
  await database.query(`delete from alarm_rule where name like 'Scale rule %'`);
  await database.query(`delete from metric where key like 'scale.%'`);
  await database.query(
    `delete from asset using asset_place place where place.asset_id = asset.id and place.depth = 3 and place.title like 'Scale works / %'`,
  );
  await database.query(
    `delete from asset using asset_place place where place.asset_id = asset.id and place.title like 'Scale works%' and place.depth = 2`,
  );
  await database.query(`delete from asset where name = 'Scale works' and parent_id is null`);
}
