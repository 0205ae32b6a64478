import { ListPage } from '../../components/ListWithDetail';
import { LossesScreen } from '../../screens/losses/LossesScreen';

export default function Losses() {
  return <ListPage list={<LossesScreen />} hint="Choose an indicator to see it here." />;
}
