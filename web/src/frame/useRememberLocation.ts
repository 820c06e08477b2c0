import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { useChangeMembership } from '../data/membership.js';

/** As long as one is on the way somewhere else. */
const PASSING_MS = 800;

/** Remembers where a person is in a study, so that it opens there the next time. */
export function useRememberLocation(study: number): void {
  const { pathname, search } = useLocation();
  const { mutate } = useChangeMembership(study);
  const path = pathname.replace(/^\/studies\/\d+\/?/u, '');
  // a sheet that is being imported is gone when it is in
  const place = path.startsWith('import') ? 'import' : path + search;
  const isPage = path !== '' && !path.startsWith('help');
  useEffect(() => {
    if (!isPage) return;
    const timer = setTimeout(() => mutate({ place }), PASSING_MS);
    return () => clearTimeout(timer);
  }, [place, isPage, mutate]);
}
