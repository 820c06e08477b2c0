import { stopIn } from '../frame/place.js';

/** Pages of the guide, in order. */
export const GUIDE = [
  { key: 'start', name: 'The job in short' },
  { key: 'import', name: 'Import' },
  { key: 'look', name: 'Look' },
  { key: 'code', name: 'Code' },
  { key: 'codebook', name: 'Codebook' },
  { key: 'train', name: 'Train' },
  { key: 'review', name: 'Review' },
  { key: 'report', name: 'Report' },
  { key: 'second-reading', name: 'Second readings' },
  { key: 'groups', name: 'Groups and respondents' },
  { key: 'team', name: 'Team and studies' },
  { key: 'terms', name: 'Terms of statistics' },
] as const;
export type GuidePage = (typeof GUIDE)[number]['key'];

/** Pages that are told of together with another one. */
const toldIn: Record<string, GuidePage> = {
  respondents: 'groups',
  left: 'review',
  about: 'team',
  notes: 'code',
  'write-ups': 'report',
  history: 'team',
};

/** The page of the guide that tells about an address of the study. */
export function guidePageOf(pathname: string): GuidePage {
  const stop = stopIn(pathname);
  if (stop) return stop;
  const parts = pathname.split('/');
  const known = parts.flatMap(
    (part) => GUIDE.find(({ key }) => key === part)?.key ?? toldIn[part] ?? [],
  );
  return known[0] ?? 'start';
}

/** The guide within a study, opened at the page about an address. */
export const helpPath = (study: number, pathname: string): string =>
  `/studies/${study}/help/${pathname.includes('/help/') ? pathname.split('/help/')[1]! : guidePageOf(pathname)}`;
