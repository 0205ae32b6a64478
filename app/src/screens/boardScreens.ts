/* One script for the board, the editor of its readouts, a new board and trends anywhere: they share nearly everything. */
export { BoardScreen } from './board/BoardScreen';
export { ReadoutEditorScreen } from './ReadoutEditorScreen';
export { NewBoard } from './board/NewBoard';
export { SingleTrend } from '../charts/SingleTrend';
