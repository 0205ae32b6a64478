import { NotFoundScreen } from '../screens/NotFoundScreen';

export default function NotFound() {
  return <NotFoundScreen />;
}
