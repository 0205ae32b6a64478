/* One script for the screens that read files: they share the recognition of dates, numbers and columns. */
export { IntakeScreen } from '../IntakeScreen';
export { AssetListImport } from './AssetListImport';
export { LogImport } from './LogImport';
