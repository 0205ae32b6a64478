import { ListPage } from '../../components/ListWithDetail';
import { FeedsScreen } from '../../screens/data/FeedsScreen';

export default function FeedsRoute() {
  return <ListPage list={<FeedsScreen />} hint="Choose a metric to see it here." />;
}
