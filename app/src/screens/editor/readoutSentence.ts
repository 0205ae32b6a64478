import { SUMMARY_WORDS, windowWords, type Metric, type Readout, type TargetBand } from '@vivid-beacon/core';
import type { SentencePart } from '../../components/Sentence';

/** The sentence of a readout: "Show the mean of bed temperature, Ironer 2 over the last hour against a target band". */
export function readoutSentence(
  readout: Readout | null,
  metrics: ReadonlyMap<string, Metric>,
): SentencePart[] {
  const words = (text: string): SentencePart => ({ kind: 'words', text });
  const slot = (key: string, text: string): SentencePart => ({ kind: 'slot', key, text });
  if (!readout) return [words('Show'), slot('metric', 'a metric')];
  const { measure } = readout;
  const metric = metrics.get(measure.metricId);
  const per = measure.per && metrics.get(measure.per.metricId);
  const parts = [
    words('Show the'),
    slot('summary', SUMMARY_WORDS[measure.summary]),
    words('of'),
    slot('metric', metric ? `${lowerFirst(metric.name)}, ${metric.assetName}` : 'a removed metric'),
    ...(per ? [words('per'), slot('per', lowerFirst(per.name))] : [slot('per', 'on its own')]),
    words('over'),
    slot('window', readout.window ? windowWords(readout.window) : "the board's window"),
  ];
  if (readout.form === 'trend') {
    parts.push(
      words('by'),
      slot('bucket', readout.bucket ? `the ${readout.bucket}` : per ? 'the hour' : 'every sample'),
    );
  }
  parts.push(words('against'), slot('band', readout.band ? bandWords(readout.band) : 'no target band'));
  parts.push(
    words('and'),
    slot('look', readout.title === null ? 'an automatic title' : 'a title of its own'),
  );
  return parts;
}

const BETTER: Readonly<Record<TargetBand['direction'], string>> = {
  lower: 'lower is better',
  higher: 'higher is better',
  inside: 'inside is better',
};

function bandWords(band: TargetBand): string {
  return `a target band, ${BETTER[band.direction]}`;
}

function lowerFirst(text: string): string {
  return /^[A-Z][a-z]/.test(text) ? text[0].toLowerCase() + text.slice(1) : text;
}
