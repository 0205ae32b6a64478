import { lazy, Suspense, type ComponentType } from 'react';
import { Loading } from '../components/Loading';

/**
 * A screen in a script of its own, for screens that several addresses share: what more than one route loads would
 * otherwise come with the very first page.
 */
export function lazyScreen<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Screen = lazy(async () => ({ default: await load() }));
  return function LazyScreen(props: P) {
    return (
      <Suspense fallback={<Loading what="Loading" />}>
        <Screen {...props} />
      </Suspense>
    );
  };
}
