import type { TargetBand } from '../bands/targetBand';
import { scaleEnds } from '../bands/scaleEnds';
import type { BaseReadout } from '../board/choices';
import { lowerFirst } from '../text/lowerFirst';
import { addsUpOverAssets } from '../domain/measure';
import type { QueryAnswer, QueryGroup } from '../domain/query';
import { decimalsFor } from '../format/format';
import { displayDivisor, displayUnit, dividedBand } from '../format/displayScale';
import { nameInGroups } from './measureNames';
import { bandOfMeasure, type WithMoreBands } from './moreBands';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';
import {
  groupNames,
  levelFor,
  readoutQuery,
  readoutValues,
  valueOfMeasure,
  type ReadoutValue,
} from './readoutValues';
import { NOTHING_IN_SCOPE } from './valuesData';

/** A measure of grouped readouts: a column of numbers. */
export interface MeasureColumn {
  /** "Gas used per dried weight". */
  readonly name: string;
  readonly unit: string;
  /** By what its values are divided for display: 1, a thousand or a million. */
  readonly divisor: number;
  /** In its unit. */
  readonly band: TargetBand | null;
  readonly decimals: number;
  /** Whether its values add up to a total: amounts do, means and ratios do not. */
  readonly addsUp: boolean;
}

/** A group, or a metric chosen by itself, with one value per column. */
export interface GroupRow {
  readonly key: string;
  readonly name: string;
  /** The asset it represents, which a tap focuses; null if none or several. */
  readonly assetId: string | null;
  readonly values: readonly ReadoutValue[];
}

/** Several measures for each group; at least one column and one row. */
export interface GroupsData<Choices = object> extends ReadData {
  readonly columns: readonly MeasureColumn[];
  readonly groups: readonly GroupRow[];
  readonly readout: BaseReadout & Choices;
  /** Of copies side by side: values of all of them, by column, which the scale of each fits too. */
  readonly beside?: readonly (readonly number[])[];
}

/** Copies with the same measures, each with the values of all beside its own. */
export function besideGroups<Data extends GroupsData>(all: readonly Data[]): readonly Data[] {
  const beside = all[0].columns.map((_, i) =>
    all.flatMap(({ groups }) => groups.flatMap(({ values }) => values[i]?.value ?? [])),
  );
  return all.map((data) => ({ ...data, beside }));
}

/** The request for all measures of each group; null while a metric is not loaded. */
export function groupsRequests({ metrics, ...shown }: ReadoutInputs): readonly ReadingRequest[] | null {
  if (shown.readout.measures.length === 0) return [];
  const ask = readoutQuery(shown, metrics, { all: true });
  return ask && [{ kind: 'query', ask }];
}

/** Turns the answer into groups with a value for each measure. */
export function groupsData<Choices extends WithMoreBands>(
  inputs: ReadoutInputs<Choices>,
  [answer]: ReadingAnswers,
): GroupsData<Choices> | Problem {
  if (!answer) return NOTHING_IN_SCOPE;
  const { readout } = inputs;
  const given = answer as QueryAnswer;
  const groups = readout.groupBy ? rowsOfGroups(given, inputs) : rowsOfMeasures(given, inputs);
  if (groups.length === 0) return NOTHING_IN_SCOPE;
  const units = [...new Set(groups.flatMap(({ values }) => values.map(({ unit }) => unit)))];
  if (!readout.groupBy && units.length > 1) return unlike(units);
  const { window, zone, now } = given;
  const columns = columnsOf(inputs, groups);
  const shownBy = (values: GroupRow['values']): ReadoutValue[] =>
    values.map((value, i) => asDisplayed(value, columns[i]));
  return {
    readout,
    columns,
    groups: groups.map((row) => ({ ...row, values: shownBy(row.values) })),
    decimals: columns[0].decimals,
    window,
    zone,
    now,
  };
}

/**
 * One measure of everything that an answer is about: the whole, or all that was cut off.
 * @param answer about that measure alone. @param measure its index in the readout.
 */
