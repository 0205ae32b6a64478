import { useLocalSearchParams } from 'expo-router';
import { ReadoutEditorScreen } from '../../../../screens/ReadoutEditorScreen';

export default function ReadoutEditor() {
  const { boardId, readoutId } = useLocalSearchParams<{ boardId: string; readoutId: string }>();
  return <ReadoutEditorScreen key={readoutId} boardId={boardId} readoutId={readoutId} />;
}
