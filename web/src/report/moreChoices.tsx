import type { Report, StudyDetail } from '@yellow-thread/contract';
import { columnName } from '@yellow-thread/core/report';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { CodePicker } from '../studyParts/codePicker.js';
import { Choice, inputBox } from '../parts/field.js';
import { Toggles } from '../parts/toggles.js';
import type { ChangeTable, TableChoice } from './tableChoice.js';
import {
  barScales,
  cellKinds,
  choiceHelp,
  decimalNames,
  moreChoicesTexts,
  orderNames,
  rowNames,
  testNames,
} from './texts.js';
import { Tick } from './tick.js';

const options = <Key extends string>(names: Readonly<Record<Key, string>>) =>
  (Object.keys(names) as Key[]).map((key) => (
    <option key={key} value={key}>
      {names[key]}
    </option>
  ));

export interface TableChoicesProps {
  study: StudyDetail;
  choice: TableChoice;
  change: ChangeTable;
  report: Report | undefined;
}

interface Props extends TableChoicesProps {
  groups: readonly { id: string; name: string }[];
}

/** Everything else that decides how a table looks, by what it is about. */
export function MoreChoices(props: Props) {
  return (
    <div className="grid w-full grid-cols-[repeat(auto-fill,minmax(min(100%,188px),1fr))] gap-x-6 gap-y-4 border-t border-rule pt-3">
      <Rows {...props} />
      <Columns {...props} />
      <Cells {...props} />
      <Tests {...props} />
      <Bases {...props} />
    </div>
  );
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <fieldset className="flex min-w-0 flex-col gap-2">
      <legend className="mb-1 font-semibold">{name}</legend>
      {children}
    </fieldset>
  );
}

/** A choice with a line that says what it does. */
const Helped = ({ help, children }: { help: string; children: ReactNode }) => (
  <div className="flex min-w-0 flex-col gap-0.5">
    {children}
    <span className="text-[12px] leading-snug text-soft">{help}</span>
  </div>
);

function Rows({ study, choice, change }: Props) {
  return (
    <Part name={moreChoicesTexts.rows}>
      <Helped help={choiceHelp.rows}>
        <Choice
          label={moreChoicesTexts.rows}
          value={choice.rows}
          onChange={(event) => change({ rows: event.target.value })}
        >
          {options(rowNames)}
        </Choice>
      </Helped>
      <Helped help={choiceHelp.order}>
        <Choice
          label={moreChoicesTexts.order}
          value={choice.order}
          onChange={(event) => change({ order: event.target.value })}
        >
          {options(orderNames)}
        </Choice>
      </Helped>
      {choice.rows !== 'bundles' && <OnlyCodes study={study} choice={choice} change={change} />}
      <Helped help={choiceHelp.empty}>
        <Tick
          name={moreChoicesTexts.hideEmptyRows}
          checked={choice.empty === 'hidden'}
          onChange={(hidden) => change({ empty: hidden ? 'hidden' : null })}
        />
      </Helped>
    </Part>
  );
}

function OnlyCodes({ study, choice, change }: Pick<Props, 'study' | 'choice' | 'change'>) {
  const codebook = useDrawnCodebook(study.id);
  if (!codebook) return null;
  const { chosen } = choice;
  return (
    <Helped help={choiceHelp.chosen}>
      <span className="flex flex-wrap items-center gap-1.5">
        {chosen.map((id) => (
          <button
            key={id}
            type="button"
            title={moreChoicesTexts.remove}
            className="inline-flex items-center gap-1 rounded bg-wash px-2 py-1"
            onClick={() => change({ chosen: chosen.filter((one) => one !== id).join(',') })}
          >
            {codebook.byId.get(id)?.name ?? moreChoicesTexts.deletedCode}{' '}
            <X size={12} aria-hidden />
          </button>
        ))}
        <CodePicker
          label={moreChoicesTexts.onlyCodes}
          placeholder={chosen.length > 0 ? moreChoicesTexts.and : moreChoicesTexts.onlyCode}
          className="w-40 !py-1.5"
          codes={codebook.codes.filter(({ id }) => !chosen.includes(id))}
          onPick={({ id }) => change({ chosen: [...chosen, id].join(',') })}
        />
      </span>
    </Helped>
  );
}

