import type { StudyDetail } from '@yellow-thread/contract';
import type { ReactNode } from 'react';
import { useCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useVariable } from '../data/respondents.js';
import { useImports } from '../data/sheets.js';
import { useAddressPart } from '../frame/address.js';
import { Choice } from '../parts/field.js';
import { contrastViewTexts } from './texts.js';

/** What has more values than this is no category. */
const MOST_VALUES = 60;

/** Whose words are compared: first of what kind, then which. */
export function ComparedChoice({
  study,
  label = contrastViewTexts.compare,
  nobody = contrastViewTexts.choose,
}: {
  study: StudyDetail;
  label?: string;
  /** What is chosen as long as nobody is. */
  nobody?: string;
}) {
  const [asked, ask] = useAddressPart('who');
  const [kind = '', id = '', ...rest] = (asked ?? '').split(':');
  const groups = useGroups(study.id);
  const codebook = useCodebook(study.id);
  const imports = useImports(study.id);
  const of =
    kind === 'variable'
      ? `variable:${id}`
      : kind === 'theme' || kind === 'code'
        ? 'mentioned'
        : kind;
  const variables = study.variables.filter(({ values }) => values <= MOST_VALUES);
  const several = (imports.data?.imports.length ?? 0) > 1;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <Choice
        label={label}
        value={of}
        onChange={({ target }) => ask(target.value === '' ? null : `${target.value}:`)}
      >
        <option value="">{nobody}</option>
        <optgroup label={contrastViewTexts.background}>
          {variables.map((variable) => (
            <option key={variable.id} value={`variable:${variable.id}`}>
              {variable.name}
            </option>
          ))}
        </optgroup>
        {(groups.data?.groups.length ?? 0) > 0 && (
          <option value="group">{contrastViewTexts.groups}</option>
        )}
        {(codebook.data?.codes.length ?? 0) > 0 && (
          <option value="mentioned">{contrastViewTexts.mentioned}</option>
        )}
        {several && <option value="import">{contrastViewTexts.waves}</option>}
      </Choice>
      {kind === 'variable' && (
        <Values study={study.id} variable={Number(id)} value={rest.join(':')} onPick={ask} />
      )}
      {kind === 'group' && (
        <Which value={asked!} onPick={ask}>
          {groups.data?.groups.map((group) => (
            <option key={group.id} value={`group:${group.id}`}>
              {group.name}
            </option>
          ))}
        </Which>
      )}
      {of === 'mentioned' && codebook.data && (
        <Which value={asked!} onPick={ask}>
          {codebook.data.themes.map((theme) => (
            <optgroup key={theme.id} label={theme.name}>
              <option value={`theme:${theme.id}`}>
                {theme.name}: {contrastViewTexts.anyCode}
              </option>
              {codebook.data.codes
                .filter((code) => code.themeId === theme.id && !code.archived)
                .map((code) => (
                  <option key={code.id} value={`code:${code.id}`}>
                    {code.name}
                  </option>
                ))}
            </optgroup>
          ))}
          {codebook.data.codes
            .filter((code) => code.themeId === null && !code.archived)
            .map((code) => (
              <option key={code.id} value={`code:${code.id}`}>
                {code.name}
              </option>
            ))}
        </Which>
      )}
      {kind === 'import' && (
        <Which value={asked!} onPick={ask}>
          {imports.data?.imports.map((one) => (
            <option key={one.id} value={`import:${one.id}`}>
              {one.fileName}
            </option>
          ))}
        </Which>
      )}
    </div>
  );
}

function Values({
  study,
  variable,
  value,
  onPick,
}: {
  study: number;
  variable: number;
  value: string;
  onPick: (asked: string) => void;
}) {
  const { data } = useVariable(study, variable);
  const labels = [...new Set(data?.categories.map(({ label }) => label))];
  return (
    <Which value={`variable:${variable}:${value}`} onPick={onPick}>
      {labels.map((label) => (
        <option key={label} value={`variable:${variable}:${label}`}>
          {label}
        </option>
      ))}
    </Which>
  );
}

function Which({
  value,
  onPick,
  children,
}: {
  value: string;
  onPick: (asked: string) => void;
  children: ReactNode;
}) {
  return (
    <Choice
      label={contrastViewTexts.whose}
      value={value}
      onChange={({ target }) => onPick(target.value)}
    >
      {value.endsWith(':') && <option value={value}>{contrastViewTexts.choose}</option>}
      {children}
    </Choice>
  );
}
