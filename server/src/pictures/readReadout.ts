import {
  BeaconError,
  formatMoment,
  formatNumber,
  hoursWords,
  MINUTE_MS,
  readFilters,
  type Asset,
  type Board,
  type FilterParams,
  type Formats,
  type Metric,
  type Readout,
  windowWords,
  withFormats,
} from '@vivid-beacon/core';
import {
  automaticTitle,
  drawingOf,
  isProblem,
  leastCoverage,
  pictureOf,
  resolveReadout,
  scopeWords,
  type AlongAsks,
  type DrawingFrame,
  type Problem,
  type ReadData,
  type ReadingAnswers,
  type ReadingRequest,
  type ReadoutInputs,
  type ShownReadout,
  followIndicators,
  formFor,
  metricsOfBoard,
} from '@vivid-beacon/core/src/boards';
import { flagMarks, NOTHING_ALONG, type AlongTime, type Scene } from '@vivid-beacon/core/src/pictures';
import { raisedOnTime } from '../alarms/listSql';
import { assetsById } from '../assets/sql';
import { flagsOnTime } from '../flags/sql';
import { indicatorsReading } from '../indicators/readings';
import { toMetric } from '../metrics/metrics';
import { metricsById, metricsOfAsset } from '../metrics/sql';
import { readInProcess, type Asked } from '../readings/answerReading';
import { levelsReading, notesReading, queryReading, trendReading } from '../readings/readings';
import { SharedReads } from '../readings/sharedReads';
import { listRemarks } from '../remarks/sql';

/** A readout as it was read: what its scene and its rows are made of. */
export interface ReadReadout {
  readonly readout: Readout;
  /** Its numbers, or why there are none to show. */
  readonly data: ReadData | Problem;
  readonly title: string;
  /** What its numbers are of, as names and words. */
  readonly about: readonly (readonly [name: string, words: string])[];
  readonly draw: (frame: Pick<DrawingFrame, 'width' | 'height'>, isBare: boolean) => Scene;
}

/**
 * Reads a readout of a board: what its form asks is asked in the name of whoever wants it, as on the screen.
 *
 * @param params how the board is looked at where that differs from how it was saved, as its address says it.
 * @param asked who asks, and in which formats it is written.
 * @param width of the drawing, px: so densely a course is read.
 * @throws {BeaconError} NOT_FOUND without such a readout; what its questions refuse.
 */
export async function readReadout(
  asked: Asked & { readonly formats: Formats },
  { document }: Board,
  id: string,
  params: FilterParams,
  width: number,
): Promise<ReadReadout> {
  const found = document.readouts.find((each) => each.id === id);
  if (!found) throw new BeaconError('NOT_FOUND', 'This readout is not on the board any more.');
  const chosen = await followed(asked, found);
  const change = readFilters(params);
  const look = {
    window: change.window ?? document.window,
    scope: change.scope ?? document.scope,
    hours: change.hours === undefined ? document.hours : change.hours,
    focus: change.focus,
  };
  const metrics = await metricsOf(asked, metricsOfBoard({ readouts: [chosen] }));
  const ofFocus = look.focus === null ? [] : await metricsOfFocus(asked, look.focus);
  const scopes = await assetsOf(asked, [...(chosen.scope?.assetIds ?? []), ...(look.scope.assetIds ?? [])]);
  const shown = resolveReadout(chosen, look, { metrics, ofFocus, assets: scopes });
  const named = new Map([...metrics, ...ofFocus.map((metric) => [metric.id, metric] as const)]);
  const form = formFor(shown.readout);
  const inputs = {
    ...shown,
    metrics: named,
    facts: await assetsOf(asked, form.facts({ readout: shown.readout, metrics: named }, [])),
    view: { width, zoomed: null, now: Math.floor(asked.app.now() / MINUTE_MS) * MINUTE_MS },
  } satisfies ReadoutInputs;
  const first = await answersTo(asked, form.requests(inputs) ?? []);
  const answers = [...first, ...(await answersTo(asked, form.further(inputs, first)))];
  const facts = await assetsOf(asked, form.facts(inputs, answers));
  const data = withFormats(
    asked.formats,
    () => form.data({ ...inputs, facts }, answers) as ReadData | Problem,
  );
  const along = await alongOf(asked, isProblem(data) ? null : form.along(data));
  const nameOf = (id: string): string | undefined => scopes.get(id)?.name;
  const title = chosen.title ?? automaticTitle(shown.readout, (id) => named.get(id));
  return {
    readout: shown.readout,
    data,
    title,
    about: withFormats(asked.formats, () => aboutReadout(shown, data, nameOf, asked.app.now())),
    draw: (size, isBare) =>
      withFormats(asked.formats, () => {
        const frame = { ...size, focus: look.focus, along };
        if (isBare) return drawingOf(shown.readout, data, frame);
        return pictureOf(chosen, { ...inputs, facts: new Map([...facts, ...scopes]) }, data, frame);
      }),
  };
}

