import { useRouter, type Href } from 'expo-router';
import type { Readout } from '@vivid-beacon/core';
import { safeLink } from '../components/safeLink';

/** Opens the link of a readout: a page of the app or an address. null = none. */
export function useOpenPlace({ link }: Pick<Readout, 'link'>): (() => void) | null {
  const router = useRouter();
  const place = link && safeLink(link);
  if (!place) return null;
  return () => {
    if (place.startsWith('/')) router.push(place as Href);
    else window.open(place, '_blank', 'noopener,noreferrer');
  };
}
