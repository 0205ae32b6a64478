import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = path.resolve(fileURLToPath(new URL('../..', import.meta.url)));
/** Everything that running the project writes; ignored by git. */
export const DATA = path.join(ROOT, '.data');
