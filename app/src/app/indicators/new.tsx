import { lazyScreen } from '../../screens/lazyScreen';
import { RoleGate } from '../../screens/RoleGate';

const IndicatorEditorScreen = lazyScreen(
  async () => (await import('../../screens/indicators/IndicatorEditorScreen')).IndicatorEditorScreen,
);

export default function NewIndicator() {
  return (
    <RoleGate least="analyst" to="define indicators">
      <IndicatorEditorScreen indicatorId={null} />
    </RoleGate>
  );
}
