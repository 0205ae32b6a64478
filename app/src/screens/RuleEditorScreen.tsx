import { useRouter } from 'expo-router';
import { useAlarmRules, useAssets, useMetrics, usePeople } from '../api/queries';
import { Answer } from '../components/Answer';
import { RuleEditor } from './rule/RuleEditor';

/** Writes an alarm rule as a sentence, and rehearses it on the past while it is written. */
export function RuleEditorScreen({ from }: { readonly from: string | null }) {
  const metrics = useMetrics();
  const rules = useAlarmRules();
  const assets = useAssets();
  const people = usePeople();
  const router = useRouter();
  return (
    <Answer query={metrics} reading="Reading metrics">
      {(rows) => (
        <Answer query={rules} reading="Reading rules">
          {(inForce) => (
            <RuleEditor
              names={{
                metrics: rows.filter(({ origin }) => origin === 'samples'),
                assets: assets.data ?? [],
                people: people.data ?? [],
              }}
              before={inForce.find(({ id }) => id === from) ?? null}
              onLeave={() => router.navigate('/alarms')}
            />
          )}
        </Answer>
      )}
    </Answer>
  );
}
