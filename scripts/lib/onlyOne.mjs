import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

/**
 * Whether the process that wrote the note is alive and still the same one: its id may belong to another by
 * now.
 */
function isAlive({ pid, began }) {
  return began !== null && beganOf(pid) === began;
}

/** When a process started, in ticks since the machine booted; null where that is unknown. */
function beganOf(pid) {
  try {
    // Field 22, counted after the name in parentheses (proc(5)).
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1).split(' ')[19];
  } catch {
    return null;
  }
}

/** Where an earlier start of this copy runs: { pid, address }, address null while it is still starting; null if none does. */
export function findRunning(file) {
  if (!existsSync(file)) return null;
  try {
    const note = JSON.parse(readFileSync(file, 'utf8'));
    return note.pid !== process.pid && isAlive(note) ? note : null;
  } catch {
    return null;
  }
}

/** Leaves a note of this process for the next start; with its address once it has one. */
export function noteRunning(file, address) {
  writeFileSync(file, JSON.stringify({ pid: process.pid, began: beganOf(process.pid), address }));
}

export function forgetRunning(file) {
  rmSync(file, { force: true });
}
