import { lazy } from 'react';

/** The Markdown renderer is loaded on demand, because few boards have notes. */
export const LazyMarkdown = lazy(async () => ({
  default: (await import('../components/Markdown')).Markdown,
}));
