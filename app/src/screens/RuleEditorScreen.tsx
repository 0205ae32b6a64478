import { useRouter } from 'expo-router';
import { useMetricsById } from '../api/catalogue';
import { usePeople, useRule } from '../api/queries';
import { QueryResult } from '../components/QueryResult';
import { RuleEditor } from './rule/RuleEditor';

/**
 * Editor of an alarm rule as a sentence, with its rehearsal beside it.
 * @param from the rule it begins with. @param metricId the metric a new rule begins with.
 */
export function RuleEditorScreen({
  from,
  metricId = null,
}: {
  readonly from: string | null;
  readonly metricId?: string | null;
}) {
  const rule = useRule(from);
  const people = usePeople().data ?? [];
  const router = useRouter();
  const onLeave = (): void => router.navigate('/alarms');
  const { byId } = useMetricsById([metricId]);
  const begin = byId.get(metricId ?? '') ?? null;
  if (from === null)
    return <RuleEditor key={begin?.id} people={people} before={null} begin={begin} onLeave={onLeave} />;
  return (
    <QueryResult query={rule} reading="Loading the rule">
      {({ rule: before }) => (
        <RuleEditor people={people} before={before.inForce ? before : null} onLeave={onLeave} />
      )}
    </QueryResult>
  );
}
