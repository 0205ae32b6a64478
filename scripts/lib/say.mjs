/** Progress and messages of the start and test commands. */
const began = Date.now();

/** Says what is being done, with the seconds since the command began. */
export function say(line) {
  const seconds = ((Date.now() - began) / 1000).toFixed(0).padStart(3);
  process.stdout.write(`${seconds} s  ${line}\n`);
}

/** Ends the command with what is wrong and what to do about it. */
export class CannotGoOn extends Error {}

/** Runs a command's main function; a CannotGoOn is printed without a stack. */
export async function runMain(main) {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`\n${error instanceof CannotGoOn ? error.message : error.stack}\n`);
    process.exitCode = 1;
  }
}
