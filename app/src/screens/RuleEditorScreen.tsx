import { useRouter } from 'expo-router';
import { useAlarmRules, usePeople } from '../api/queries';
import { Answer } from '../components/Answer';
import { RuleEditor } from './rule/RuleEditor';

/** Writes an alarm rule as a sentence, and rehearses it on the past while it is written. */
export function RuleEditorScreen({ from }: { readonly from: string | null }) {
  const rules = useAlarmRules();
  const people = usePeople();
  const router = useRouter();
  return (
    <Answer query={rules} reading="Reading rules">
      {(inForce) => (
        <RuleEditor
          people={people.data ?? []}
          before={inForce.find(({ id }) => id === from) ?? null}
          onLeave={() => router.navigate('/alarms')}
        />
      )}
    </Answer>
  );
}
