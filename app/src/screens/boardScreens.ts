/* One script for the board and the editor of its readouts: they share nearly everything. */
export { BoardScreen } from './board/BoardScreen';
export { ReadoutEditorScreen } from './ReadoutEditorScreen';
