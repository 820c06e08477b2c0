import type { StudyEvent } from '@yellow-thread/contract';
import { useEffect, useSyncExternalStore } from 'react';
import { TAB } from './client.js';
import { FROM_DECISIONS, FROM_MENTIONS, refresh, type Resource } from './queryClient.js';
import { followStream } from './sharedStream.js';

let connected = true;
const watchers = new Set<() => void>();

function setConnected(now: boolean) {
  if (connected === now) return;
  connected = now;
  for (const watch of watchers) watch();
}

/** Whether the server answers. */
export const useConnected = () =>
  useSyncExternalStore(
    (watch) => {
      watchers.add(watch);
      return () => watchers.delete(watch);
    },
    () => connected,
  );

/** What follows from a change of each kind of record. */
const follows: Record<string, readonly Resource[]> = {
  saved_group: ['groups', 'group-size', 'report', 'behind', 'variable', 'respondent-rows'],
  mention: ['answers', ...FROM_MENTIONS],
  settlement: [
    'assignments',
    'membership',
    'answers',
    'nearest',
    'study',
    'saturation',
    'report',
    'behind',
    'together',
    'groups',
    'left',
  ],
  code_closing: ['study', 'report', 'behind', 'review', 'left', 'groups', 'write-up'],
  model_decision: ['study', 'report', 'left', 'write-up'],
  note: ['answers', 'notes', 'others', 'suggestions'],
  line_cut: ['answers'],
  suggestion: ['answers', ...FROM_DECISIONS],
  excluded_word: ['training'],
  spot_check: ['checks', 'report'],
  spot_check_answer: ['checks', 'check', 'report'],
  second_reading: ['readings', 'write-up', 'membership'],
  second_reading_answer: ['readings', 'reading', 'agreement', 'write-up', 'membership'],
  code_map: ['code-maps', 'code-map'],
  map_node: ['code-maps', 'code-map'],
  map_relation: ['code-map'],
  map_pin: ['code-map'],
  code: ['codebook', 'nearest', 'report', 'reviews', 'agreement', 'code-map'],
  theme: ['codebook', 'report', 'code-map'],
  bundle: ['codebook'],
  bundle_code: ['codebook'],
  respondent: ['respondent-rows', 'variable', 'answers', 'report', 'groups'],
  category: ['variable', 'study', 'report', 'groups'],
  variable: ['variable', 'study', 'report', 'groups'],
  question: ['study', 'report'],
  study: ['study', 'look'],
  membership: ['members', 'membership', 'study'],
  assignment: ['assignments', 'membership', 'ledger'],
  answer_cluster: ['look'],
  tone_check: ['tone', 'tone-report'],
  glossary_term: ['glossary', 'answer-help'],
  training_run: [
    'tone',
    'tone-report',
    'training',
    'telling',
    'nearest',
    'study',
    'answers',
    'report',
    ...FROM_DECISIONS,
  ],
};

function follow(study: number, { tab, tables, responses }: StudyEvent): void {
  if (tab !== null && tab === TAB) return;
  const anything = tables.length === 0;
  const resources = new Set<unknown>(tables.flatMap((table) => follows[table] ?? []));
  resources.add('history');
  void refresh(({ queryKey: [resource, id, , ids] }) => {
    if (id !== study) return false;
    if (anything) return resource !== 'ledger';
    if (!resources.has(resource)) return false;
    // answers are fetched in blocks: only those that the change is about are fetched again
    if (resource !== 'answers' || responses === null || !Array.isArray(ids)) return true;
    return responses.some((response) => ids.includes(response));
  });
}

/** Keeps what is shown of a study up to date with what others do to it. */
export function useStudyEvents(study: number): void {
  useEffect(
    () =>
      followStream({
        onEvent: (event) => {
          if (event.study === study || event.study === 0) follow(study, event);
        },
        onConnected: setConnected,
        onMissed: () => void refresh(({ queryKey: [resource] }) => resource !== 'ledger'),
      }),
    [study],
  );
}
