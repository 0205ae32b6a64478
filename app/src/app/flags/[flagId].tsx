import { useLocalSearchParams } from 'expo-router';
import { FlagScreen } from '../../screens/flags/FlagScreen';

export default function Flag() {
  const { flagId } = useLocalSearchParams<{ flagId: string }>();
  return <FlagScreen key={flagId} flagId={flagId} />;
}