/** What the numbers of a readout are of: its window, scope and hours, how much data there is, and when it was read. */
function aboutReadout(
  { window, scope, hours, readout }: ShownReadout<Readout>,
  data: ReadData | Problem,
  nameOf: (id: string) => string | undefined,
  now: number,
): ReadReadout['about'] {
  const drawn = isProblem(data) ? null : data;
  const coverage = drawn && leastCoverage(drawn);
  const zone = drawn?.zone ?? 'UTC';
  return [
    ['Window', windowWords(window)],
    ...(drawn
      ? [
          ['From', formatMoment(drawn.window.start, zone, now)] as const,
          ['To', formatMoment(drawn.window.end, zone, now)] as const,
        ]
      : []),
    ['Zone', zone],
    ['Assets', scopeWords(scope, nameOf) ?? 'all'],
    ['Hours', hours ? hoursWords(hours) : 'all'],
    ['Least coverage', coverage === null ? 'not told' : `${formatNumber(coverage * 100, 1)} %`],
    ...(readout.footnote ? [['Footnote', readout.footnote] as const] : []),
    ['Read at', formatMoment(now, zone, now)],
    ...(isProblem(data) ? [[data.problem.title, data.problem.text] as const] : []),
  ];
}

/** A readout as its indicator has it now. */
async function followed(asked: Asked, readout: Readout): Promise<Readout> {
  if (readout.indicatorId === null) return readout;
  const page = { ids: readout.indicatorId, search: '', offset: 0, limit: 1 };
  const { items } = await readInProcess(asked, indicatorsReading, page);
  return followIndicators([readout], items)[0];
}

async function metricsOf({ app, db }: Asked, ids: readonly string[]): Promise<Map<string, Metric>> {
  const rows = await metricsById(db, ids);
  return new Map([...rows].map(([id, row]) => [id, toMetric(row, app.now())]));
}

async function metricsOfFocus({ app, db }: Asked, assetId: string): Promise<Metric[]> {
  const rows = await metricsOfAsset(db, assetId);
  return rows.map((row) => toMetric(row, app.now()));
}

async function assetsOf({ db }: Asked, ids: readonly string[]): Promise<Map<string, Asset>> {
  const assets = ids.length === 0 ? [] : await assetsById(db, [...new Set(ids)]);
  return new Map(assets.map((asset) => [asset.id, asset]));
}

/** All that is asked reads each metric once. What the drawing can do without may be refused. */
function answersTo(asked: Asked, asks: readonly ReadingRequest[]): Promise<ReadingAnswers> {
  const reads = new SharedReads();
  return Promise.all(
    asks.map(async (each) => {
      try {
        switch (each.kind) {
          case 'query':
            return await readInProcess(asked, queryReading, each.ask, reads);
          case 'trend':
            return await readInProcess(asked, trendReading, each.ask, reads);
          case 'notes':
            return await readInProcess(asked, notesReading, each.ask, reads);
        }
      } catch (error) {
        if (each.isExtra && error instanceof BeaconError) return undefined;
        throw error;
      }
    }),
  );
}

/** What lies along the time of a drawing: breaches, remarks, alarms, flags. */
async function alongOf(asked: Asked, asks: AlongAsks | null): Promise<AlongTime> {
  if (asks === null) return NOTHING_ALONG;
  const { window, levels, assetId, alarms, flags } = asks;
  const { db } = asked;
  const [spans, remarks, raisings, handed] = await Promise.all([
    levels ? readInProcess(asked, levelsReading, levels) : [],
    assetId ? listRemarks(db, [assetId], Math.floor(window.start), Math.ceil(window.end)) : [],
    alarms.length > 0 ? raisedOnTime(db, [...alarms], window) : [],
    flags.length > 0 ? flagsOnTime(db, [...flags], window) : [],
  ]);
  return { spans, remarks, alarms: raisings.map(({ raisedAt }) => raisedAt), flags: flagMarks(handed) };
}
