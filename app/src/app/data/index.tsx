import { AssetsScreen } from '../../screens/data/AssetsScreen';

export default function AssetsRoute() {
  return <AssetsScreen />;
}
