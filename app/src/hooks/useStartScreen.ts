import { useEffect, useRef } from 'react';
import { usePathname, useRouter, type Href } from 'expo-router';
import { useSession } from '../api/session';

/**
 * Leads somebody who opens the app, or signs in, at its first address to where they want to begin: once, so that On watch stays
 * within reach. Used where the pages are, which come and go with the session.
 */
export function useStartScreen(): void {
  const router = useRouter();
  const path = usePathname();
  const session = useSession().data;
  const led = useRef(false);
  useEffect(() => {
    if (!session || led.current) return;
    led.current = true;
    if (path === '/' && session.startAt !== '/') router.replace(session.startAt as Href);
  }, [session, path, router]);
}
