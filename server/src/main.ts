import { readConfig } from './config';
import { makeFirstAdministrator } from './people/firstAdministrator';
import { runServer } from './runServer';

const config = readConfig(process.env);
const server = await runServer(config);
if (config.adminEmail) {
  const password = await makeFirstAdministrator(server.app.pool, config.adminEmail, Date.now());
  if (password)
    process.stdout.write(
      `\n  First administrator: ${config.adminEmail}, password ${password} (shown only now)\n`,
    );
}
// The start script waits for this line.
process.send?.({ ready: server.url });

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    void server.stop().then(() => process.exit(0));
  });
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
