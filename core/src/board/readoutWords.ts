import { lowerFirst } from '../text/lowerFirst';
import { showsWords, takesAllMeasures, traitsOfForm } from '../readouts/forms';
import { perName, SUMMARY_WORDS } from '../domain/metric';
import { isUsualSummary, nameInGroups } from '../readouts/measureNames';
import type { GroupBy, Scope } from '../domain/query';
import { hoursWords } from '../time/hours';
import type { Measure } from '../domain/measure';
import type { Readout } from './board';

/** The names of a metric that a title needs. */
export interface MetricName {
  readonly name: string;
  readonly assetName: string;
}

/** The grouping in words: "by asset", "by Floor area". */
export function groupWords(by: GroupBy): string {
  switch (by.kind) {
    case 'metric':
      return 'by metric';
    case 'asset':
      return 'by asset';
    case 'plant':
      return 'by plant';
    case 'part':
      return 'by part';
    case 'assetKind':
      return 'by kind of asset';
    case 'attribute':
      return `by ${by.name}`;
    case 'all':
      return 'all together';
  }
}

/** What a group is: "plant", "Maker". */
export const groupNoun = (by: GroupBy): string => groupWords(by).replace(/^by /, '');

/** Title of one measure: "Gas used per dried weight" or "Ironer 2 bed temperature, highest". */
export function measureTitle(
  measure: Measure,
  metric: MetricName,
  per: { readonly name: string } | null,
): string {
  if (per) return `${metric.name} per ${lowerFirst(per.name)}`;
  const own = `${metric.assetName} ${lowerFirst(metric.name)}`;
  const name = measure.perAttribute == null ? own : `${own} per ${perName(measure.perAttribute)}`;
  return isUsualSummary(measure) ? name : `${name}, ${SUMMARY_WORDS[measure.summary]}`;
}

/** The automatic title of a readout, from its choices. */
export function automaticTitle(
  readout: Pick<Readout, 'form' | 'measures' | 'groupBy'> & Partial<Pick<Readout, 'multiplesBy'>>,
  metricOf: (id: string) => MetricName | undefined,
): string {
  const [first, ...more] = readout.measures;
  if (!first) return showsWords(readout) ? traitsOfForm(readout.form).label : 'Readout';
  const metric = metricOf(first.metricId);
  if (!metric) return 'Removed metric';
  if (readout.groupBy) {
    const shown = takesAllMeasures(readout) ? readout.measures : [first];
    const names = shown.map((measure) => nameInGroups(measure, metricOf));
    const copies = readout.multiplesBy ? `, for each ${groupNoun(readout.multiplesBy)}` : '';
    return `${listed([names[0], ...names.slice(1).map(lowerFirst)])}, ${groupWords(readout.groupBy)}${copies}`;
  }
  const per = first.per ? (metricOf(first.per.metricId) ?? null) : null;
  if (more.length === 0) return measureTitle(first, metric, per);
  const others = more.map(({ metricId }) => metricOf(metricId)).filter((each) => each !== undefined);
  const names = new Set([metric, ...others].map(({ name }) => name));
  const assets = new Set([metric, ...others].map(({ assetName }) => assetName));
  // Assets of the same name in several plants are counted, because a list of names would hide how many there
  // are.
  if (names.size === 1 && assets.size <= others.length) return `${metric.name}, ${others.length + 1} assets`;
  if (names.size === 1) return `${metric.name}, ${listed([...assets])}`;
  if (assets.size === 1) return `${metric.assetName}: ${listed([...names].map(lowerFirst))}`;
  return `${measureTitle(first, metric, per)} and ${more.length} more`;
}

function listed(names: readonly string[]): string {
  if (names.length <= 3) return names.join(', ').replace(/, ([^,]*)$/, ' and $1');
  return `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
}

/** A scope in words: "Ironer hall, Dryers" or "Maker Acme or Weld". null = everything. */
export function scopeWords(scope: Scope, assetName: (id: string) => string | undefined): string | null {
  const parts = [
    ...(scope.assetIds ? [scope.assetIds.map((id) => assetName(id) ?? 'a removed asset').join(', ')] : []),
    ...scope.attributes.map(({ name, values }) => `${name} ${values.join(' or ')}`),
  ];
  return parts.length === 0 ? null : parts.join('; ');
}

/** The automatic footnote: subset and hours of the readout. null = nothing is left out. */
export function automaticFootnote(
  {
    form,
    scope,
    hours,
    groupBy,
    keepBlanks,
    measures,
  }: Pick<Readout, 'form' | 'scope' | 'hours' | 'groupBy' | 'keepBlanks' | 'measures'>,
  assetName: (id: string) => string | undefined,
): string | null {
  const parts = [
    scope && scopeWords(scope, assetName),
    hours && hoursWords(hours),
    groupBy?.kind === 'attribute' && !keepBlanks ? `those that have ${groupBy.name}` : null,
    groupBy && measures.length > 1 && !takesAllMeasures({ form })
      ? `the first of its ${measures.length} metrics, because it is grouped`
      : null,
  ].filter((each) => each !== null);
  return parts.length === 0 ? null : `Only ${parts.join('; ')}`;
}
