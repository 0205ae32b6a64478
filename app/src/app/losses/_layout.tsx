import { ListWithDetail } from '../../components/ListWithDetail';
import { LossesScreen } from '../../screens/losses/LossesScreen';

export default function LossesLayout() {
  return <ListWithDetail base="/losses" detail={/^\/losses\/\d+$/} list={<LossesScreen />} />;
}
