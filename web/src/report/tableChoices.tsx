import { basesOf, ruleNames } from '@yellow-thread/core/report';
import { SlidersHorizontal } from 'lucide-react';
import { useState } from 'react';
import { useGroups } from '../data/groups.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { MoreChoices, type TableChoicesProps } from './moreChoices.js';
import { acrossable } from './tableChoice.js';
import { baseNames, tableChoicesTexts } from './texts.js';
import { unusualChoices } from './unusualChoices.js';
import { Tick } from './tick.js';

/** Which table is shown: what stands across and down, what a percentage is out of, what is compared. */
export function TableChoices(props: TableChoicesProps) {
  const { study, choice, change, report } = props;
  const [more, setMore] = useState(false);
  const unusual = unusualChoices(choice);
  const groups = useGroups(study.id).data?.groups ?? [];
  const variables = acrossable(study.variables);
  const [first, second] = choice.by.split(',');
  return (
    <>
      {report && (
        <Choice
          label={tableChoicesTexts.counts}
          className="max-w-64"
          value={report.counts}
          onChange={(event) => change({ counts: event.target.value })}
        >
          {report.rules.map(({ rule, why }) => (
            <option key={rule} value={rule} disabled={why !== null} title={why ?? undefined}>
              {ruleNames[rule]}
            </option>
          ))}
        </Choice>
      )}
      <Choice
        label={tableChoicesTexts.across}
        className="max-w-56"
        value={first}
        onChange={(event) => change({ by: event.target.value, difference: null })}
      >
        <option value="none">{tableChoicesTexts.nothingTotal}</option>
        <option value="question">{tableChoicesTexts.questions}</option>
        {groups.length > 0 && <option value="groups">{tableChoicesTexts.groups}</option>}
        <option value="wave">{tableChoicesTexts.importedWaves}</option>
        <option value="coder">{tableChoicesTexts.coders}</option>
        {study.respondents <= 30 && (
          <option value="respondent">{tableChoicesTexts.singleRespondents}</option>
        )}
        <optgroup label={tableChoicesTexts.background}>
          {variables.map((variable) => (
            <option key={variable.id} value={variable.id}>
              {variable.name}
            </option>
          ))}
        </optgroup>
      </Choice>
      {/^\d/u.test(choice.by) && variables.length > 1 && (
        <Choice
          label={tableChoicesTexts.brokenDown}
          className="max-w-44"
          value={second ?? ''}
          onChange={(event) =>
            change({
              by: event.target.value ? `${first},${event.target.value}` : first!,
              difference: null,
            })
          }
        >
          <option value="">{tableChoicesTexts.nothing}</option>
          {variables
            .filter(({ id }) => String(id) !== first)
            .map((variable) => (
              <option key={variable.id} value={variable.id}>
                {variable.name}
              </option>
            ))}
        </Choice>
      )}
      {report && (
        <Choice
          label={tableChoicesTexts.percent}
          value={report.base}
          onChange={(event) => change({ base: event.target.value })}
        >
          {basesOf(report.counts, report.isFinished).map((base) => (
            <option key={base} value={base}>
              {baseNames[base]}
            </option>
          ))}
        </Choice>
      )}
      {study.weighted && (
        <Tick
          name={tableChoicesTexts.weighted}
          checked={choice.weighted}
          onChange={(weighted) => change({ weighted: weighted ? 'true' : null })}
        />
      )}
      <Button
        look="bare"
        aria-expanded={more}
        className="!px-2"
        onClick={() => setMore((was) => !was)}
      >
        <SlidersHorizontal size={15} aria-hidden />{' '}
        {more ? tableChoicesTexts.fewerChoices : tableChoicesTexts.moreChoices}
      </Button>
      {!more && unusual.length > 0 && <span className="text-soft">{unusual.join(', ')}</span>}
      {more && <MoreChoices {...props} groups={groups} />}
    </>
  );
}
