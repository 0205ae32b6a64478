import { useLocalSearchParams } from 'expo-router';
import { RuleEditorScreen } from '../../../screens/RuleEditorScreen';
import { RoleGate } from '../../../screens/RoleGate';

export default function NewRule() {
  const { from } = useLocalSearchParams<{ from?: string }>();
  return (
    <RoleGate least="analyst" to="write alarm rules">
      <RuleEditorScreen key={from} from={from ?? null} />
    </RoleGate>
  );
}
