import { BUCKET_WORDS, type Bucket } from '../time/buckets';
import { MINIMUM_COVERAGE } from '../bands/targetBand';
import { formatGraduation, formatNumber } from '../format/format';
import type { TrendData, TrendReadoutOf } from './trendData';

/** The caption of a trend: units, period, targets and reference. */
export function trendCaption({ series, readout, reference, asked, aligned }: TrendData): string {
  const { bucket } = series[0].answer;
  const units = [...new Set(series.map(({ answer }) => answer.unit))];
  const named = units.filter((unit) => unit !== '');
  const kind =
    bucket === null
      ? 'samples, spikes kept'
      : `${readout.cumulative ? 'running total, ' : ''}one value for each ${BUCKET_WORDS[bucket]}`;
  const target = targetWords(readout, units);
  const compared = reference
    ? `, dashed: ${reference.name === 'before' ? 'the window before' : 'the same last year'}`
    : '';
  const counted = aligned ? `, by days since ${asked.align!.attribute}` : '';
  const missing = readout.cumulative ? missingWords(series, bucket) : '';
  const thin = series.reduce((n, { answer }) => n + (answer.thin?.length ?? 0), 0);
  const rings =
    thin === 0
      ? ''
      : `, ${thin === 1 ? 'a ring' : `${thin} rings`} under ${formatNumber(MINIMUM_COVERAGE * 100, 0)} % coverage`;
  return `${named.length > 0 ? `in ${listed(named)}, ` : ''}${kind}${missing}${target}${counted}${compared}${rings}`;
}

/** "kW, bar and °C". */
const listed = (names: readonly string[]): string =>
  [names.slice(0, -1).join(', '), ...names.slice(-1)].filter((text) => text !== '').join(' and ');

/** What running totals are without, and that the last point is of an unfinished period. */
function missingWords(series: TrendData['series'], bucket: Bucket | null): string {
  const words = bucket === null ? 'period' : BUCKET_WORDS[bucket];
  const left = series.reduce((n, { missing = 0 }) => n + missing, 0);
  const unfinished = series.some(({ answer: { until, now } }) => until?.some((end) => end > now));
  const without = left === 0 ? '' : `, without ${left} with too little data`;
  return `${without}${unfinished ? `, this ${words} so far` : ''}`;
}

/** The targets that are drawn; one beyond the ends of its scale is not. */
function targetWords({ mark, band, secondBand, scale }: TrendReadoutOf, units: readonly string[]): string {
  if (mark === 'stacked') return '';
  const words = [band, secondBand].flatMap((each, i) => {
    if (i >= units.length || typeof each?.target !== 'number') return [];
    // Ends are those of the first unit.
    const beyond = i === 0 && scale.ends && (each.target < scale.ends[0] || each.target > scale.ends[1]);
    const text = `${formatGraduation(each.target)}${units.length > 1 ? ` ${units[i]}` : ''}`;
    return [beyond ? `${text} beyond the scale` : text];
  });
  if (words.length === 0) return '';
  const drawn = words.some((text) => !text.endsWith('beyond the scale'));
  return `, target ${words.join(' and ')}${drawn ? ' at the triangle' : ''}`;
}
