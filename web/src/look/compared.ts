import type { Rule, StudyDetail } from '@yellow-thread/contract';
import { useCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useImports } from '../data/sheets.js';
import { useAddressPart } from '../frame/address.js';
import type { WantedWords } from './useHitsOf.js';

/** Who is compared with everybody else. */
export interface Compared {
  name: string;
  rule: Rule;
  /** How the ledger finds them. */
  address: Pick<WantedWords, 'among' | 'of'>;
}

/** Who is compared, as the address says: `variable:12:Hask`, `group:…`, `theme:…`, `code:…`, `import:…`. */
export function useCompared(study: StudyDetail): Compared | null {
  const [asked] = useAddressPart('who');
  const groups = useGroups(study.id);
  const codebook = useCodebook(study.id);
  const imports = useImports(study.id);
  const [kind, id = '', ...rest] = (asked ?? '').split(':');
  const label = rest.join(':');
  const mentioning = (codeIds: string[], themeIds: string[]): Rule => ({
    is: 'mentions',
    which: 'any',
    codeIds,
    themeIds,
    questionId: null,
  });
  switch (kind) {
    case 'variable': {
      const variable = study.variables.find((one) => String(one.id) === id);
      if (!variable || label === '') return null;
      return {
        name: label,
        rule: { is: 'value', variableId: variable.id, test: 'any_of', labels: [label] },
        address: { among: { where: `${variable.id}:${label}` } },
      };
    }
    case 'group': {
      const group = groups.data?.groups.find((one) => one.id === id);
      if (!group) return null;
      return {
        name: group.name,
        rule: { is: 'in_group', groupId: group.id, member: true },
        address: { among: { among: group.id } },
      };
    }
    case 'theme': {
      const theme = codebook.data?.themes.find((one) => one.id === id);
      if (!theme) return null;
      const rule = mentioning([], [theme.id]);
      return { name: theme.name, rule, address: { of: JSON.stringify(rule) } };
    }
    case 'code': {
      const code = codebook.data?.codes.find((one) => one.id === id);
      if (!code) return null;
      const rule = mentioning([code.id], []);
      return { name: code.name, rule, address: { of: JSON.stringify(rule) } };
    }
    case 'import': {
      const found = imports.data?.imports.find((one) => String(one.id) === id);
      if (!found) return null;
      const rule: Rule = { is: 'came_with', importIds: [found.id] };
      return { name: found.fileName, rule, address: { of: JSON.stringify(rule) } };
    }
    default:
      return null;
  }
}
