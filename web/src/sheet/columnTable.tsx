import type {
  ColumnRole,
  ColumnSetting,
  ReadySheet,
  SheetSettings,
  StudyDetail,
  Writing,
} from '@yellow-thread/contract';
import { closedNames, withRole, wordingsOf } from '@yellow-thread/core/sheet';
import { useRef, useState } from 'react';
import { Choice } from '../parts/field.js';
import { FillHandle, rangeOf, useFillDown } from './fillDown.js';
import { roleNames } from './roles.js';
import { writingsOf } from './writings.js';
import { columnTableTexts } from './texts.js';

/** What each column is for; changed one by one or many at once. */
export function ColumnTable({
  study,
  ready,
  settings,
  change,
}: {
  study: StudyDetail;
  ready: ReadySheet;
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const setColumns = (
    places: Iterable<number>,
    make: (column: ColumnSetting, c: number) => ColumnSetting,
  ) => {
    const columns = [...settings.columns];
    for (const c of places) columns[c] = make(columns[c]!, c);
    change({ columns });
  };
  const setRole = (places: Iterable<number>, role: ColumnRole) =>
    setColumns(places, (column, c) =>
      withRole(column, role, ready.columns[c]!.head, settings, valuesOf(c)),
    );
  const valuesOf = (c: number) =>
    ready.preview.map((cells) => cells[c] ?? '').filter((value) => value !== '');
  const last = useRef<number | null>(null);
  /** Chooses a column, or drops it; with Shift all from the one before to this. */
  const toggle = (c: number, takesRange: boolean) => {
    const next = new Set(chosen);
    const isOn = !chosen.has(c);
    const from = takesRange && last.current !== null ? last.current : c;
    for (const one of rangeOf(from, c)) {
      if (isOn) next.add(one);
      else next.delete(one);
    }
    last.current = c;
    setChosen(next);
  };
  const fill = useFillDown((from, to) => {
    const { role, name, separator } = settings.columns[from]!;
    const below = rangeOf(from, to).filter((c) => c !== from);
    setColumns(below, (column, c) => ({
      ...withRole(column, role, ready.columns[c]!.head, settings, valuesOf(c)),
      ...(role === 'codes' && { name, separator }),
    }));
  });
  const all = chosen.size === settings.columns.length;
  return (
    <>
      <div className="mt-4 flex min-h-9 items-center justify-between gap-4">
        <p className="text-soft">{columnTableTexts.whatEachColumnGuesses}</p>
        {chosen.size > 0 && (
          <Choice
            label={columnTableTexts.the(chosen.size)}
            value=""
            onChange={(event) => setRole(chosen, event.target.value as ColumnRole)}
          >
            <option value="" disabled>
              {columnTableTexts.setWhat}
            </option>
            <RoleOptions />
          </Choice>
        )}
      </div>
      <table className="mt-1 w-full table-fixed">
        <thead className="border-b border-rule text-left text-soft">
          <tr>
            <th className="w-8 py-1.5">
              <input
                type="checkbox"
                aria-label={columnTableTexts.chooseAllColumns}
                className="size-4 accent-ink"
                checked={all}
                onChange={() => setChosen(all ? new Set() : new Set(settings.columns.keys()))}
              />
            </th>
            <th className="w-[27%] py-1.5 pr-4 font-normal">{columnTableTexts.column}</th>
            <th className="w-[214px] py-1.5 pr-4 font-normal">{columnTableTexts.is}</th>
            <th className="py-1.5 font-normal">{columnTableTexts.firstValues}</th>
          </tr>
        </thead>
        <tbody>
          {ready.columns.map((column, c) => {
            const setting = settings.columns[c]!;
            return (
              <tr
                key={column.head}
                data-column={c}
                className={`border-b border-rule align-top ${fill.covers(c) ? 'bg-wash' : ''}`}
              >
                <td className="py-2.5">
                  <input
                    type="checkbox"
                    aria-label={columnTableTexts.choose(column.head)}
                    className="size-4 accent-ink"
                    checked={chosen.has(c)}
                    onChange={(event) =>
                      toggle(
                        c,
                        event.nativeEvent instanceof MouseEvent && event.nativeEvent.shiftKey,
                      )
                    }
                  />
                </td>
                <th
                  scope="row"
                  className="py-2 pr-4 text-left font-medium [overflow-wrap:anywhere]"
                >
                  {column.code && <span className="text-soft">{column.code} </span>}
                  {column.head}
                </th>
                <td className="relative py-2 pr-4">
                  <Choice
                    label={columnTableTexts.what(column.head)}
                    hideLabel
                    className="w-full"
                    value={setting.role}
                    onChange={(event) => setRole([c], event.target.value as ColumnRole)}
                  >
                    <RoleOptions />
                  </Choice>
                  <ColumnDetails
                    study={study}
                    settings={settings}
                    head={column.head}
                    setting={setting}
                    values={ready.preview.map((cells) => cells[c] ?? '')}
                    set={(part) => setColumns([c], (now) => ({ ...now, ...part }))}
                  />
                  <FillHandle name={column.head} {...fill.handle(c)} />
                  {isAsGuessed(setting, ready.settings.columns[c]!) && (
                    <p className="mt-0.5 text-[13px] text-soft">{column.reason}</p>
                  )}
                </td>
                <td className="py-2">
                  <FirstValues
                    values={ready.preview.map((cells) => cells[c] ?? '')}
                    asText={setting.role === 'question'}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

const isAsGuessed = (setting: ColumnSetting, guess: ColumnSetting) =>
  setting.role === guess.role && setting.writing === guess.writing;

const RoleOptions = () =>
  Object.entries(roleNames).map(([role, name]) => (
    <option key={role} value={role}>
      {name}
    </option>
  ));

/** What else must be known about a column in its role. */
function ColumnDetails({
  study,
  settings,
  head,
  setting,
  values,
  set,
}: {
  study: StudyDetail;
  settings: SheetSettings;
  head: string;
  setting: ColumnSetting;
  values: readonly string[];
  set: (part: Partial<ColumnSetting>) => void;
}) {
  const { role, name, of, separator } = setting;
  const small = 'mt-1 w-full text-[13px]';
  const parts = (
    <>
      <option value=";">{columnTableTexts.separated}</option>
      <option value=",">{columnTableTexts.separated2}</option>
      <option value="|">{columnTableTexts.separated3}</option>
    </>
  );
  if (role === 'question') {
    const known = study.questions.map((question) => question.wording);
    const others = [...new Set([...wordingsOf(settings), ...known, head])].filter(
      (wording) => wording !== head,
    );
    const closed = closedNames(settings);
    return (
      <>
        {others.length > 0 && (
          <Choice
            label={columnTableTexts.whichQuestionBelongs(head)}
            hideLabel
            className={small}
            value={name}
            onChange={(event) => set({ name: event.target.value })}
          >
            <option value={head}>
              {known.includes(head)
                ? columnTableTexts.studysQuestion
                : columnTableTexts.questionOwn}
            </option>
            {others.map((wording) => (
              <option key={wording} value={wording}>
                {wording === name ? '' : columnTableTexts.part}
                {wording}
              </option>
            ))}
          </Choice>
        )}
        {closed.length > 0 && (of !== '' || /other|specify|sonst|autre/iu.test(head)) && (
          <Choice
            label={columnTableTexts.whichClosedQuestionBelongs(head)}
            hideLabel
            className={small}
            value={of}
            onChange={(event) => set({ of: event.target.value })}
          >
            <option value="">{columnTableTexts.askedEverybody}</option>
            {closed.map((variable) => (
              <option key={variable} value={variable}>
                {columnTableTexts.whatOther(variable)}
              </option>
            ))}
          </Choice>
        )}
      </>
    );
  }
  if (role === 'codes')
    return (
      <>
        <Choice
          label={columnTableTexts.whichQuestionCodesGiven(head)}
          hideLabel
          className={small}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        >
          {wordingsOf(settings).map((wording) => (
            <option key={wording} value={wording}>
              {columnTableTexts.for(wording)}
            </option>
          ))}
        </Choice>
        <Choice
          label={columnTableTexts.howHoldsCodes(head)}
          hideLabel
          className={small}
          value={separator}
          onChange={(event) => set({ separator: event.target.value })}
        >
          <option value="">{columnTableTexts.oneCode01}</option>
          {parts}
        </Choice>
      </>
    );
  if (role === 'choices')
    return (
      <Choice
        label={columnTableTexts.whatPartsChoices(head)}
        hideLabel
        className={small}
        value={separator}
        onChange={(event) => set({ separator: event.target.value })}
      >
        {parts}
      </Choice>
    );
  const kind = role === 'ticked' ? 'yes_no' : role;
  const known = study.variables.filter((variable) => variable.kind === kind);
  const writings = writingsOf(setting, values);
  return (
    <>
      {writings.length > 0 && (
        <Choice
          label={columnTableTexts.howWritten(head)}
          hideLabel
          className={small}
          value={setting.writing}
          onChange={(event) => set({ writing: event.target.value as Writing })}
        >
          {writings.map(({ writing, name: its }) => (
            <option key={writing} value={writing}>
              {its}
            </option>
          ))}
        </Choice>
      )}
      {known.length > 0 && (
        <Choice
          label={columnTableTexts.whichVariable(head)}
          hideLabel
          className={small}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        >
          {!known.some((variable) => variable.name === head) && (
            <option value={head}>{columnTableTexts.newVariable}</option>
          )}
          {known.map((variable) => (
            <option key={variable.id} value={variable.name}>
              {columnTableTexts.studys(variable.name)}
            </option>
          ))}
        </Choice>
      )}
    </>
  );
}

function FirstValues({ values, asText }: { values: string[]; asText: boolean }) {
  const filled = values.filter((value) => value.trim() !== '').slice(0, asText ? 2 : 4);
  if (asText)
    return (
      <ul>
        {filled.map((value, i) => (
          <li key={i} className="line-clamp-2 font-serif text-[15px] leading-snug" title={value}>
            {value}
          </li>
        ))}
      </ul>
    );
  return <span className="block truncate text-soft">{filled.join(' · ')}</span>;
}
