import { BoardsScreen } from '../../screens/board/BoardsScreen';

export default function Boards() {
  return <BoardsScreen />;
}
