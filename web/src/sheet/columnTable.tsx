import type {
  ColumnRole,
  ColumnSetting,
  ReadySheet,
  SheetSettings,
  StudyDetail,
} from '@yellow-thread/contract';
import { withRole } from '@yellow-thread/core/sheet';
import { useRef, useState, type ReactNode } from 'react';
import { Choice } from '../parts/field.js';
import { ColumnDetails } from './columnDetails.js';
import { FillHandle, rangeOf, useFillDown } from './fillDown.js';
import { roleNames } from './roles.js';
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
      withRole({ column, role, head: ready.columns[c]!.head, settings, values: valuesOf(c) }),
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
      ...withRole({ column, role, head: ready.columns[c]!.head, settings, values: valuesOf(c) }),
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
          {ready.columns.map((column, c) => (
            <ColumnRow
              key={column.head}
              c={c}
              study={study}
              ready={ready}
              settings={settings}
              isChosen={chosen.has(c)}
              isCovered={fill.covers(c)}
              handle={<FillHandle name={column.head} {...fill.handle(c)} />}
              onToggle={(takesRange) => toggle(c, takesRange)}
              onRole={(role) => setRole([c], role)}
              set={(part) => setColumns([c], (now) => ({ ...now, ...part }))}
            />
          ))}
        </tbody>
      </table>
    </>
  );
}

/** A column: what it is for, and its first values. */
function ColumnRow({
  c,
  study,
  ready,
  settings,
  isChosen,
  isCovered,
  handle,
  onToggle,
  onRole,
  set,
}: {
  c: number;
  study: StudyDetail;
  ready: ReadySheet;
  settings: SheetSettings;
  isChosen: boolean;
  /** What is filled down goes over it. */
  isCovered: boolean;
  handle: ReactNode;
  onToggle: (takesRange: boolean) => void;
  onRole: (role: ColumnRole) => void;
  set: (part: Partial<ColumnSetting>) => void;
}) {
  const column = ready.columns[c]!;
  const setting = settings.columns[c]!;
  const values = ready.preview.map((cells) => cells[c] ?? '');
  return (
    <tr data-column={c} className={`border-b border-rule align-top ${isCovered ? 'bg-wash' : ''}`}>
      <td className="py-2.5">
        <input
          type="checkbox"
          aria-label={columnTableTexts.choose(column.head)}
          className="size-4 accent-ink"
          checked={isChosen}
          onChange={({ nativeEvent }) =>
            onToggle(nativeEvent instanceof MouseEvent && nativeEvent.shiftKey)
          }
        />
      </td>
      <th scope="row" className="py-2 pr-4 text-left font-medium [overflow-wrap:anywhere]">
        {column.code && <span className="text-soft">{column.code} </span>}
        {column.head}
      </th>
      <td className="relative py-2 pr-4">
        <Choice
          label={columnTableTexts.what(column.head)}
          hideLabel
          className="w-full"
          value={setting.role}
          onChange={(event) => onRole(event.target.value as ColumnRole)}
        >
          <RoleOptions />
        </Choice>
        <ColumnDetails
          study={study}
          settings={settings}
          head={column.head}
          setting={setting}
          values={values}
          set={set}
        />
        {handle}
        {isAsGuessed(setting, ready.settings.columns[c]!) && (
          <p className="mt-0.5 text-[13px] text-soft">{column.reason}</p>
        )}
      </td>
      <td className="py-2">
        <FirstValues values={values} asText={setting.role === 'question'} />
      </td>
    </tr>
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
