/* One script for the tree of assets and the page of one: they share nearly everything. */
export { AssetScreen } from './AssetScreen';
export { AssetsScreen } from './AssetsScreen';
