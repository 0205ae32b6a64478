import { ListPage } from '../../components/ListWithDetail';
import { FlagsScreen } from '../../screens/flags/FlagsScreen';

export default function Flags() {
  return <ListPage list={<FlagsScreen />} hint="Choose a flag to see it here." />;
}
