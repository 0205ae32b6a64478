import type { Site } from './siteWorld';

/**
 * What an endpoint has to do with plants:
 * `plant`: it reads or changes something at one; `list`: it lists what is at those the caller sees; `all`: it changes what belongs
 * to no plant, and takes the role at every plant; `none`: nothing, or only with the caller's own account; `board`: it belongs to no
 * plant, and shows of each only what the caller sees.
 */
export type Concern = 'plant' | 'list' | 'all' | 'none' | 'board';

export interface SiteRequest {
  readonly concern: Concern;
  /** The address with its ids; default: the path of the endpoint. */
  readonly path?: (site: Site) => string;
  readonly body?: (site: Site, now: number) => unknown;
}
