import { useBoard } from '../api/queries';

/** The board that a link leads to, by its id; null = it leads elsewhere. */
export const boardOfLink = (link: string | null): string | null =>
  /^\/boards\/(\d+)$/.exec(link?.trim() ?? '')?.[1] ?? null;

/** The name of the place that a link leads to: the title of a board, or the address. */
export function usePlaceName(link: string | null): string {
  const board = useBoard(boardOfLink(link) ?? 'new').data;
  return board?.title ?? link ?? '';
}
