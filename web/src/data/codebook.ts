import {
  api,
  codebookSchema,
  type Bundle,
  type Code,
  type Codebook,
  type CodeCreate,
  type MentionSort,
  type CodeEdit,
  type CountedCode,
  type MentionOfCode,
  type Theme,
  type ThemeEdit,
} from '@yellow-thread/contract';
import { inkOn, nextLook, STITCHES, type Stitch } from '@yellow-thread/core/codebook';
import {
  queryOptions,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { Look } from '../lib/stitches.js';
import { useDark } from '../lib/useDark.js';
import { call, prepare, sendRequest, type PreparedRequest } from './client.js';
import {
  asChange,
  asKeyedChange,
  CHANGE,
  FROM_DECISIONS,
  FROM_MENTIONS,
  holdFetches,
  keptWithin,
} from './queryClient.js';

export const codebookKey = (study: number) => ['codebook', study];

export const codebookOptions = (study: number) =>
  queryOptions({
    queryKey: codebookKey(study),
    queryFn: () => call(api.getCodebook, { params: { study } }),
  });

export const useCodebook = (study: number) => useQuery(codebookOptions(study));

interface Drawn {
  themeName: string | null;
  look: Look;
}
/** A code with its theme and how it is drawn. */
export type DrawnCode = CountedCode & Drawn;
/** The same without its counts. */
export type SeenCode = Code & Drawn;
export type DrawnTheme = Codebook['themes'][number] & { look: Look };
type FilledBundle = Codebook['bundles'][number];

export interface DrawnCodebook {
  themes: DrawnTheme[];
  /** All codes, those put away among them. */
  codes: DrawnCode[];
  bundles: FilledBundle[];
  byId: Map<string, DrawnCode>;
}

/** What of the codebook is seen beside answers. */
export interface SeenCodebook {
  themes: (Theme & { look: Look })[];
  codes: SeenCode[];
  byId: Map<string, SeenCode>;
}

const withoutTheme = { ink: '#655F53', stitch: 'running' };
const isStitch = (name: string): name is Stitch => STITCHES.some((stitch) => stitch === name);

/** The codebook with every look computed for the present ground. */
export function useDrawnCodebook(study: number): DrawnCodebook | null {
  const { data } = useCodebook(study);
  const dark = useDark();
  return useMemo(
    () => (data ? { ...draw(data.themes, data.codes, dark), bundles: data.bundles } : null),
    [data, dark],
  );
}

/**
 * The codebook without its counts, which change with every code that is applied: it stays the same object until
 * something changes that is seen beside an answer, so that answers are not drawn again.
 */
export function useSeenCodebook(study: number): SeenCodebook | null {
  const { data } = useQuery({ ...codebookOptions(study), select: withoutCounts });
  const dark = useDark();
  return useMemo(() => (data ? draw(data.themes, data.codes, dark) : null), [data, dark]);
}

/**
 * Codes that can be given to a question, those given most first: as it was when the codebook was first seen, so that
 * digits keep their codes while one reads.
 */
export function useFrequentCodes(study: number, question: number): readonly string[] {
  const { data } = useCodebook(study);
  const [first, setFirst] = useState<readonly string[] | null>(null);
  if (!first && data)
    setFirst(
      data.codes
        .filter(({ archived, questions }) => !archived && (questions?.includes(question) ?? true))
        .sort((x, y) => y.people - x.people)
        .map(({ id }) => id),
    );
  return first ?? none;
}
const none: readonly string[] = [];

/** With nothing in the place of each count: two of them are the same as long as all else is. */
const withoutCounts = ({ themes, codes }: Codebook): { themes: Theme[]; codes: Code[] } => ({
  themes: themes.map((theme) => ({ ...theme, people: 0, mentions: 0 })),
  codes: codes.map((code) => ({ ...code, people: 0, mentions: 0, lastUsed: null })),
});

function draw<T extends Theme, C extends Code>(themes: T[], codes: C[], dark: boolean) {
  const lookOf = ({ ink, stitch }: { ink: string; stitch: string }): Look => ({
    ink: inkOn(ink, dark),
    stitch: isStitch(stitch) ? stitch : 'running',
  });
  const drawn = codes.map((code) => {
    const theme = themes.find((one) => one.id === code.themeId);
    return { ...code, themeName: theme?.name ?? null, look: lookOf(theme ?? withoutTheme) };
  });
  return {
    themes: themes.map((theme) => ({ ...theme, look: lookOf(theme) })),
    codes: drawn,
    byId: new Map(drawn.map((code) => [code.id, code])),
  };
}

/** A code as it will be once the server has made it. */
export const expectedCode = (study: number, create: CodeCreate): CountedCode => ({
  ...create,
  studyId: study,
  definition: '',
  include: '',
  exclude: '',
  position: Number.MAX_SAFE_INTEGER,
  archived: false,
  questions: null,
  people: 0,
  mentions: 0,
  lastUsed: null,
});

/** A theme as it will be once the server has made it. */
export const expectedTheme = (
  study: number,
  create: { id: string; name: string },
  others: readonly Theme[],
): Codebook['themes'][number] => ({
  ...create,
  studyId: study,
  ...nextLook(others),
  position: Number.MAX_SAFE_INTEGER,
  people: 0,
  mentions: 0,
});

export type CodebookChange =
  | { do: 'createCode'; code: CodeCreate }
  | { do: 'editCode'; id: string; edit: CodeEdit }
  | { do: 'removeCode'; code: Code }
  | { do: 'mergeCode'; id: string; into: string }
  | { do: 'sort'; sort: MentionSort }
  | { do: 'moveCode'; id: string; themeId: string | null; before: string | null }
  | { do: 'codeToTheme'; id: string }
  | { do: 'createTheme'; theme: { id: string; name: string } }
  | { do: 'editTheme'; id: string; edit: ThemeEdit }
  | { do: 'removeTheme'; id: string }
  | { do: 'moveTheme'; id: string; before: string | null }
  | { do: 'themeToCode'; id: string }
  | { do: 'putBundle'; bundle: Pick<Bundle, 'id' | 'name'> & { codeIds: string[] } }
  | { do: 'removeBundle'; id: string };

/** The request that makes a change of the codebook. */
function asRequest(study: number, change: CodebookChange): PreparedRequest {
  const params = { study };
  switch (change.do) {
    case 'createCode':
      return prepare(api.createCode, { params, body: change.code });
    case 'editCode':
      return prepare(api.editCode, { params: { study, code: change.id }, body: change.edit });
    case 'removeCode':
      return prepare(api.removeCode, { params: { study, code: change.code.id } });
    case 'mergeCode':
      return prepare(api.mergeCode, {
        params: { study, code: change.id },
        body: { into: change.into },
      });
    case 'sort':
      return prepare(api.sortMentions, { params, body: change.sort });
    case 'moveCode': {
      const { themeId, before } = change;
      return prepare(api.moveCode, {
        params: { study, code: change.id },
        body: { themeId, before },
      });
    }
    case 'codeToTheme':
      return prepare(api.codeToTheme, { params: { study, code: change.id } });
    case 'createTheme':
      return prepare(api.createTheme, { params, body: change.theme });
    case 'editTheme':
      return prepare(api.editTheme, { params: { study, theme: change.id }, body: change.edit });
    case 'removeTheme':
      return prepare(api.removeTheme, { params: { study, theme: change.id } });
    case 'moveTheme':
      return prepare(api.moveTheme, {
        params: { study, theme: change.id },
        body: { before: change.before },
      });
    case 'themeToCode':
      return prepare(api.themeToCode, { params: { study, theme: change.id } });
    case 'putBundle': {
      const { id, name, codeIds } = change.bundle;
      return prepare(api.putBundle, { params: { study, bundle: id }, body: { name, codeIds } });
    }
    case 'removeBundle':
      return prepare(api.removeBundle, { params: { study, bundle: change.id } });
  }
}

/** A list with another version of one of its things. */
const withChanged = <Thing extends { id: string }>(
  things: readonly Thing[],
  id: string,
  change: (thing: Thing) => Thing,
): Thing[] => things.map((thing) => (thing.id === id ? change(thing) : thing));

/**
 * The codebook as a change will leave it, where something is chosen. What is written stays in its field until the server
 * has it: a text that it refuses must not be lost.
 */
function expectedCodebook(codebook: Codebook, change: CodebookChange): Codebook {
  const { codes, themes, bundles } = codebook;
  switch (change.do) {
    case 'editCode': {
      const { themeId, questions } = change.edit.to;
      const its = (code: CountedCode): CountedCode => ({
        ...code,
        ...(themeId !== undefined && { themeId }),
        ...(questions !== undefined && { questions }),
      });
      return { ...codebook, codes: withChanged(codes, change.id, its) };
    }
    case 'editTheme': {
      const { ink, stitch } = change.edit.to;
      const its = (theme: Codebook['themes'][number]) => ({
        ...theme,
        ...(ink !== undefined && { ink }),
        ...(stitch !== undefined && { stitch }),
      });
      return { ...codebook, themes: withChanged(themes, change.id, its) };
    }
    case 'putBundle': {
      const { bundle } = change;
      const its = (before: FilledBundle): FilledBundle => ({ ...before, ...bundle });
      return { ...codebook, bundles: withChanged(bundles, bundle.id, its) };
    }
    default:
      return codebook;
  }
}

export function useChangeCodebook(study: number) {
  const client = useQueryClient();
  return useMutation({
    ...asChange('training', 'answers', ...FROM_MENTIONS, ...FROM_DECISIONS),
    mutationFn: (change: CodebookChange) => sendRequest(asRequest(study, change), codebookSchema),
    // a second box is ticked with the first one's tick in it, however long the server takes
    onMutate: (change) => {
      holdFetches(codebookKey(study));
      client.setQueryData<Codebook>(
        codebookKey(study),
        (codebook) => codebook && expectedCodebook(codebook, change),
      );
    },
    onSuccess: (codebook) => {
      // what is drawn of later changes is not in it; after the last of them the codebook is fetched
      if (client.isMutating({ mutationKey: CHANGE }) === 1)
        client.setQueryData(codebookKey(study), codebook);
    },
    onError: () => client.invalidateQueries({ queryKey: codebookKey(study) }),
  });
}

/** What the removal of a code, or its merge into another, would do. */
export const useCodeImpact = (study: number, code: string, into: string | null) =>
  useQuery({
    queryKey: ['mentions-of-code', study, code, 'impact', into],
    queryFn: () =>
      call(api.getCodeImpact, { params: { study, code }, query: { into: into ?? undefined } }),
    staleTime: 0,
  });

const mentionsOptions = (study: number, code: string) =>
  queryOptions({
    queryKey: ['mentions-of-code', study, code],
    queryFn: () => call(api.listMentionsOfCode, { params: { study, code } }),
  });

export const useMentionsOfCode = (study: number, code: string) =>
  useQuery(mentionsOptions(study, code));

/** The mentions of several codes, each with its code. */
export const useMentionsOfCodes = (study: number, codes: readonly string[]) =>
  useQueries({
    queries: codes.map((code) => mentionsOptions(study, code)),
    combine: combineMentions,
  });

function combineMentions(
  found: { data: { mentions: MentionOfCode[] } | undefined; isPending: boolean; error: unknown }[],
) {
  return {
    mentions: found.flatMap(({ data }) => data?.mentions ?? []),
    isPending: found.some(({ isPending }) => isPending),
    error: found.find(({ error }) => error)?.error ?? null,
  };
}

/**
 * The ids of these mentions by likeness to some of them, or each beside those like it; the order before until there is
 * another.
 */
export const useMentionOrder = (
  study: number,
  { codes, like }: { codes: readonly string[]; like: readonly string[] | null },
  isWanted: boolean,
) =>
  useQuery({
    queryKey: ['mentions-of-code', study, 'order', codes, like],
    queryFn: async ({ signal }) =>
      (
        await call(api.orderMentions, {
          params: { study },
          body: { codes: [...codes], like: like && [...like] },
          signal,
        })
      ).mentions,
    enabled: isWanted,
    placeholderData: keptWithin(study),
  }).data;

const pinsKey = (study: number) => ['pins', study];

/** The codes that this person has under the keys 1 to 9. */
export const usePins = (study: number) =>
  useQuery({
    queryKey: pinsKey(study),
    queryFn: async () => (await call(api.getPins, { params: { study } })).pins,
    staleTime: Infinity,
  });

export function useSetPin(study: number) {
  const client = useQueryClient();
  return useMutation({
    // after the code that is pinned, which may have been made a moment ago
    ...asKeyedChange(),
    mutationFn: ({ key, codeId }: { key: number; codeId: string | null }) =>
      call(api.setPin, { params: { study, key }, body: { codeId } }),
    onSuccess: ({ pins }) => client.setQueryData(pinsKey(study), pins),
  });
}
