import {
  api,
  type CheckAnswers,
  type CheckCreate,
  type CheckSide,
  type Decision,
  type Judge,
  type Mention,
  type Review,
  type DecideByThreshold,
  type SuggestedAnswer,
  type SuggestionPage,
} from '@yellow-thread/contract';
import {
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type InfiniteData,
  type QueryClient,
  type QueryKey,
} from '@tanstack/react-query';
import { redecide } from '@yellow-thread/core/review';
import type { Span } from '@yellow-thread/core/text';
import { call } from './client.js';
import { noteOn, useChangeNote } from './notes.js';
import { useSession } from './people.js';
import { asChange, asKeyedChange, holdFetches } from './queryClient.js';

export const useReviews = (study: number, question: number) =>
  useQuery({
    queryKey: ['reviews', study, question],
    queryFn: () => call(api.listReviews, { params: { study, question } }),
  });

// thousands of probabilities and answers: comparing each with what was there would take longer than drawing
export const useReview = (study: number, question: number, code: string) =>
  useQuery({
    queryKey: ['review', study, question, code],
    queryFn: () => call(api.getReview, { params: { study, question, code } }),
    structuralSharing: false,
  });

export const useSuggestions = (study: number, question: number, code: string) =>
  useInfiniteQuery({
    queryKey: ['suggestions', study, question, code],
    queryFn: ({ pageParam, signal }) =>
      call(api.getSuggestions, {
        params: { study, question, code },
        query: { after: pageParam, limit: 100 },
        signal,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
    structuralSharing: false,
  });

export const useNearestCoded = (study: number, question: number, code: string, response: number) =>
  useQuery({
    queryKey: ['nearest coded', study, question, code, response],
    queryFn: ({ signal }) =>
      call(api.getNearestCoded, { params: { study, question, code, response }, signal }),
    // coding elsewhere changes them little, and they are asked for at each step down the list
    staleTime: 60_000,
  });

const elsewhereFromDecisions = [
  'study',
  'answers',
  'checks',
  'codebook',
  'ledger',
  'reviews',
  'report',
  'behind',
  'left',
] as const;
const followsFromDecisions = ['review', ...elsewhereFromDecisions] as const;

/** Changes one suggestion of a code's list as it is drawn. */
function redraw(
  client: QueryClient,
  list: QueryKey,
  responseId: number,
  to: (before: SuggestedAnswer) => SuggestedAnswer,
): void {
  client.setQueryData<InfiniteData<SuggestionPage>>(
    list,
    (pages) =>
      pages && {
        ...pages,
        pages: pages.pages.map((page) => ({
          ...page,
          suggestions: page.suggestions.map((one) =>
            one.responseId === responseId ? to(one) : one,
          ),
        })),
      },
  );
}

export interface Deciding {
  suggestion: SuggestedAnswer;
  state: Decision;
  /** The words that what is accepted rests on. */
  passage?: Span;
  /** A mention of another code that is given with it. */
  other?: Mention;
}

/** The mentions of a suggested answer once it is decided, as they will be drawn. */
function mentionsAfter(
  { responseId, mentions, state: before, bulk }: SuggestedAnswer,
  { state, passage, other }: Deciding,
  code: string,
): Mention[] {
  const beside = other ? [other] : [];
  if (before === state && !bulk && !passage) return [...mentions, ...beside];
  const kept = mentions.filter(
    ({ codeId, origin }) => codeId !== code || (origin !== 'accepted' && origin !== 'bulk'),
  );
  if (state !== 'accepted') return [...kept, ...beside];
  const accepted: Mention = {
    // under what id it is kept, nobody asks here
    id: crypto.randomUUID(),
    responseId,
    codeId: code,
    coderId: 0,
    origin: 'accepted',
    start: null,
    end: null,
    ...passage,
    typical: false,
    createdAt: new Date().toISOString(),
  };
  return [...kept, accepted, ...beside];
}

/** Decides one suggestion; drawn at once, saved behind. */
export function useDecide(
  study: number,
  question: number,
  code: string,
): (deciding: Deciding) => void {
  const client = useQueryClient();
  const list = ['suggestions', study, question, code];
  const figures = ['review', study, question, code];
  const me = useSession().data?.account?.name ?? null;
  const draw = (deciding: Deciding) => {
    const { suggestion, state } = deciding;
    // what comes from before the decision would undo it
    [list, figures].forEach(holdFetches);
    redraw(client, list, suggestion.responseId, (one) => ({
      ...one,
      state,
      bulk: false,
      by: state === 'open' ? null : me,
      mentions: mentionsAfter(one, deciding, code),
    }));
    client.setQueryData<Review>(figures, (review) => review && redecide(review, suggestion, state));
  };
  const { mutate } = useMutation({
    // its own list and figures it draws by itself
    ...asKeyedChange(...elsewhereFromDecisions),
    mutationFn: ({ suggestion, state, passage, other }: Deciding) =>
      call(api.decideSuggestion, {
        params: { study, question, code },
        body: {
          responseId: suggestion.responseId,
          state,
          toSame: suggestion.count > 1,
          ...(passage && { passage }),
          ...(other && { other: { id: other.id, codeId: other.codeId } }),
        },
      }),
    // of the others of the same words the server knows
    onSuccess: (_, { suggestion }) =>
      suggestion.count > 1 ? client.invalidateQueries({ queryKey: figures }) : undefined,
    onError: () =>
      Promise.all([list, figures].map((queryKey) => client.invalidateQueries({ queryKey }))),
  });
  return (deciding) => {
    // with all else that the key does, in one drawing
    draw(deciding);
    mutate(deciding);
  };
}

/** Calls the coding of a suggested answer doubtful, or no longer; drawn at once, saved behind. */
export function useUnsure(study: number, question: number, code: string) {
  const client = useQueryClient();
  const list = ['suggestions', study, question, code];
  const account = useSession().data?.account ?? null;
  const change = useChangeNote(study);
  return ({ responseId, unsure }: SuggestedAnswer) => {
    holdFetches(list);
    const note = noteOn(responseId, account, { text: '', unsure: true });
    redraw(client, list, responseId, (one) => ({ ...one, unsure: unsure ? null : note.id }));
    change.mutate(
      unsure ? { do: 'removeNote', note: { ...note, id: unsure } } : { do: 'addNote', note },
      { onError: () => void client.invalidateQueries({ queryKey: list }) },
    );
  };
}

/** Decides a suggestion from outside its code's list. */
export const useDecideOne = (study: number, question: number) =>
  useMutation({
    ...asChange('suggestions', ...followsFromDecisions),
    mutationFn: ({ codeId, ...body }: { codeId: string; responseId: number; state: Decision }) =>
      call(api.decideSuggestion, { params: { study, question, code: codeId }, body }),
  });

/** Accepts everything above the line, or refuses everything below it. */
export const useDecideByThreshold = (study: number, question: number, code: string) =>
  useMutation({
    ...asChange('suggestions', ...followsFromDecisions),
    mutationFn: (body: DecideByThreshold) =>
      call(api.decideByThreshold, { params: { study, question, code }, body }),
  });

/** Keeps the line where it was laid. */
export function useMoveThreshold(study: number, question: number, code: string) {
  const client = useQueryClient();
  const key = ['review', study, question, code];
  return useMutation({
    ...asChange(),
    mutationFn: (to: number) => {
      // moves are saved in turn: each one begins where the one before it ended
      const from = client.getQueryData<Review>(key)?.threshold ?? to;
      return call(api.moveThreshold, { params: { study, question, code }, body: { from, to } });
    },
    // figures from before the move would bring the old line back
    onMutate: () => holdFetches(key),
    onSuccess: (_, to) =>
      client.setQueryData<Review>(key, (review) => review && { ...review, threshold: to }),
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Spot checks of what was decided in bulk, with what they found. */
export const useChecks = (study: number, question: number, code: string) =>
  useQuery({
    queryKey: ['checks', study, question, code],
    queryFn: () => call(api.listChecks, { params: { study, question, code } }),
  });

export const useDrawCheck = (study: number, question: number, code: string) =>
  useMutation({
    ...asChange('checks', 'history'),
    mutationFn: (body: CheckCreate) =>
      call(api.drawCheck, { params: { study, question, code }, body }),
  });

const checkKey = (study: number, question: number, code: string, check: string) => [
  'check',
  study,
  question,
  code,
  check,
];

/** The answers of a check, to be read without knowing what the model said. */
export const useCheck = (study: number, question: number, code: string, check: string) =>
  useQuery({
    queryKey: checkKey(study, question, code, check),
    queryFn: () => call(api.readCheck, { params: { study, question, code, check } }),
  });

/** Keeps what was found on reading one answer of a check; drawn at once, saved behind. */
export function useJudge(study: number, question: number, code: string, check: string) {
  const client = useQueryClient();
  const key = checkKey(study, question, code, check);
  return useMutation({
    ...asChange('suggestions', 'history', ...followsFromDecisions),
    mutationFn: (body: Judge) =>
      call(api.judgeCheck, { params: { study, question, code, check }, body }),
    onMutate: ({ responseId, verdict }) => {
      holdFetches(key);
      client.setQueryData<CheckAnswers>(
        key,
        (before) =>
          before && {
            answers: before.answers.map((one) =>
              one.responseId === responseId ? { ...one, verdict } : one,
            ),
          },
      );
    },
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Opens again what was decided in bulk and nobody has read. */
export const useReopenBulk = (study: number, question: number, code: string) =>
  useMutation({
    ...asChange('suggestions', 'history', ...followsFromDecisions),
    mutationFn: (side: CheckSide) =>
      call(api.reopenBulk, { params: { study, question, code }, body: { side } }),
  });
