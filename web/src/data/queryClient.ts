import {
  MutationCache,
  notifyManager,
  QueryClient,
  type Query,
  type QueryFilters,
  type QueryKey,
} from '@tanstack/react-query';
import { toast } from 'sonner';
import { asProblem, ProblemError } from '../lib/problem.js';
import { queryClientTexts } from './texts.js';

/** What is fetched about a study, by the first part of its query key. */
export type Resource =
  | 'study'
  | 'look'
  | 'codebook'
  | 'code-maps'
  | 'code-map'
  | 'ledger'
  | 'answers'
  | 'answers-of'
  | 'answer-help'
  | 'glossary'
  | 'tone'
  | 'tone-batch'
  | 'tone-report'
  | 'hits'
  | 'notes'
  | 'others'
  | 'history'
  | 'mentions-of-code'
  | 'nearest'
  | 'saturation'
  | 'training'
  | 'telling'
  | 'reviews'
  | 'review'
  | 'suggestions'
  | 'checks'
  | 'members'
  | 'membership'
  | 'assignments'
  | 'readings'
  | 'reading'
  | 'agreement'
  | 'check'
  | 'report'
  | 'together'
  | 'groups'
  | 'group-size'
  | 'write-ups'
  | 'write-up'
  | 'behind'
  | 'respondents'
  | 'respondent-rows'
  | 'variable'
  | 'left';

/** What shows which codes were given. */
export const FROM_MENTIONS = [
  'answer-help',
  'tone-report',
  'answers-of',
  'codebook',
  'hits',
  'others',
  'mentions-of-code',
  'nearest',
  'saturation',
  'report',
  'behind',
  'together',
  'groups',
  'group-size',
  'write-up',
  'history',
  // background that is computed by rules
  'variable',
  'respondents',
  'respondent-rows',
] satisfies Resource[];
/** What shows what is left to be decided of suggestions. */
export const FROM_DECISIONS = [
  'reviews',
  'review',
  'suggestions',
  'checks',
  'left',
] satisfies Resource[];

declare module '@tanstack/react-query' {
  interface Register {
    mutationMeta: { refreshes?: readonly Resource[]; keyByKey?: boolean };
  }
}

/** Key of every mutation that changes the study: what the "saved" sign watches. */
export const CHANGE = ['change'];

/**
 * What every mutation that changes the study is made with: changes are sent one after the other, and
 * the last of a burst brings what follows from them up to date.
 *
 * @param refreshes what is fetched again; what the mutation draws by itself is left out
 */
export const asChange = (...refreshes: Resource[]) => ({
  mutationKey: CHANGE,
  scope: { id: 'change' },
  meta: { refreshes },
});

/** The same for what is done key by key and drawn by itself: what follows is brought up to date when the keys rest. */
export const asKeyedChange = (...refreshes: Resource[]) => ({
  ...asChange(...refreshes),
  meta: { refreshes, keyByKey: true },
});
/** So long after the last key. */
const REST_MS = 500;
/** So long at most, while somebody types on: counts that only the server knows are not left behind for longer. */
const MOST_MS = 3000;

/**
 * Keeps what is shown until what is asked for has come, as long as it is of the same place: figures of one question must
 * not stand below the wording of another.
 *
 * @param place the parts of the key behind its first that say where it is: the study, and its question or sheet
 */
export const keptWithin =
  (...place: readonly unknown[]) =>
  <Data>(before: Data | undefined, query: { queryKey: QueryKey } | undefined): Data | undefined =>
    place.every((part, i) => query?.queryKey[i + 1] === part) ? before : undefined;

let lastKey = -Infinity;
globalThis.addEventListener('keydown', () => (lastKey = performance.now()), { capture: true });

const stale = new Set<Resource>();
let staleSince = Infinity;
let atRest: ReturnType<typeof setTimeout> | undefined;
/** Hashes of queries that are fetched again once no change is on its way any more. */
const awaitingRefetch = new Set<string>();

