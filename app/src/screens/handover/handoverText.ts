import { formatWindow, type Handover } from '@vivid-beacon/core';
import { handoverParts } from './handoverLines';

/** A handover as plain text, to be sent on. */
export function handoverText(handover: Handover): string {
  const { plantName, shift, zone, notes } = handover;
  const head = `Shift handover, ${plantName}, ${shift.name}, ${formatWindow(shift.start, shift.end, zone)}`;
  const words = notes.map(({ text, author }) => `- ${text} (${author})`);
  const parts = handoverParts(handover).map(({ title, aside, lines, none }) => {
    const rows = lines.map(({ title: what, second }) => `- ${what}: ${second}`);
    return [`${title} (${aside})`, ...(rows.length > 0 ? rows : [none])].join('\n');
  });
  return [head, ...(words.length > 0 ? [['For the next shift', ...words].join('\n')] : []), ...parts].join(
    '\n\n',
  );
}
