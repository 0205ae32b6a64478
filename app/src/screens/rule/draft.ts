import {
  firstTest,
  limitOf,
  withLimit,
  DEFAULT_RULE,
  ruleEnding,
  testsOfRule,
  type AlarmRule,
  type AlarmTest,
  type AlarmTestKind,
  type IndicatorReading,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';
import { firstPeriods } from './useJudged';

/** A rule in force as the draft of the one that takes its place. */
export function draftOf({
  id,
  inForce,
  inForceFrom,
  watched,
  unit,
  decimals,
  ...rule
}: AlarmRule): RuleInput {
  void [inForce, inForceFrom, watched, unit, decimals];
  return { ...rule, replaces: id };
}

/** What stays of a draft when something else is judged: priority, people and words, not where and how it looks. */
const kept = (before: RuleInput | null) => ({
  ...DEFAULT_RULE,
  replaces: null,
  ...before,
  under: null,
  attributes: [],
  suppress: null,
  caution: null,
  onDelayMs: 0,
  offDelayMs: 0,
});

/** The first draft of a rule on a metric; what was chosen before stays where it fits. */
export function firstDraft(metric: Metric, usual: number, before: RuleInput | null): RuleInput {
  // Only samples can be judged one by one.
  const over = metric.origin === 'samples' ? null : firstPeriods(metric);
  const kinds = testsOfRule(metric.kind, over);
  const kind = before && kinds.includes(before.test.kind) ? before.test.kind : kinds[0];
  return {
    ...kept(before),
    over,
    metricId: metric.id,
    test: firstTest(kind, metric, usual),
    name: usualName(metric, kind),
  };
}

/** "Ironer 2 bed temperature high". */
export function usualName(metric: Metric, kind: AlarmTestKind): string {
  return `${metric.assetName} ${metric.name.toLowerCase()} ${ruleEnding(kind)}`;
}

/** A rule on an indicator: in Breach by its own target band, over full hours. */
export function draftOnIndicator(
  { id, name, assetName, definition }: Pick<IndicatorReading, 'id' | 'name' | 'assetName' | 'definition'>,
  before: RuleInput | null,
): RuleInput {
  const { metricId, summary } = definition.measure;
  return {
    ...kept(before),
    hours: null,
    over: { period: 'hour', summary, indicatorId: id },
    metricId,
    test: { kind: 'level', from: 'breach' },
    name: `${assetName} ${name.toLowerCase()} ${ruleEnding('level')}`,
  };
}

/** The rule judging other periods: a test that does not apply to them gives way to a limit, delays begin anew. */
export function overOther(
  rule: RuleInput,
  metric: Metric,
  over: RuleInput['over'],
  usual: number,
): Partial<RuleInput> {
  const kinds = testsOfRule(metric.kind, over);
  const fits = kinds.includes(rule.test.kind) && (rule.over === null) === (over === null);
  const kind = kinds.includes(rule.test.kind) ? rule.test.kind : kinds[0];
  return {
    over,
    onDelayMs: 0,
    offDelayMs: 0,
    ...(fits && rule.over?.summary === over?.summary
      ? {}
      : { caution: null, test: firstTest(kind, metric, usual) }),
  };
}

/** The rule with another test. A Caution keeps its own limit, and follows whatever else is changed. */
export function withTest(rule: RuleInput, test: AlarmTest): Partial<RuleInput> {
  const { caution } = rule;
  if (!caution || limitOf(test) === null) return { test };
  return { test, caution: { ...caution, test: withLimit(test, limitOf(caution.test)!) } };
}
