import { useLocalSearchParams } from 'expo-router';
import { lazyScreen } from '../../../screens/lazyScreen';

const BoardScreen = lazyScreen(async () => (await import('../../../screens/boardScreens')).BoardScreen);

export default function BoardRoute() {
  const { boardId } = useLocalSearchParams<{ boardId: string }>();
  return <BoardScreen key={boardId} boardId={boardId} />;
}
