import { useRouter, type Href } from 'expo-router';
import type { Readout } from '@vivid-beacon/core';
import { safeLink } from '../components/safeLink';

/** Goes to the place a readout's numbers also lead to: a page of ours, or an address. null = nowhere else. */
export function useOpenPlace({ link }: Readout): (() => void) | null {
  const router = useRouter();
  const place = link && safeLink(link);
  if (!place) return null;
  return () => {
    if (place.startsWith('/')) router.push(place as Href);
    else window.open(place, '_blank', 'noopener,noreferrer');
  };
}
