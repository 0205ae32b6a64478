import { spawn, type ChildProcess } from 'node:child_process';

export interface ServerProcess {
  readonly url: string;
  readonly child: ChildProcess;
}

/**
 * The real server program, in a process of its own. Run from the root of the project.
 *
 * @param options `program`: another program that reports readiness in the same way; `execArgv` for Node;
 * `env` besides what every server needs.
 */
export function startServerProcess(
  databaseUrl: string,
  {
    program = 'server/src/main.ts',
    execArgv = [],
    env = {},
  }: {
    readonly program?: string;
    readonly execArgv?: readonly string[];
    readonly env?: Readonly<Record<string, string>>;
  } = {},
): Promise<ServerProcess> {
  const child = spawn(process.execPath, [...execArgv, '--import', 'tsx', program], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      SESSION_SECRET: 'x'.repeat(40),
      PORT: '0',
      LOG_LEVEL: 'silent',
      ...env,
    },
  });
  return new Promise((resolve, reject) => {
    const ended = (code: number | null): void => reject(new Error(`the server ended with ${code}`));
    child.once('exit', ended);
    child.on('message', (message: { ready?: string }) => {
      if (message.ready === undefined) return;
      child.removeListener('exit', ended);
      resolve({ url: message.ready, child });
    });
  });
}
