import { migrate, openPool } from '@vivid-beacon/server';
import { loadDemo } from './load';
import { SimulatedPlant, TICK_MS } from './plant';

/* Run by the start script: "load" fills the database, "plant" keeps sending until it is stopped. */
const [mode] = process.argv.slice(2);
const need = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`The environment variable ${name} is missing.`);
  return value;
};

if (mode === 'load') {
  const pool = openPool(need('DATABASE_URL'), (error) => console.error(error.message));
  await migrate(pool);
  const result = await loadDemo(pool, {
    now: Date.now(),
    plantToken: need('DEMO_TOKEN'),
    say: (line) => process.send?.({ progress: line }),
  });
  process.send?.({ done: result });
  await pool.end();
  process.disconnect?.();
} else if (mode === 'plant') {
  const plant = new SimulatedPlant({
    url: need('SERVER_URL'),
    token: need('DEMO_TOKEN'),
    anchor: Number(need('DEMO_ANCHOR')),
    from: Number(need('DEMO_FROM')),
    now: Date.now,
  });
  let quiet = false;
  const timer = setInterval(() => {
    plant.tick().then(
      () => (quiet = false),
      (error: Error) => {
        if (!quiet) console.error(`Simulated plant: ${error.message} It tries again.`);
        quiet = true;
      },
    );
  }, TICK_MS);
  const stop = (): void => {
    clearInterval(timer);
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('disconnect', stop);
} else {
  console.error('Say "load" or "plant".');
  process.exit(2);
}
