import type {
  BaseKind,
  CorrectionChoice,
  Report,
  RowKind,
  RowOrder,
  StudyDetail,
} from '@yellow-thread/contract';
import { basesOf, columnName, ruleNames, type Decimals } from '@yellow-thread/core/report';
import { SlidersHorizontal, X } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { Button } from '../parts/button.js';
import { CodePicker } from '../parts/codePicker.js';
import { Choice, inputBox } from '../parts/field.js';
import { Toggles } from '../parts/toggles.js';
import {
  acrossable,
  barScales,
  cellKinds,
  type ChangeTable,
  type TableChoice,
} from './tableChoice.js';

const baseNames: Record<BaseKind, string> = {
  settled: 'those who count',
  answered: 'all who answered',
  asked: 'all who were asked',
  mentions: 'all mentions',
};
const testNames: Record<CorrectionChoice, string> = {
  holm: 'Holm-corrected',
  benjamini_hochberg: 'false discovery rate',
  none: 'not corrected',
  off: 'not tested',
};
const rowNames: Record<RowKind, string> = {
  book: 'themes and codes',
  themes: 'themes',
  codes: 'codes',
  bundles: 'bundles',
};
const orderNames: Record<RowOrder, string> = {
  frequency: 'most mentioned first',
  difference: 'largest difference first',
  book: 'as in the codebook',
  name: 'by name',
};

/** A list, since whole numbers as keys would come first. */
const decimalNames: readonly [Decimals, string][] = [
  ['fitting', 'by the base'],
  ['0', 'none'],
  ['1', 'one'],
  ['2', 'two'],
];

const options = <Key extends string>(names: Readonly<Record<Key, string>>) =>
  (Object.keys(names) as Key[]).map((key) => (
    <option key={key} value={key}>
      {names[key]}
    </option>
  ));

interface Props {
  study: StudyDetail;
  choice: TableChoice;
  change: ChangeTable;
  report: Report | undefined;
}

