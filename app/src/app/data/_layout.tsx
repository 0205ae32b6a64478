import { ListWithDetail } from '../../components/ListWithDetail';
import { FeedsScreen } from '../../screens/data/FeedsScreen';

export default function DataLayout() {
  return <ListWithDetail base="/data/feeds" detail={/^\/data\/metrics\/\d+$/} list={<FeedsScreen />} />;
}
