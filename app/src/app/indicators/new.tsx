import { IndicatorEditorScreen } from '../../screens/indicators/IndicatorEditorScreen';

export default function NewIndicator() {
  return <IndicatorEditorScreen indicatorId={null} />;
}
