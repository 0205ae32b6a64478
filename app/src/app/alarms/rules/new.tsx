import { useLocalSearchParams } from 'expo-router';
import { RuleEditorScreen } from '../../../screens/RuleEditorScreen';

export default function NewRule() {
  const { from } = useLocalSearchParams<{ from?: string }>();
  return <RuleEditorScreen key={from} from={from ?? null} />;
}
