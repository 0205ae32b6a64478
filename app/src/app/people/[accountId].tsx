import { useLocalSearchParams } from 'expo-router';
import { AccountScreen } from '../../screens/people/AccountScreen';

export default function AccountRoute() {
  const { accountId } = useLocalSearchParams<{ accountId: string }>();
  return <AccountScreen key={accountId} accountId={accountId} />;
}
