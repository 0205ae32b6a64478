import { useLocalSearchParams } from 'expo-router';
import { readBand } from '../../../../boards/readBand';
import { lazyScreen } from '../../../../screens/lazyScreen';
import { RoleGate } from '../../../../screens/RoleGate';

const ReadoutEditorScreen = lazyScreen(
  async () => (await import('../../../../screens/boardScreens')).ReadoutEditorScreen,
);

export default function ReadoutEditor() {
  const { boardId, readoutId, band } = useLocalSearchParams<{
    boardId: string;
    readoutId: string;
    band?: string;
  }>();
  return (
    <RoleGate least="analyst" to="change a board">
      <ReadoutEditorScreen key={readoutId} boardId={boardId} readoutId={readoutId} band={readBand(band)} />
    </RoleGate>
  );
}
