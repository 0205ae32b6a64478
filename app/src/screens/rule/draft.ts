import {
  firstTest,
  DEFAULT_RULE,
  ruleEnding,
  testsOfMetric,
  type AlarmRule,
  type AlarmTestKind,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';

/** A rule in force as the draft of the one that takes its place. */
export function draftOf({ id, inForce, inForceFrom, watched, ...rule }: AlarmRule): RuleInput {
  void [inForce, inForceFrom, watched];
  return { ...rule, replaces: id };
}

/** The first draft of a rule on a metric; what was chosen before stays where it fits. */
export function firstDraft(metric: Metric, usual: number, before: RuleInput | null): RuleInput {
  const kinds = testsOfMetric(metric.kind);
  const kind = before && kinds.includes(before.test.kind) ? before.test.kind : kinds[0];
  return {
    ...DEFAULT_RULE,
    replaces: null,
    ...before,
    under: null,
    attributes: [],
    suppress: null,
    metricId: metric.id,
    test: firstTest(kind, metric, usual),
    name: usualName(metric, kind),
  };
}

/** "Ironer 2 bed temperature high". */
export function usualName(metric: Metric, kind: AlarmTestKind): string {
  return `${metric.assetName} ${metric.name.toLowerCase()} ${ruleEnding(kind)}`;
}
