import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { messageFrom } from './children.mjs';
import { keepRunning } from './keepRunning.mjs';
import { findRunning, forgetRunning, noteRunning } from './onlyOne.mjs';

const LIMITS = { most: 2, withinMs: 60_000, waitMs: 10 };

/** A program that says it is ready and then waits, or ends at once. */
function program(script) {
  const child = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
  return { child, ready: messageFrom(child, ({ ready }) => ready) };
}
const WAITS = `process.send({ ready: process.pid }); setInterval(() => {}, 1000);`;

/** A server that stays up, kept running. @returns what is said of it, and every process that was started. */
async function keepServer() {
  const said = [];
  const started = [];
  const kept = await keepRunning(
    'The server',
    () => {
      const one = program(WAITS);
      started.push(one.child);
      return one;
    },
    { say: (line) => said.push(line), onGivenUp: () => said.push('given up'), limits: LIMITS },
  );
  return { said, started, kept };
}

async function until(condition) {
  for (let i = 0; i < 1000 && !condition(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(condition()).toBe(true);
}

describe('a program that is kept running', () => {
  it('is started again when it is killed, and that is said', async () => {
    const { said, started, kept } = await keepServer();
    expect(kept.first).toBe(started[0].pid);
    started[0].kill('SIGKILL');
    await until(() => said.length === 2);
    expect(said).toEqual(['The server ended (SIGKILL). Starting it again', 'The server works again']);
    expect(started).toHaveLength(2);
    await kept.stop();
    expect(started[1].exitCode ?? started[1].signalCode).not.toBeNull();
    expect(said).toHaveLength(2);
  });

  it('is restarted on request without counting as one that ended by itself', async () => {
    const { said, started, kept } = await keepServer();
    // More often than it may end by itself before giving up.
    for (let i = 0; i < 4; i++) await kept.restart();
    expect(said).toEqual(Array(4).fill('The server works again'));
    expect(started.map(({ signalCode }) => signalCode)).toEqual([...Array(4).fill('SIGTERM'), null]);
    await kept.stop();
  });

  it('is given up when it ends again and again', async () => {
    const said = [];
    let givenUp = 0;
    await keepRunning('The plant', () => program(`process.send({ ready: 1 }, () => process.exit(3));`), {
      say: (line) => said.push(line),
      onGivenUp: () => givenUp++,
      limits: LIMITS,
    });
    await until(() => givenUp === 1);
    expect(said.at(-1)).toBe('The plant ended 3 times in 60 s (code 3 last). Giving up.');
  });

  it('is told to be wrong when it never gets ready', async () => {
    const start = () => program('process.exit(1)');
    await expect(
      keepRunning('The server', start, { say: () => undefined, onGivenUp: () => undefined }),
    ).rejects.toThrow('The server did not start');
  });
});

describe('a second start', () => {
  it('finds the first while that is alive, not one that has gone or whose number is another program', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'beacon-'));
    const file = path.join(folder, 'running.json');
    expect(findRunning(file)).toBeNull();
    noteRunning(file, 'http://127.0.0.1:8080');
    // A process does not find itself.
    expect(findRunning(file)).toBeNull();
    const other = program(WAITS);
    await other.ready;
    const stat = readFileSync(`/proc/${other.child.pid}/stat`, 'utf8');
    const began = stat.split(') ').at(-1).split(' ')[19];
    const note = { pid: other.child.pid, began, address: 'http://127.0.0.1:8080' };
    writeFileSync(file, JSON.stringify(note));
    expect(findRunning(file)).toMatchObject({ pid: other.child.pid, address: 'http://127.0.0.1:8080' });
    writeFileSync(file, JSON.stringify({ ...note, began: '1' }));
    expect(findRunning(file)).toBeNull();
    writeFileSync(file, 'half a no');
    expect(findRunning(file)).toBeNull();
    other.child.kill('SIGKILL');
    forgetRunning(file);
    rmSync(folder, { recursive: true });
  });
});
