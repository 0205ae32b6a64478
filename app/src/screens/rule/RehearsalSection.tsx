import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  DAY_MS,
  limitOf,
  unitOfLimit,
  withLimit,
  type AlarmRule,
  type AlarmTest,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';
import { requestRehearsal, requestLimitRehearsal } from '../../api/rehearsal';
import { QueryResult } from '../../components/QueryResult';
import { Message } from '../../components/Message';
import { Section } from '../../components/Section';
import { draftOf } from './draft';
import { asRehearsed } from './asRehearsed';
import { OnceAWeek } from './OnceAWeek';
import { RehearsalView } from './RehearsalView';
import { ThresholdCurve } from './ThresholdCurve';
import type { JudgedByRule } from './useJudged';

const REHEARSAL_DAYS = 90;

interface RehearsalSectionProps {
  readonly rule: RuleInput;
  readonly metric: Metric;
  readonly judged: JudgedByRule;
  /** The rule that is in force now, to compare with. */
  readonly before: AlarmRule | null;
  readonly onTest: (test: AlarmTest) => void;
  readonly onCaution: (caution: RuleInput['caution']) => void;
}

/** The rehearsal of a rule beside the rule in force, and with other limits. */
export function RehearsalSection({ rule, metric, judged, before, onTest, onCaution }: RehearsalSectionProps) {
  const rehearsal = useRehearsal(rule);
  const now = useRehearsal(before && draftOf(before));
  const limit = limitOf(rule.test);
  // Over many metrics it may have been fewer than were asked for.
  const ran = rehearsal.data?.window;
  const days = ran ? Math.round((ran.end - ran.start) / DAY_MS) : REHEARSAL_DAYS;
  const limits = useOtherLimits(limit === null ? null : rule);
  const { unit, decimals } = unitOfLimit(rule.test, judged);
  return (
    <Section title="Rehearsal" term="rehearsal" aside={`last ${days} days`}>
      <QueryResult query={rehearsal} reading={`Running it on ${REHEARSAL_DAYS} days`}>
        {(answer) =>
          answer.samples === 0 ? (
            <Message
              kind="empty"
              title="No data to rehearse on"
              text="There are no samples in the last 90 days. The rule will evaluate new samples as they arrive."
            />
          ) : (
            <View style={rehearsal.isPlaceholderData && styles.old}>
              <RehearsalView
                answer={answer}
                now={now.data ?? null}
                rule={rule}
                metric={metric}
                judged={judged}
                onTest={onTest}
                onCaution={onCaution}
              />
              {limit !== null && limits.data && (
                <>
                  <ThresholdCurve
                    curve={limits.data.curve}
                    fires={answer.alarms.length}
                    limit={limit}
                    unit={unit}
                    decimals={decimals}
                    onChange={(next) => onTest(withLimit(rule.test, next))}
                  />
                  <OnceAWeek
                    found={limits.data.onceAWeek}
                    unit={unit}
                    decimals={decimals}
                    onTake={(next) => onTest(withLimit(rule.test, next))}
                  />
                </>
              )}
            </View>
          )
        }
      </QueryResult>
    </Section>
  );
}

function useRehearsal(rule: RuleInput | null) {
  const ask = asRehearsed(rule);
  return useQuery({
    queryKey: ['readings', 'rehearsal', ask],
    queryFn: ({ signal }) => requestRehearsal(ask!, REHEARSAL_DAYS, signal),
    enabled: ask !== null,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
}

/** Other limits do not depend on the one that is chosen, but where it lies outside of what was seen. */
function useOtherLimits(rule: RuleInput | null) {
  const ask = asRehearsed(rule);
  return useQuery({
    queryKey: ['readings', 'rehearsal limits', ask],
    queryFn: ({ signal }) => requestLimitRehearsal(ask!, REHEARSAL_DAYS, signal),
    enabled: ask !== null,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
}

const styles = StyleSheet.create({ old: { opacity: 0.6 } });
