/**
 * What a worker runs first: it loads the TypeScript module of its tasks, whose address came with the thread, and calls the
 * one that is asked for. Options of the parent process that load TypeScript do not reach its threads everywhere.
 */
import { workerData } from 'piscina';
import { tsImport } from 'tsx/esm/api';

const tasks = await tsImport(workerData.module, import.meta.url);

export default ({ name, data }) => tasks[name](data);
