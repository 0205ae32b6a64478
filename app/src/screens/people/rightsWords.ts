import type { Rights } from '@vivid-beacon/core';

/** Plants that are named before the rest is counted. */
const NAMED = 3;

/**
 * What somebody may do where: "analyst at every plant", "operator at Quayside, viewer at 2 more plants".
 * @param nameOf the name of a plant; undefined = not known (yet).
 */
export function rightsWords(
  { everywhere, plants }: Rights,
  nameOf: (plantId: string) => string | undefined,
): string {
  const own = Object.entries(plants);
  const words = own.slice(0, NAMED).map(([id, role]) => `${role} at ${nameOf(id) ?? `plant ${id}`}`);
  if (own.length > NAMED) words.push(`roles at ${own.length - NAMED} more plants`);
  if (everywhere !== null) {
    words.push(own.length > 0 ? `${everywhere} at every other plant` : `${everywhere} at every plant`);
  }
  return words.length === 0 ? 'no rights' : words.join(', ');
}
