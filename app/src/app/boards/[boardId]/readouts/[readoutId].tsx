import { useLocalSearchParams } from 'expo-router';
import { readBand } from '../../../../boards/readBand';
import { lazyScreen } from '../../../../screens/lazyScreen';

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
    <ReadoutEditorScreen key={readoutId} boardId={boardId} readoutId={readoutId} band={readBand(band)} />
  );
}
