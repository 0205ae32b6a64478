import type { BoardDocument, Readout } from '@vivid-beacon/core';

/* Changes to a board, as pure functions from document to document. */

/** Puts a readout in the place of the one with its id, or at the end. */
export function placeReadout(document: BoardDocument, readout: Readout): BoardDocument {
  const there = document.readouts.some(({ id }) => id === readout.id);
  return {
    ...document,
    readouts: there
      ? document.readouts.map((each) => (each.id === readout.id ? readout : each))
      : [...document.readouts, readout],
  };
}

export function removeReadout(document: BoardDocument, id: string): BoardDocument {
  return { ...document, readouts: document.readouts.filter((each) => each.id !== id) };
}

/** Moves a readout by one place towards the start (−1) or the end (1); at an end nothing changes. */
export function moveReadout(document: BoardDocument, id: string, step: -1 | 1): BoardDocument {
  const from = document.readouts.findIndex((each) => each.id === id);
  const to = from + step;
  if (from < 0 || to < 0 || to >= document.readouts.length) return document;
  const readouts = [...document.readouts];
  [readouts[from], readouts[to]] = [readouts[to], readouts[from]];
  return { ...document, readouts };
}

/** Puts a readout in the place of another, as dragging does; those between make room. */
export function moveOnto(document: BoardDocument, id: string, onto: string): BoardDocument {
  const from = document.readouts.findIndex((each) => each.id === id);
  const to = document.readouts.findIndex((each) => each.id === onto);
  if (from < 0 || to < 0 || from === to) return document;
  const readouts = [...document.readouts];
  const [moved] = readouts.splice(from, 1);
  readouts.splice(to, 0, moved);
  return { ...document, readouts };
}

/** Puts a copy of a readout behind another, or at the end; it gets an id of its own. */
export function pasteReadout(document: BoardDocument, readout: Readout, after: string | null): BoardDocument {
  const copy = { ...readout, id: freshId(document) };
  const at = document.readouts.findIndex(({ id }) => id === after);
  const readouts = [...document.readouts];
  readouts.splice(at < 0 ? readouts.length : at + 1, 0, copy);
  return { ...document, readouts };
}

/** An id that no readout of the board has. */
export function freshId(document: BoardDocument): string {
  const taken = new Set(document.readouts.map(({ id }) => id));
  let n = document.readouts.length + 1;
  while (taken.has(`r${n}`)) n++;
  return `r${n}`;
}
