import { BoardsScreen } from '../../screens/BoardsScreen';

export default function Boards() {
  return <BoardsScreen />;
}