function Columns({ study, choice, change, report, groups }: Props) {
  const comparable = (report?.columns ?? []).flatMap((column, place) =>
    column.rule && column.key !== 'missing' ? [{ ...column, place }] : [],
  );
  const pair = choice.difference?.split('-') ?? ['', ''];
  const setSide = (side: number, value: string) => {
    if (value === '') return change({ difference: null });
    const other = comparable.find(({ place }) => String(place) !== value);
    const next = pair.with(side, value);
    change({
      difference: next.map((place) => (place === '' ? String(other!.place) : place)).join('-'),
    });
  };
  const hasAny = study.questions.length > 1 && choice.by !== 'question' && choice.by !== 'coder';
  const hasEstimates = report?.counts !== 'estimated';
  if (!hasAny && !hasEstimates && comparable.length < 2 && choice.by !== 'groups') return null;
  return (
    <Part name={moreChoicesTexts.columns}>
      {hasAny && (
        <Helped help={choiceHelp.questions}>
          <Choice
            label={moreChoicesTexts.mentioned}
            value={choice.questions}
            onChange={(event) => change({ questions: event.target.value })}
          >
            <option value="one">{moreChoicesTexts.question}</option>
            <option value="all">{moreChoicesTexts.anyQuestion}</option>
          </Choice>
        </Helped>
      )}
      {comparable.length > 1 && (
        <Helped help={choiceHelp.difference}>
          <span className="flex flex-wrap items-center gap-2">
            {[0, 1].map((side) => (
              <Choice
                key={side}
                label={side === 0 ? moreChoicesTexts.difference : moreChoicesTexts.minus}
                className="max-w-40"
                value={pair[side]}
                onChange={(event) => setSide(side, event.target.value)}
              >
                <option value="">{moreChoicesTexts.none}</option>
                {comparable.map(({ place, ...column }) => (
                  <option key={place} value={place}>
                    {columnName(column)}
                  </option>
                ))}
              </Choice>
            ))}
          </span>
        </Helped>
      )}
      {hasEstimates && (
        <Helped help={choiceHelp.estimated}>
          <Tick
            name={moreChoicesTexts.estimatedColumnsBeside}
            checked={choice.estimated}
            onChange={(estimated) => change({ estimated: estimated ? 'true' : null })}
          />
        </Helped>
      )}
      {choice.by === 'groups' && (
        <Helped help={choiceHelp.groups}>
          <Toggles
            options={groups.map(({ id, name }) => ({ key: id, name }))}
            chosen={choice.groups.length === 0 ? groups.map(({ id }) => id) : choice.groups}
            onChange={(ids) => change({ groups: ids.join(','), difference: null })}
          />
        </Helped>
      )}
    </Part>
  );
}

function Cells({ choice, change }: Props) {
  return (
    <Part name={moreChoicesTexts.cells}>
      <Helped help={choiceHelp.cells}>
        <Choice
          label={moreChoicesTexts.cells}
          value={choice.cells}
          onChange={(event) => change({ cells: event.target.value })}
        >
          {options(cellKinds)}
        </Choice>
      </Helped>
      <Helped help={choiceHelp.bars}>
        <Choice
          label={moreChoicesTexts.barsAgainst}
          value={choice.bars}
          onChange={(event) => change({ bars: event.target.value })}
        >
          {options(barScales)}
        </Choice>
      </Helped>
      <Helped help={choiceHelp.decimals}>
        <Choice
          label={moreChoicesTexts.decimals}
          value={choice.decimals}
          onChange={(event) => change({ decimals: event.target.value })}
        >
          {decimalNames.map(([decimals, name]) => (
            <option key={decimals} value={decimals}>
              {name}
            </option>
          ))}
        </Choice>
      </Helped>
      <Helped help={choiceHelp.interval}>
        <Tick
          name={moreChoicesTexts.intervals}
          checked={choice.interval}
          onChange={(interval) => change({ interval: interval ? 'true' : null })}
        />
      </Helped>
    </Part>
  );
}

function Tests({ choice, change }: Props) {
  return (
    <Part name={moreChoicesTexts.tests}>
      <Helped help={choiceHelp.test}>
        <Choice
          label={moreChoicesTexts.differences}
          value={choice.test}
          onChange={(event) => change({ test: event.target.value })}
        >
          {options(testNames)}
        </Choice>
      </Helped>
      {choice.test !== 'off' && (
        <Helped help={choiceHelp.against}>
          <Choice
            label={moreChoicesTexts.between}
            value={choice.against}
            onChange={(event) => change({ against: event.target.value })}
          >
            <option value="each">{moreChoicesTexts.everyTwoColumns}</option>
            <option value="rest">{moreChoicesTexts.eachEveryoneElse}</option>
          </Choice>
        </Helped>
      )}
      <Helped help={choiceHelp.level}>
        <Choice
          label={moreChoicesTexts.at}
          value={choice.level}
          onChange={(event) => change({ level: event.target.value })}
        >
          {['90', '95', '99'].map((level) => (
            <option key={level} value={level}>
              {level}%
            </option>
          ))}
        </Choice>
      </Helped>
    </Part>
  );
}

const limits = [
  ['low', moreChoicesTexts.italicBelow],
  ['lowest', moreChoicesTexts.greyBelow],
] as const;

function Bases({ choice, change }: Props) {
  return (
    <Part name={moreChoicesTexts.bases}>
      <Helped help={choiceHelp.limits}>
        <span className="flex flex-wrap items-center gap-2 text-soft">
          {limits.map(([limit, name]) => (
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
          {moreChoicesTexts.people}
        </span>
      </Helped>
    </Part>
  );
}
