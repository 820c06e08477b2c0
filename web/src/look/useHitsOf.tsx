import type { WordMatch } from '@yellow-thread/contract';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { useDrawer } from '../frame/drawer.js';
import { HitsDrawer } from '../studyParts/hitsDrawer.js';

/** Words whose answers are to be read. */
export interface WantedWords {
  title: string;
  words: string;
  match: WordMatch;
  /** What else chooses the answers, as the ledger's address has it. */
  among?: Record<string, string>;
  /** Of whom alone, where the ledger's address cannot say it. */
  of?: string;
}

/** Opens the answers that hold some words in the drawer, to be read or coded there, or in Code. */
export function useHitsOf(): (wanted: WantedWords) => void {
  const { study, question } = useStudyLocation();
  const openDrawer = useDrawer();
  return ({ title, words, match, among = {}, of }) => {
    const query = new URLSearchParams({ ...among, words, match });
    const toCode = `${stopPath(study.id, 'code', question.id)}?${query}`;
    if (of !== undefined) query.set('of', of);
    openDrawer({
      title,
      body: (
        <HitsDrawer
          key={query.toString()}
          study={study}
          question={question.id}
          query={query.toString()}
          {...(of === undefined && { toCode })}
        />
      ),
    });
  };
}
