import {
  BUCKET_WORDS,
  hoursWords,
  lowerFirst,
  perName,
  SUMMARY_WORDS,
  windowWords,
  type HoursFilter,
  type Metric,
  type Readout,
  type Slot,
} from '@vivid-beacon/core';
import { groupNoun, groupWords, offeredSlots, scopeWords } from '@vivid-beacon/core/src/boards';
import { DIRECTION_WORDS } from '../../bands/directionWords';
import type { SentencePart } from '../../components/Sentence';

/** A readout and the names that its sentence needs. */
interface Described {
  readonly readout: Readout;
  readonly metrics: ReadonlyMap<string, Metric>;
  readonly assetName: (id: string) => string | undefined;
  readonly indicatorName: (id: string) => string | undefined;
}

/** How one slot reads. */
interface Phrase {
  /** The words before it; none where the slot begins with its own. */
  readonly before?: string;
  readonly text: string;
  /** It names a choice that differs from what is usual, so it stays when the sentence is folded. */
  readonly chosen: boolean;
}

/** The slot that stands for all that are folded away. */
export const UNFOLD = 'unfold';

/**
 * The sentence a readout is built with: its slots in the order of its form, each with its choice.
 *
 * @param whole also the slots that hold the usual choice; otherwise one slot, `UNFOLD`, stands for all of them.
 */
export function readoutSentence(
  readout: Readout,
  metrics: Described['metrics'],
  assetName: Described['assetName'],
  whole = true,
  indicatorName: Described['indicatorName'] = () => undefined,
): SentencePart[] {
  const words = (text: string): SentencePart => ({ kind: 'words', text });
  const slot = (key: string, text: string): SentencePart => ({ kind: 'slot', key, text });
  const slots = offeredSlots(readout);
  if (slots.includes('metric') && readout.measures.length === 0)
    return [words('Show'), slot('metric', 'a metric')];
  const phrases = slots.map((each) => ({
    each,
    ...PHRASES[each]({ readout, metrics, assetName, indicatorName }),
  }));
  const told = phrases.filter(({ chosen }) => chosen || whole);
  return [
    ...told.flatMap(({ each, before, text }) => [...(before ? [words(before)] : []), slot(each, text)]),
    ...(told.length < phrases.length ? [words('and'), slot(UNFOLD, 'more choices')] : []),
  ];
}

const PHRASES: Readonly<Record<Slot, (described: Described) => Phrase>> = {
  summary: ({ readout }) => ({
    before: 'Show the',
    text: SUMMARY_WORDS[readout.measures[0].summary],
    chosen: true,
  }),
  metric: ({ readout, metrics, indicatorName }) => {
    if (readout.indicatorId !== null) {
      const name = indicatorName(readout.indicatorId) ?? readout.title ?? 'that was removed';
      return { before: 'Show the indicator', text: name, chosen: true };
    }
    const metric = metrics.get(readout.measures[0].metricId);
    const asset = readout.groupBy ? '' : `, ${metric?.assetName}`;
    return {
      before: 'of',
      text: metric ? lowerFirst(metric.name) + asset : 'a removed metric',
      chosen: true,
    };
  },
  per: ({ readout: { measures }, metrics }) => {
    const per = measures[0].per && metrics.get(measures[0].per.metricId);
    if (per) return { before: 'per', text: lowerFirst(per.name), chosen: true };
    const { perAttribute = null } = measures[0];
    return perAttribute === null
      ? { text: 'on its own', chosen: false }
      : { before: 'per', text: perName(perAttribute), chosen: true };
  },
  more: ({ readout: { measures } }) => {
    const more = measures.length - 1;
    return { before: 'with', text: more === 0 ? 'nothing else' : `${more} more`, chosen: more > 0 };
  },
  window: ({ readout: { window } }) => ({
    before: 'over',
    text: window ? windowWords(window) : "the board's window",
    chosen: true,
  }),
  bucket: ({ readout }) => {
    const bucket = 'bucket' in readout ? readout.bucket : null;
    const usual = readout.measures[0].per ? 'the hour' : 'every sample';
    return { before: 'by', text: bucket ? `the ${BUCKET_WORDS[bucket]}` : usual, chosen: true };
  },
  group: ({ readout: { groupBy, multiplesBy } }) => ({
    text: groupBy ? groupWords(groupBy) + copyWords(multiplesBy) : 'not grouped',
    chosen: groupBy !== null,
  }),
  scope: ({ readout: { scope, groupBy }, assetName }) => {
    const chosen = scope && scopeWords(scope, assetName);
    const usual = groupBy ? 'all assets' : 'this asset';
    return { before: 'for', text: chosen ?? usual, chosen: chosen !== null };
  },
  hours: ({ readout: { hours } }) => ({
    text: hours ? during(hours) : 'in all hours',
    chosen: hours !== null,
  }),
  band: ({ readout: { band } }) => ({
    before: 'against',
    text: band ? `a target band, ${DIRECTION_WORDS[band.direction]}` : 'no target band',
    chosen: true,
  }),
  compare: ({ readout }) => ({
    before: 'and',
    text: compareWords(readout),
    chosen: 'normalise' in readout && (readout.normalise !== null || readout.align !== null),
  }),
  words: () => ({ before: 'A note with', text: 'its text', chosen: true }),
  appearance: ({ readout: { title, measures, indicatorId } }) => ({
    before: measures.length === 0 ? 'and' : 'shown with',
    text: title === null ? 'an automatic title' : 'a title of its own',
    // Of a note or an indicator there is little else to choose.
    chosen: title !== null || measures.length === 0 || indicatorId !== null,
  }),
};

/** ", one copy for each plant". */
const copyWords = (by: Readout['multiplesBy']): string =>
  by === null ? '' : `, one copy for each ${groupNoun(by)}`;

const during = (hours: HoursFilter): string =>
  hours.kind === 'clock' ? `from ${hoursWords(hours)}` : hoursWords(hours);

const COMPARE_WORDS: Readonly<Record<Readout['compare'], string>> = {
  before: 'the window before',
  lastYear: 'the same last year',
  none: 'no reference',
};

function compareWords(readout: Readout): string {
  const { compare } = readout;
  const { normalise, align } = 'normalise' in readout ? readout : { normalise: null, align: null };
  const inTrend = [
    ...(normalise ? ['in percent of the first value'] : []),
    ...(align ? [`by days since ${align.attribute}`] : []),
  ];
  const reference = compare === 'none' && inTrend.length > 0 ? [] : [COMPARE_WORDS[compare]];
  return [...reference, ...inTrend].join(', ');
}
