import { SUMMARIES_OF_KIND, SUMMARY_WORDS, type MetricKind, type Summary } from '../domain/metric';
import { BeaconError } from '../errors';

/** @throws {BeaconError} BAD_INPUT if the summary is not defined for the kind. */
export function checkSummary(summary: Summary, kind: MetricKind, path = 'summary', name = 'A metric'): void {
  if (SUMMARIES_OF_KIND[kind].includes(summary)) return;
  throw new BeaconError(
    'BAD_INPUT',
    `${name} of kind ${kind}: the ${SUMMARY_WORDS[summary]} makes no sense for a metric of kind ${kind}; ` +
      `choose one of ${SUMMARIES_OF_KIND[kind].map((each) => SUMMARY_WORDS[each]).join(', ')}.`,
    path,
  );
}