export function valueOfAll(
  answer: QueryAnswer,
  { readout, columns }: GroupsData<WithMoreBands>,
  measure: number,
  name: string,
): ReadoutValue {
  const units = readout.measures.map(() => answer.units[0]);
  const value = valueOfMeasure({ ...answer, units }, readout, answer.groups[0].measures[0], measure);
  const level = levelFor(bandOfMeasure(readout, measure), value.value, value.coverage);
  return asDisplayed(
    { ...value, level, key: `${name} ${measure}`, name, assetId: null, group: null },
    columns[measure],
  );
}

const unlike = (units: readonly string[]): Problem => ({
  problem: {
    title: 'Nothing to compare',
    text: `Only metrics of one unit are compared; these are in ${units.map((unit) => unit || 'none').join(' and ')}. Group it by asset to show them side by side.`,
  },
});

function rowsOfGroups(answer: QueryAnswer, { readout, metrics }: ReadoutInputs<WithMoreBands>): GroupRow[] {
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = groupNames(groups, readout.groupBy!);
  // Once for all rows, of which there may be a hundred thousand.
  const measured = readout.measures.map((measure) =>
    readout.measures.length === 1 ? '' : `, ${lowerFirst(nameInGroups(measure, (id) => metrics.get(id)))}`,
  );
  const bands = readout.measures.map((_, i) => bandOfMeasure(readout, i));
  return groups.map((group, i) => ({
    key: group.name,
    name: names[i],
    assetId: group.assetId,
    values: valuesIn(answer, readout, group, (measure) => names[i] + measured[measure], bands),
  }));
}

const valuesIn = (
  answer: QueryAnswer,
  readout: BaseReadout & WithMoreBands,
  group: QueryGroup,
  nameOf: (measure: number) => string,
  bands: readonly (TargetBand | null)[],
): ReadoutValue[] => {
  const { name, assetId } = group;
  const own = { name, assetId };
  return group.measures.map((values, i) => {
    const value = valueOfMeasure(answer, readout, values, i);
    const level = levelFor(bands[i], value.value, value.coverage);
    return Object.assign(value, { level, key: `${name} ${i}`, name: nameOf(i), assetId, group: own });
  });
};

/** Metrics chosen one by one: each is a row of the only column. */
const rowsOfMeasures = (answer: QueryAnswer, { readout, metrics }: ReadoutInputs): GroupRow[] =>
  readoutValues(answer, readout, metrics).map((value) => ({
    key: value.key,
    name: value.name,
    assetId: value.assetId,
    values: [value],
  }));

/** A value in units, thousands or millions, as its column has them. */
function asDisplayed(value: ReadoutValue, { divisor, unit }: MeasureColumn): ReadoutValue {
  if (divisor === 1) return value;
  const divide = (each: number | null): number | null => (each === null ? null : each / divisor);
  return { ...value, value: divide(value.value), previous: divide(value.previous), unit };
}

/** The columns of values that are not scaled yet; only those in the unit of the first are. */
function columnsOf(
  { readout, metrics }: ReadoutInputs<WithMoreBands>,
  groups: readonly GroupRow[],
): MeasureColumn[] {
  const { measures, display } = readout;
  return groups[0].values.map((first, i) => {
    const measure = measures[i];
    const scaled = first.unit === groups[0].values[0].unit;
    const divisor = scaled ? displayDivisor(display) : 1;
    const band = dividedBand(bandOfMeasure(readout, i), divisor);
    const values = groups.map(({ values: own }) => (own[i].value ?? NaN) / divisor);
    return {
      name: readout.groupBy ? nameInGroups(measure, (id) => metrics.get(id)) : '',
      unit: scaled ? displayUnit(first.unit, display) : first.unit,
      divisor,
      band,
      decimals: readout.decimals ?? decimalsFor(...scaleEnds(band, values)),
      addsUp: readout.groupBy ? addsUpOverAssets(measure) : measures.every(addsUpOverAssets),
    };
  });
}
