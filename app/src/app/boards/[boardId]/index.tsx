import { useLocalSearchParams } from 'expo-router';
import { BoardScreen } from '../../../screens/board/BoardScreen';

export default function Board() {
  const { boardId } = useLocalSearchParams<{ boardId: string }>();
  return <BoardScreen key={boardId} boardId={boardId} />;
}
