import {
  BUCKET_WORDS,
  groupWords,
  hoursWords,
  lowerFirst,
  scopeWords,
  SUMMARY_WORDS,
  windowWords,
  type Metric,
  type Readout,
  type TargetBand,
} from '@vivid-beacon/core';
import { DIRECTION_WORDS } from '../../bands/directionWords';
import type { SentencePart } from '../../components/Sentence';

/**
 * The sentence of a readout, in the order people think: what, when, by what, only which, against what, how
 * shown. Any slot can be opened first.
 *
 * Of an indicator only what it does not govern can be chosen.
 *
 * @param whole also the slots that say nothing yet; else one slot stands for all of them.
 */
export function readoutSentence(
  readout: Readout,
  metrics: ReadonlyMap<string, Metric>,
  assetName: (id: string) => string | undefined,
  whole = true,
  indicatorName: (id: string) => string | undefined = () => undefined,
): SentencePart[] {
  const words = (text: string): SentencePart => ({ kind: 'words', text });
  const slot = (key: string, text: string): SentencePart => ({ kind: 'slot', key, text });
  const [measure, ...more] = readout.measures;
  if (readout.form === 'note') {
    return [words('A note with'), slot('words', 'its text'), words('and'), slot('look', lookWords(readout))];
  }
  if (!measure) return [words('Show'), slot('metric', 'a metric')];
  const trend = readout.form === 'trend';
  const byBucket = (usual: string): SentencePart[] =>
    trend
      ? [words('by'), slot('bucket', readout.bucket ? `the ${BUCKET_WORDS[readout.bucket]}` : usual)]
      : [];
  const { indicatorId } = readout;
  if (indicatorId !== null) {
    return [
      words('Show the indicator'),
      slot('metric', indicatorName(indicatorId) ?? readout.title ?? 'that was removed'),
      ...(trend
        ? [words('over'), slot('window', readout.window ? windowWords(readout.window) : "the board's window")]
        : []),
      ...byBucket(measure.per ? 'the hour' : 'every sample'),
      words('with'),
      slot('look', lookWords(readout)),
    ];
  }
  const metric = metrics.get(measure.metricId);
  const per = measure.per && metrics.get(measure.per.metricId);
  const what = !metric
    ? 'a removed metric'
    : lowerFirst(metric.name) + (readout.groupBy ? '' : `, ${metric.assetName}`);
  const scope = readout.scope && scopeWords(readout.scope, assetName);
  const part = (said: boolean, ...parts: SentencePart[]): SentencePart[] => (said || whole ? parts : []);
  return [
    words('Show the'),
    slot('summary', SUMMARY_WORDS[measure.summary]),
    words('of'),
    slot('metric', what),
    ...(per ? [words('per'), slot('per', lowerFirst(per.name))] : part(false, slot('per', 'on its own'))),
    ...(readout.groupBy
      ? []
      : part(
          more.length > 0,
          words('with'),
          slot('more', more.length === 0 ? 'nothing else' : `${more.length} more`),
        )),
    words('over'),
    slot('window', readout.window ? windowWords(readout.window) : "the board's window"),
    ...byBucket(per ? 'the hour' : 'every sample'),
    ...part(
      readout.groupBy !== null,
      slot('group', readout.groupBy ? groupWords(readout.groupBy) : 'not grouped'),
    ),
    ...part(
      scope !== null,
      words('for'),
      slot('scope', scope ?? (readout.groupBy ? 'all assets' : 'this asset')),
    ),
    ...part(
      readout.hours !== null,
      words('in'),
      slot('hours', readout.hours ? hoursWords(readout.hours) : 'all hours'),
    ),
    words('against'),
    slot('band', readout.band ? bandWords(readout.band) : 'no target band'),
    ...part(
      readout.normalise !== null || readout.align !== null,
      words('and'),
      slot('compare', compareWords(readout)),
    ),
    ...part(readout.title !== null, words('shown with'), slot('look', lookWords(readout))),
    ...(whole ? [] : [words('and'), slot(UNFOLD, 'more choices')]),
  ];
}

/** The slot that stands for all that say nothing yet. */
export const UNFOLD = 'unfold';

const COMPARE_WORDS: Readonly<Record<Readout['compare'], string>> = {
  before: 'the window before',
  lastYear: 'the same last year',
  none: 'no reference',
};

function compareWords({ form, compare, normalise, align }: Readout): string {
  const inTrend = [
    ...(form === 'trend' && normalise
      ? [normalise.by === 'first' ? 'in percent of the first value' : `per ${normalise.name}`]
      : []),
    ...(form === 'trend' && align ? [`by days since ${align.attribute}`] : []),
  ];
  const reference = compare === 'none' && inTrend.length > 0 ? [] : [COMPARE_WORDS[compare]];
  return [...reference, ...inTrend].join(', ');
}

function lookWords({ title }: Readout): string {
  return title === null ? 'an automatic title' : 'a title of its own';
}

function bandWords(band: TargetBand): string {
  return `a target band, ${DIRECTION_WORDS[band.direction]}`;
}
