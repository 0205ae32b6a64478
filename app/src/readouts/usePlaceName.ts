import { boardOfLink } from '@vivid-beacon/core/src/boards';
import { useBoard } from '../api/boards';

/** The name of the place that a link leads to: the title of a board, or the address. */
export function usePlaceName(link: string | null): string {
  const board = useBoard(boardOfLink(link) ?? 'new').data;
  return board?.title ?? link ?? '';
}
