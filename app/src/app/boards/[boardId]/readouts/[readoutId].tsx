import { useLocalSearchParams } from 'expo-router';
import { readBand } from '../../../../boards/readBand';
import { ReadoutEditorScreen } from '../../../../screens/ReadoutEditorScreen';

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
