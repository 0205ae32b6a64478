import { spawn } from 'node:child_process';
import { ROOT } from './paths.mjs';

/** Starts a TypeScript program of the project in its own process group, with a message channel. */
export function startProgram(file, args, env) {
  return spawn(process.execPath, ['--import', 'tsx', file, ...args], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
}

/** Waits for a message that `pick` accepts; fails if the program ends before. */
export function messageFrom(child, pick) {
  return new Promise((resolve, reject) => {
    child.on('message', (message) => {
      const picked = pick(message);
      if (picked !== undefined) resolve(picked);
    });
    child.once('exit', (code) => reject(new Error(`A program of the project ended early (code ${code}).`)));
  });
}

/** Asks a program to stop and waits until it has. */
export function stopProgram(child) {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('exit', resolve);
    child.kill('SIGTERM');
  });
}
