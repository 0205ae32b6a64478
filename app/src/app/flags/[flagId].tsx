import { useLocalSearchParams } from 'expo-router';
import { FlagScreen } from '../../screens/flags/FlagScreen';

export default function FlagRoute() {
  const { flagId } = useLocalSearchParams<{ flagId: string }>();
  return <FlagScreen key={flagId} flagId={flagId} />;
}
