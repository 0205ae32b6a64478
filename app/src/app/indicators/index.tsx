import { IndicatorsScreen } from '../../screens/indicators/IndicatorsScreen';

export default IndicatorsScreen;
