import { useRouter } from 'expo-router';
import { usePeople, useRule } from '../api/queries';
import { QueryResult } from '../components/QueryResult';
import { RuleEditor } from './rule/RuleEditor';

/**
 * Editor of an alarm rule as a sentence, with its rehearsal beside it. @param from the rule it begins with.
 */
export function RuleEditorScreen({ from }: { readonly from: string | null }) {
  const rule = useRule(from);
  const people = usePeople().data ?? [];
  const router = useRouter();
  const onLeave = (): void => router.navigate('/alarms');
  if (from === null) return <RuleEditor people={people} before={null} onLeave={onLeave} />;
  return (
    <QueryResult query={rule} reading="Loading the rule">
      {({ rule: before }) => (
        <RuleEditor people={people} before={before.inForce ? before : null} onLeave={onLeave} />
      )}
    </QueryResult>
  );
}
