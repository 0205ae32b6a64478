import { readdirSync } from 'node:fs';
import path from 'node:path';

/** Every source file of a folder, without tests. */
export function sources(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return entry.name === 'node_modules' ? [] : sources(at);
    return /\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name) ? [at] : [];
  });
}
