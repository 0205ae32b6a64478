import { ListPage } from '../../components/ListWithDetail';
import { IndicatorsScreen } from '../../screens/indicators/IndicatorsScreen';

export default function Indicators() {
  return <ListPage list={<IndicatorsScreen />} hint="Choose an indicator to see it here." />;
}
