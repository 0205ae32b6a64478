import { lazy, Suspense, type ComponentType } from 'react';
import { Loading } from '../components/Loading';

/**
 * A screen or a part of one in a script of its own, for what several routes share: it would otherwise be loaded with
 * the first page.
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
