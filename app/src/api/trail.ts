import { useQuery } from '@tanstack/react-query';
import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';

/** What entries of the trail are looked for by; undefined = all. */
export interface TrailSearch {
  readonly search: string;
  readonly subject?: string;
  readonly subjectId?: string;
}

/** Entries of the trail, the newest first, in pages. */
export const useTrailPages = ({ search, subject, subjectId }: TrailSearch) =>
  usePages(['trail', 'pages', search, subject, subjectId], (part) =>
    call('GET /api/trail', { query: { search, subject, subjectId, ...part } }),
  );

export const useTrailSubjects = () =>
  useQuery({ queryKey: ['trail', 'subjects'], queryFn: () => call('GET /api/trail/subjects') });

export const useTrailSetting = () =>
  useQuery({ queryKey: ['trail', 'setting'], queryFn: () => call('GET /api/trail/setting') });

export const useKeepTrail = () =>
  useChange((days: number) => call('PUT /api/trail/setting', { body: { days } }), ['trail']);

/** Computes all hashes anew; changes nothing. */
export const useCheckTrail = () => useChange(() => call('POST /api/trail/check'), []);

/** Where the trail is downloaded from. */
export function trailExport({ search, subject, subjectId }: TrailSearch): string {
  const query = new URLSearchParams(
    Object.entries({ search, subject, subjectId }).filter((each): each is [string, string] =>
      Boolean(each[1]),
    ),
  );
  return `/api/trail/export?${query}`;
}
