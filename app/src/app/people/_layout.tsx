import { ListWithDetail } from '../../components/ListWithDetail';
import { PeopleScreen } from '../../screens/people/PeopleScreen';
import { RoleGate } from '../../screens/RoleGate';

export default function PeopleLayout() {
  return (
    <RoleGate least="administrator" everywhere to="manage people">
      <ListWithDetail base="/people" detail={/^\/people\/(\d+|new)$/} list={<PeopleScreen />} />
    </RoleGate>
  );
}
