import { lazy } from 'react';

/** Few boards have notes: what reads Markdown is loaded when one is shown. */
export const LazyMarkdown = lazy(async () => ({
  default: (await import('../components/Markdown')).Markdown,
}));
