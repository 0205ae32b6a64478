import { ListWithDetail } from '../../components/ListWithDetail';
import { FlagsScreen } from '../../screens/flags/FlagsScreen';

export default function FlagsLayout() {
  return <ListWithDetail base="/flags" detail={/^\/flags\/\d+$/} list={<FlagsScreen />} />;
}