/** Which table is shown: what stands across and down, what a percentage is out of, what is compared. */
export function TableChoices(props: Props) {
  const { study, choice, change, report } = props;
  const [more, setMore] = useState(false);
  const groups = useGroups(study.id).data?.groups ?? [];
  const variables = acrossable(study.variables);
  const [first, second] = choice.by.split(',');
  return (
    <>
      {report && (
        <Choice
          label="Counts"
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
        label="Across"
        className="max-w-56"
        value={first}
        onChange={(event) => change({ by: event.target.value, difference: null })}
      >
        <option value="none">nothing: the total</option>
        <option value="question">the questions</option>
        {groups.length > 0 && <option value="groups">groups</option>}
        <option value="wave">the waves brought in</option>
        <option value="coder">coders</option>
        {study.respondents <= 30 && <option value="respondent">single respondents</option>}
        <optgroup label="Background">
          {variables.map((variable) => (
            <option key={variable.id} value={variable.id}>
              {variable.name}
            </option>
          ))}
        </optgroup>
      </Choice>
      {/^\d/u.test(choice.by) && variables.length > 1 && (
        <Choice
          label="broken down by"
          className="max-w-44"
          value={second ?? ''}
          onChange={(event) =>
            change({
              by: event.target.value ? `${first},${event.target.value}` : first!,
              difference: null,
            })
          }
        >
          <option value="">nothing</option>
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
          label="Percent of"
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
          name="weighted"
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
        <SlidersHorizontal size={15} aria-hidden /> {more ? 'Fewer choices' : 'More choices'}
      </Button>
      {more && <MoreChoices {...props} groups={groups} />}
    </>
  );
}

function MoreChoices({
  study,
  choice,
  change,
  report,
  groups,
}: Props & { groups: readonly { id: string; name: string }[] }) {
  const codebook = useDrawnCodebook(study.id);
  const columns = report?.columns ?? [];
  const comparable = columns.flatMap((column, place) =>
    column.rule && column.key !== 'missing' ? [{ ...column, place }] : [],
  );
  const pair = choice.difference?.split('-') ?? ['', ''];
  return (
    <div className="flex w-full flex-wrap items-center gap-x-5 gap-y-2 border-t border-rule pt-2.5">
      <Choice
        label="Rows"
        value={choice.rows}
        onChange={(event) => change({ rows: event.target.value })}
      >
        {options(rowNames)}
      </Choice>
      <Choice
        label="in order"
        value={choice.order}
        onChange={(event) => change({ order: event.target.value })}
      >
        {options(orderNames)}
      </Choice>
      <Choice
        label="Cells"
        value={choice.cells}
        onChange={(event) => change({ cells: event.target.value })}
      >
        {options(cellKinds)}
      </Choice>
      <Choice
        label="Bars against"
        value={choice.bars}
        onChange={(event) => change({ bars: event.target.value })}
      >
        {options(barScales)}
      </Choice>
      {study.questions.length > 1 && choice.by !== 'question' && choice.by !== 'coder' && (
        <Choice
          label="Mentioned in"
          value={choice.questions}
          onChange={(event) => change({ questions: event.target.value })}
        >
          <option value="one">this question</option>
          <option value="all">any question</option>
        </Choice>
      )}
      <Choice
        label="Differences"
        value={choice.test}
        onChange={(event) => change({ test: event.target.value })}
      >
        {options(testNames)}
      </Choice>
      {choice.test !== 'off' && (
        <>
          <Choice
            label="between"
            value={choice.against}
            onChange={(event) => change({ against: event.target.value })}
          >
            <option value="each">every two columns</option>
            <option value="rest">each and everyone else</option>
          </Choice>
          <Choice
            label="at"
            value={choice.level}
            onChange={(event) => change({ level: event.target.value })}
          >
            {['90', '95', '99'].map((level) => (
              <option key={level} value={level}>
                {level}%
              </option>
            ))}
          </Choice>
        </>
      )}
      {comparable.length > 1 && (
        <span className="inline-flex items-center gap-2">
          {[0, 1].map((side) => (
            <Choice
              key={side}
              label={side === 0 ? 'Difference:' : 'minus'}
              className="max-w-40"
              value={pair[side]}
              onChange={(event) => {
                const next = pair.with(side, event.target.value);
                const other = comparable.find(({ place }) => String(place) !== event.target.value);
                if (event.target.value === '') change({ difference: null });
                else
                  change({
                    difference: next
                      .map((place) => (place === '' ? String(other!.place) : place))
                      .join('-'),
                  });
              }}
            >
              <option value="">none</option>
              {comparable.map(({ place, ...column }) => (
                <option key={place} value={place}>
                  {columnName(column)}
                </option>
              ))}
            </Choice>
          ))}
        </span>
      )}
      <Choice
        label="Decimals"
        value={choice.decimals}
        onChange={(event) => change({ decimals: event.target.value })}
      >
        {decimalNames.map(([decimals, name]) => (
          <option key={decimals} value={decimals}>
            {name}
          </option>
        ))}
      </Choice>
      <Tick
        name="intervals"
        checked={choice.interval}
        onChange={(interval) => change({ interval: interval ? 'true' : null })}
      />
      <span className="inline-flex items-center gap-2 text-soft">
        {(
          [
            ['low', 'italic below'],
            ['lowest', 'grey below'],
          ] as const
        ).map(([limit, name]) => (
          <label key={limit} className="inline-flex items-center gap-1.5">
            {name}
            <input
              type="number"
              min={0}
              className={`${inputBox} figures w-16 !py-1`}
              defaultValue={choice[limit]}
              onChange={(event) => change({ [limit]: event.target.value })}
            />
          </label>
        ))}
        people
      </span>
      {report?.counts !== 'estimated' && (
        <Tick
          name="estimated columns beside"
          checked={choice.estimated}
          onChange={(estimated) => change({ estimated: estimated ? 'true' : null })}
        />
      )}
      <Tick
        name="hide empty rows"
        checked={choice.empty === 'hidden'}
        onChange={(hidden) => change({ empty: hidden ? 'hidden' : null })}
      />
      {choice.rows !== 'bundles' && codebook && (
        <span className="flex flex-wrap items-center gap-1.5">
          {choice.chosen.map((id) => (
            <button
              key={id}
              type="button"
              title="No longer"
              className="inline-flex items-center gap-1 rounded bg-wash px-2 py-1"
              onClick={() =>
                change({ chosen: choice.chosen.filter((one) => one !== id).join(',') })
              }
            >
              {codebook.byId.get(id)?.name ?? 'gone'} <X size={12} aria-hidden />
            </button>
          ))}
          <CodePicker
            label="Only these codes"
            placeholder={choice.chosen.length > 0 ? 'and …' : 'only the code …'}
            className="w-40 !py-1.5"
            codes={codebook.codes.filter(({ id }) => !choice.chosen.includes(id))}
            onPick={({ id }) => change({ chosen: [...choice.chosen, id].join(',') })}
          />
        </span>
      )}
      {choice.by === 'groups' && (
        <span className="flex flex-wrap items-center gap-1">
          <span className="text-soft">Groups</span>
          <Toggles
            options={groups.map(({ id, name }) => ({ key: id, name }))}
            chosen={choice.groups.length === 0 ? groups.map(({ id }) => id) : choice.groups}
            onChange={(ids) => change({ groups: ids.join(','), difference: null })}
          />
        </span>
      )}
    </div>
  );
}

function Tick({
  name,
  checked,
  onChange,
}: {
  name: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <label className="inline-flex items-center gap-2">
      <input
        type="checkbox"
        className="accent-ink"
        // ticks at once: the address, which says what is shown, follows a moment later
        defaultChecked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      {name}
    </label>
  );
}
