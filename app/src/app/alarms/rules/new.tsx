import { useLocalSearchParams } from 'expo-router';
import { RuleEditorScreen } from '../../../screens/RuleEditorScreen';
import { RoleGate } from '../../../screens/RoleGate';

export default function NewRule() {
  const { from, metric } = useLocalSearchParams<{ from?: string; metric?: string }>();
  return (
    <RoleGate least="analyst" to="write alarm rules">
      <RuleEditorScreen key={`${from} ${metric}`} from={from ?? null} metricId={metric ?? null} />
    </RoleGate>
  );
}
