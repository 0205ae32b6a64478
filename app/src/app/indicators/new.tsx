import { lazyScreen } from '../../screens/lazyScreen';

const IndicatorEditorScreen = lazyScreen(
  async () => (await import('../../screens/indicators/IndicatorEditorScreen')).IndicatorEditorScreen,
);

export default function NewIndicator() {
  return <IndicatorEditorScreen indicatorId={null} />;
}
