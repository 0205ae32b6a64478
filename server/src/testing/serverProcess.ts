import { spawn, type ChildProcess } from 'node:child_process';
import path from 'node:path';

const ROOT = path.resolve(__dirname, '../../..');

/** The real server program, in a process of its own. */
export function startServerProcess(databaseUrl: string): Promise<{ url: string; child: ChildProcess }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      SESSION_SECRET: 'x'.repeat(40),
      PORT: '0',
      LOG_LEVEL: 'silent',
    },
  });
  return new Promise((resolve, reject) => {
    child.on(
      'message',
      (message: { ready?: string }) => message.ready && resolve({ url: message.ready, child }),
    );
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
}
