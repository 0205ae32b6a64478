import { ListWithDetail } from '../../components/ListWithDetail';
import { IndicatorsScreen } from '../../screens/indicators/IndicatorsScreen';

export default function IndicatorsLayout() {
  return <ListWithDetail base="/indicators" detail={/^\/indicators\/\d+$/} list={<IndicatorsScreen />} />;
}