// what one key did is drawn before the next key is handled, however fast somebody codes
notifyManager.setScheduler(queueMicrotask);

export const queryClient = new QueryClient({
  defaultOptions: {
    // the server may be on this very machine: a browser that is offline reaches it all the same
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 10_000,
      retry: (failures, error) => !(error instanceof ProblemError) && failures < 2,
    },
  },
  mutationCache: new MutationCache({
    onError: (error, _variables, _context, mutation) => {
      if (mutation.options.mutationKey?.[0] === CHANGE[0])
        toast.error(queryClientTexts.saved(asProblem(error).sentence));
      if (error instanceof ProblemError && error.status === 401)
        void queryClient.invalidateQueries({ queryKey: ['session'] });
    },
    onSettled: (_data, _error, _variables, _context, { meta, options }) => {
      for (const resource of meta?.refreshes ?? []) stale.add(resource);
      // the one that is settled is still counted among those on their way
      const itself = options.mutationKey?.[0] === CHANGE[0] ? 1 : 0;
      if (queryClient.isMutating({ mutationKey: CHANGE }) > itself) return;
      clearTimeout(atRest);
      if (!meta?.keyByKey) return fetchStale();
      // what is opened meanwhile is fetched then
      void queryClient.invalidateQueries({ predicate: staleByNow(), refetchType: 'none' });
      staleSince = Math.min(staleSince, performance.now());
      atRest = setTimeout(fetchAtRest, REST_MS);
    },
  }),
});

/** Tells the queries that are stale by now from the others, also when that is forgotten meanwhile. */
function staleByNow(): (query: Query) => boolean {
  const resources = new Set<unknown>(stale);
  const hashes = new Set(awaitingRefetch);
  return ({ queryKey, queryHash }) => resources.has(queryKey[0]) || hashes.has(queryHash);
}

/** Fetching and drawing again would take the time of a key that is pressed meanwhile. */
function fetchAtRest(): void {
  const wait = Math.min(lastKey + REST_MS, staleSince + MOST_MS) - performance.now();
  if (wait > 0) atRest = setTimeout(fetchAtRest, wait);
  // else the last of those on their way sees to it
  else if (queryClient.isMutating({ mutationKey: CHANGE }) === 0) fetchStale();
}

function fetchStale(): void {
  staleSince = Infinity;
  const isStale = staleByNow();
  const some = stale.size + awaitingRefetch.size > 0;
  stale.clear();
  awaitingRefetch.clear();
  if (some) void fetchAnew(isStale);
}

/** Has some of what is shown fetched again when the changes that are on their way are saved. */
export function refetchAfterSave(filters: QueryFilters): void {
  for (const { queryHash } of queryClient.getQueryCache().findAll(filters))
    awaitingRefetch.add(queryHash);
}

/**
 * Fetches again what somebody else's change made stale. While a change of one's own is on its way, an answer could
 * come from before it and undo what is drawn: then it is fetched once that change is saved.
 */
export async function refresh(predicate: (query: Query) => boolean): Promise<void> {
  if (queryClient.isMutating({ mutationKey: CHANGE }) > 0) refetchAfterSave({ predicate });
  else await fetchAnew(predicate);
}

/** Ends what is being fetched before a change is drawn over it; it is fetched once the change is saved. */
export function holdFetches(queryKey: readonly unknown[]): void {
  refetchAfterSave({ queryKey, fetchStatus: 'fetching' });
  // what it would have brought is dropped before this returns
  void queryClient.cancelQueries({ queryKey });
}

/**
 * Fetches again what a change made stale. A first fetch that is in progress may have been answered before the
 * change, and invalidating would wait for just that answer: it is begun again.
 */
async function fetchAnew(predicate: (query: Query) => boolean): Promise<void> {
  await queryClient.cancelQueries({
    predicate: (query) => query.state.data === undefined && predicate(query),
  });
  await queryClient.invalidateQueries({ predicate });
}
