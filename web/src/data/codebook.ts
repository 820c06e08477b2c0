import {
  codebookSchema,
  type Code,
  type Codebook,
  type CodeCreate,
  type CodeEdit,
  type CountedCode,
  type Theme,
} from '@yellow-thread/contract';
import { inkOn, STITCHES, type Stitch } from '@yellow-thread/core/codebook';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useDark, type Look } from '../parts/stitches.js';
import { call } from './client.js';
import { asChange } from './queryClient.js';

export const codebookKey = (study: number) => ['codebook', study];

export const useCodebook = (study: number) =>
  useQuery({
    queryKey: codebookKey(study),
    queryFn: () => call(`/api/studies/${study}/codebook`, { reply: codebookSchema }),
  });

/** A code with its theme and how it is drawn. */
export interface DrawnCode extends CountedCode {
  themeName: string | null;
  look: Look;
}

export interface DrawnCodebook {
  themes: (Theme & { look: Look })[];
  codes: DrawnCode[];
  byId: Map<string, DrawnCode>;
}

const withoutTheme = { ink: '#655F53', stitch: 'running' };
const isStitch = (name: string): name is Stitch => STITCHES.some((stitch) => stitch === name);

/** The codebook with every look worked out for the present ground. */
export function useDrawnCodebook(study: number): DrawnCodebook | null {
  const { data } = useCodebook(study);
  const dark = useDark();
  return useMemo(() => (data ? drawCodebook(data, dark) : null), [data, dark]);
}

function drawCodebook({ themes, codes }: Codebook, dark: boolean): DrawnCodebook {
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
  people: 0,
  mentions: 0,
});

type CodebookChange =
  | { do: 'createCode'; code: CodeCreate }
  | { do: 'editCode'; id: string; edit: CodeEdit }
  | { do: 'removeCode'; code: Code }
  | { do: 'createTheme'; theme: { id: string; name: string } }
  | { do: 'renameTheme'; id: string; from: string; to: string };

export function useChangeCodebook(study: number) {
  const client = useQueryClient();
  return useMutation({
    ...asChange('report', 'reviews'),
    mutationFn: (change: CodebookChange) => {
      const base = `/api/studies/${study}`;
      const reply = codebookSchema;
      switch (change.do) {
        case 'createCode':
          return call(`${base}/codes`, { method: 'POST', body: change.code, reply });
        case 'editCode':
          return call(`${base}/codes/${change.id}`, { method: 'PATCH', body: change.edit, reply });
        case 'removeCode':
          return call(`${base}/codes/${change.code.id}`, { method: 'DELETE', reply });
        case 'createTheme':
          return call(`${base}/themes`, { method: 'POST', body: change.theme, reply });
        case 'renameTheme': {
          const body = { from: { name: change.from }, to: { name: change.to } };
          return call(`${base}/themes/${change.id}`, { method: 'PATCH', body, reply });
        }
      }
    },
    onSuccess: (codebook) => client.setQueryData(codebookKey(study), codebook),
    onError: () => client.invalidateQueries({ queryKey: codebookKey(study) }),
  });
}
