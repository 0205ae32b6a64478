import type { TargetBand } from '../bands/targetBand';
import type { MetricKind } from '../domain/metric';
import { taggedUnion, type TypeOf } from '../schemas/shape';
import type { RuleOver } from './rulePeriods';
import { baselineTest } from './tests/baseline';
import { changeTest } from './tests/change';
import { consumptionTest } from './tests/consumption';
import { levelTest } from './tests/level';
import { limitTest } from './tests/limit';
import { outsideTest } from './tests/outside';
import { runRulesTest } from './tests/runRules';
import { silenceTest } from './tests/silence';
import { stateTest } from './tests/state';
import type { DisplayUnit, TestedMetric, TestTraits, ValueLimit } from './tests/testKind';

/** The kinds of alarm test, in the order the editor offers them. */
const TESTS = {
  state: stateTest,
  limit: limitTest,
  level: levelTest,
  outside: outsideTest,
  change: changeTest,
  consumption: consumptionTest,
  silence: silenceTest,
  baseline: baselineTest,
  runRules: runRulesTest,
} as const;
type Tests = typeof TESTS;

export type AlarmTestKind = keyof Tests;
export const ALARM_TEST_KINDS = Object.keys(TESTS) as readonly AlarmTestKind[];

/** One trait of every test, keyed by kind. */
const each = <Trait extends 'fields' | 'check'>(trait: Trait) =>
  Object.fromEntries(ALARM_TEST_KINDS.map((kind) => [kind, TESTS[kind][trait]])) as {
    readonly [Kind in AlarmTestKind]: Tests[Kind][Trait];
  };

/**
 * The test of an alarm rule. Limits, deadbands and amounts are in the metric's unit, percent as 5 = 5 %,
 * lengths of time in ms. A value exactly on a limit is in alarm only
 * where the test says "at or above" or "at or below".
 */
export const alarmTestSchema = taggedUnion('AlarmTest', 'kind', each('fields'), each('check'));
export type AlarmTest = TypeOf<typeof alarmTestSchema>;

/** The traits of a test's kind. */
export function traitsOf(test: AlarmTest): TestTraits<AlarmTest> {
  return TESTS[test.kind];
}

/** The label of a kind in the editor. */
export const alarmTestLabel = (kind: AlarmTestKind): string => TESTS[kind].label;

/** The tests that apply to the samples of a kind of metric, the most common first. */
export function testsOfMetric(kind: MetricKind): readonly AlarmTestKind[] {
  return ALARM_TEST_KINDS.filter((each) => TESTS[each].metrics.includes(kind));
}

/**
 * The tests that apply to what a rule judges: the samples of a metric, or the values of periods, which are
 * numbers whatever the kind of the metric.
 */
export function testsOfRule(kind: MetricKind, over: RuleOver | null): readonly AlarmTestKind[] {
  if (over === null) return testsOfMetric(kind);
  return ALARM_TEST_KINDS.filter((each) => {
    const { ofPeriods } = TESTS[each];
    return ofPeriods === 'any' || (ofPeriods === 'indicator' && over.indicatorId !== null);
  });
}

/** The word that ends a rule's name: "high", "silent". */
export const ruleEnding = (kind: AlarmTestKind): string => TESTS[kind].ending;

/** A first test of this kind, with a limit that past values seldom pass. */
export function firstTest(kind: AlarmTestKind, metric: TestedMetric, usual: number): AlarmTest {
  return TESTS[kind].begin(metric, usual);
}

/**
 * The test in words, to follow "when the metric is": "above 205 °C". `unit` and `decimals` are the metric's.
 */
export function testWords(test: AlarmTest, unit: string, decimals: number): string {
  return traitsOf(test).words(test, { unit, decimals });
}

/** When the value is back to normal, in words; null where the test has no separate return condition. */
export function backWords(test: AlarmTest, unit: string, decimals: number): string | null {
  return traitsOf(test).back?.(test, { unit, decimals }) ?? null;
}

/** The limit that decides how often a test fires, in the unit shown to people; null if it has none. */
export function limitOf(test: AlarmTest): number | null {
  return traitsOf(test).hasLimit ? (test as { readonly limit: number }).limit : null;
}

/** The same test with another limit. */
export function withLimit(test: AlarmTest, limit: number): AlarmTest {
  return limitOf(test) === null ? test : ({ ...test, limit } as AlarmTest);
}

/** Unit and decimals of the limit. */
export function unitOfLimit(test: AlarmTest, shown: DisplayUnit): DisplayUnit {
  return traitsOf(test).limitUnit?.(test, shown) ?? shown;
}

/** Whether a test compares the values themselves with its limits. */
export const comparesValues = (test: AlarmTest): boolean => traitsOf(test).valueLimits !== undefined;

/**
 * The limits that can be dragged on the course of what a test compares with them: its values, or its signal. None
 * where no number decides. See signalCourse.
 */
export function courseLimits(test: AlarmTest): ValueLimit<AlarmTest>[] {
  const limit = limitOf(test);
  if (comparesValues(test) || limit === null) return limitsOfTest(test);
  // Limits on changes, amounts and distances are more than nothing.
  const least = limit / 1000;
  return [{ name: 'Limit on the course', value: limit, test: (to) => withLimit(test, Math.max(to, least)) }];
}

/** The limits that can be dragged on the metric's trend; none where the test does not compare values. */
export function limitsOfTest(test: AlarmTest): ValueLimit<AlarmTest>[] {
  return traitsOf(test).valueLimits?.(test) ?? [];
}

/**
 * The values that do not trip the test, as a band on the metric's trend; null where the test does not compare
 * values.
 */
export function bandOfTest(test: AlarmTest): TargetBand | null {
  return traitsOf(test).clearBand?.(test) ?? null;
}

/** Whether lower values are the worse ones. */
export function isFromBelow(test: AlarmTest): boolean {
  return traitsOf(test).isFromBelow?.(test) ?? false;
}

/** Time without a sample (ms) after which the test trips by itself; null if only samples trip it. */
export function silentAfterMs(test: AlarmTest): number | null {
  return traitsOf(test).silentAfterMs?.(test) ?? null;
}

/** The tests that need samples: they cannot trip while a metric is silent. */
export const SAMPLE_TESTS: readonly AlarmTestKind[] = ALARM_TEST_KINDS.filter(
  (kind) => !('silentAfterMs' in TESTS[kind]),
);
