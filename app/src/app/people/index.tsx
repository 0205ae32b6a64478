import { ListPage } from '../../components/ListWithDetail';
import { PeopleScreen } from '../../screens/people/PeopleScreen';

export default function People() {
  return <ListPage list={<PeopleScreen />} hint="Choose a person to see their account here." />;
}
