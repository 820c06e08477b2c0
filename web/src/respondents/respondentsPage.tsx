import type { RespondentRow, StudyDetail, Variable } from '@yellow-thread/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Settings2 } from 'lucide-react';
import { useDeferredValue, useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import {
  STRETCH,
  useRespondentIds,
  useRespondentRows,
  type RespondentOrder,
} from '../data/respondents.js';
import { useRestriction } from '../data/restriction.js';
import { useAddressPart } from '../frame/address.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { EmptyState, PageProblem } from '../parts/notices.js';
import { asNumber } from '../lib/numbers.js';
import { useIsSettled } from '../parts/useIsSettled.js';
import { NarrowBy, RespondentFilter, useConditions } from './respondentFilter.js';
import { ValueEditor } from './valueEditor.js';
import { nameIn } from '../data/background.js';
import { VariableDrawer } from './variableDrawer.js';
import { PersonalDataDrawer } from './personalDataDrawer.js';
import { personalDataTexts, respondentsPageTexts } from './texts.js';

const ROW = 36;

/** Everybody who was asked, with what is known of them. */
export function RespondentsPage() {
  const study = useStudyDetail();
  const [chosen, setOrder] = useState<Omit<RespondentOrder, 'rule'>>({
    sort: 'order',
    descending: false,
    words: useAddressPart('find')[0] ?? '',
  });
  const { conditions, change: changeConditions, rule } = useConditions();
  const order = { ...chosen, rule };
  const words = useDeferredValue(order.words);
  const ids = useRespondentIds(study.id, { ...order, words });
  const within = useRestriction(study.id);
  const openDrawer = useDrawer();
  if (study.respondents === 0 && within === null)
    return (
      <EmptyState title={respondentsPageTexts.nobodyHereYet}>
        <p>{respondentsPageTexts.respondentsComeSheetEach}</p>
        <Link to={`/studies/${study.id}/import`} className="underline">
          {respondentsPageTexts.importSheet}
        </Link>
      </EmptyState>
    );
  return (
    <main className="work-list flex flex-col px-8 py-6 max-sm:px-4">
      <header className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
          <h1>{respondentsPageTexts.respondents}</h1>
          <p role="status" className="figures text-soft">
            {ids.data && ids.data.length < study.respondents
              ? respondentsPageTexts.of(
                  ids.data.length,
                  respondentsPageTexts.respondentCounted(study.respondents),
                )
              : respondentsPageTexts.respondentCounted(study.respondents)}
          </p>
        </div>
        <span className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <SaveStatus />
          {study.role === 'owner' && (
            <Button
              onClick={() =>
                openDrawer({
                  title: personalDataTexts.title,
                  body: <PersonalDataDrawer study={study.id} />,
                })
              }
            >
              {personalDataTexts.open}
            </Button>
          )}
          {study.variables.length > 0 && <NarrowBy study={study} onChange={changeConditions} />}
          <Field
            label={respondentsPageTexts.find}
            placeholder={respondentsPageTexts.idValue}
            value={order.words}
            onChange={(event) => setOrder({ ...order, words: event.target.value })}
          />
        </span>
      </header>
      <RespondentFilter study={study} conditions={conditions} onChange={changeConditions} />
      {ids.isError ? (
        <PageProblem error={ids.error} />
      ) : (
        <Grid
          // another order begins at its top
          key={JSON.stringify({ ...order, words })}
          study={study}
          ids={ids.data ?? []}
          order={order}
          setOrder={setOrder}
        />
      )}
    </main>
  );
}

interface Cell {
  row: number;
  column: number;
}

function Grid({
  study,
  ids,
  order,
  setOrder,
}: {
  study: StudyDetail;
  ids: number[];
  order: RespondentOrder;
  setOrder: (order: RespondentOrder) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Cell>({ row: 0, column: 0 });
  const [editing, setEditing] = useState(false);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const rows = useVirtualizer({
    count: ids.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: ROW,
  });
  const items = rows.getVirtualItems();
  const first = Math.floor((items[0]?.index ?? 0) / STRETCH);
  const last = Math.floor((items.at(-1)?.index ?? 0) / STRETCH);
  const stretches = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  const isAtRest = useIsSettled(`${first} ${last}`);
  const known = useRespondentRows(study.id, ids, stretches, isAtRest);
  const { variables } = study;
  const lead = study.weighted ? 2 : 1;
  const template = `160px ${study.weighted ? '90px ' : ''}repeat(${variables.length}, minmax(150px, 1fr))`;
  const stop = (focus: boolean) => {
    setEditing(false);
    if (focus) scroller.current?.focus();
  };
  const move = (rowStep: number, columnStep: number) => {
    const row = Math.min(ids.length - 1, Math.max(0, at.row + rowStep));
    const column = Math.min(variables.length - 1, Math.max(0, at.column + columnStep));
    setAt({ row, column });
    rows.scrollToIndex(row);
  };
  const keys: Record<string, () => void> = {
    ArrowDown: () => move(1, 0),
    ArrowUp: () => move(-1, 0),
    ArrowRight: () => move(0, 1),
    ArrowLeft: () => move(0, -1),
    PageDown: () => move(15, 0),
    PageUp: () => move(-15, 0),
    Home: () => move(-ids.length, 0),
    End: () => move(ids.length, 0),
    Enter: () => setEditing(variables[at.column] !== undefined && !variables[at.column]!.derived),
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const act = keys[event.key];
    if (editing || !act || event.target !== scroller.current) return;
    event.preventDefault();
    act();
  };
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label={respondentsPageTexts.respondentsBackground}
      aria-rowcount={ids.length + 1}
      aria-colcount={variables.length + lead}
      aria-activedescendant={ids.length > 0 ? `cell-${at.row}-${at.column}` : undefined}
      tabIndex={0}
      onKeyDown={onKeyDown}
      className="list overflow-x-auto rounded border border-rule bg-card -outline-offset-2"
    >
      <div className="min-w-max">
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-10 grid border-b border-rule bg-card"
          style={{ gridTemplateColumns: template, height: ROW }}
        >
          <Head name={respondentsPageTexts.id} sort="id" order={order} setOrder={setOrder} />
          {study.weighted && (
            <span role="columnheader" className="px-3 py-2 text-right text-soft">
              {respondentsPageTexts.weight}
            </span>
          )}
          {variables.map((variable) => (
            <Head
              key={variable.id}
              name={variable.name}
              sort={variable.id}
              order={order}
              setOrder={setOrder}
              variable={variable}
            />
          ))}
        </div>
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {items.map((item) => (
            <Row
              // what leaves the view at one end is drawn again at the other
              key={item.index % items.length}
              study={study}
              respondent={known.get(ids[item.index]!)}
              index={item.index}
              top={item.start}
              template={template}
              at={item.index === at.row ? at.column : null}
              editing={editing && item.index === at.row}
              onPlace={(column) => {
                const again = at.row === item.index && at.column === column;
                setAt({ row: item.index, column });
                setEditing(again && !variables[column]!.derived);
              }}
              onStop={stop}
            />
          ))}
        </div>
      </div>
    </div>
  );
}

function Head({
  name,
  sort,
  order,
  setOrder,
  variable,
}: {
  name: string;
  sort: RespondentOrder['sort'];
  order: RespondentOrder;
  setOrder: (order: RespondentOrder) => void;
  variable?: Variable;
}) {
  const openDrawer = useDrawer();
  const study = useStudyDetail();
  const sorted = order.sort === sort;
  const Arrow = order.descending ? ArrowDown : ArrowUp;
  return (
    <span
      role="columnheader"
      aria-sort={sorted ? (order.descending ? 'descending' : 'ascending') : 'none'}
      className={`flex min-w-0 items-center gap-1 px-3 ${variable ? '' : 'sticky left-0 border-r border-rule bg-card'} ${variable?.kind === 'number' ? 'justify-end' : ''}`}
    >
      <button
        type="button"
        title={respondentsPageTexts.sort(name)}
        className="flex min-h-6 min-w-0 items-center gap-1 text-soft hover:text-ink"
        onClick={() => setOrder({ ...order, sort, descending: sorted && !order.descending })}
      >
        <span className="truncate">{name}</span>
        {sorted && <Arrow size={13} aria-hidden className="shrink-0" />}
      </button>
      {variable && (
        <button
          type="button"
          aria-label={respondentsPageTexts.about(name)}
          title={respondentsPageTexts.aboutNameCategoriesBands(name)}
          className="min-h-6 min-w-6 shrink-0 rounded p-1 text-soft hover:bg-wash hover:text-ink"
          onClick={() =>
            openDrawer({
              title: name,
              body: <VariableDrawer key={variable.id} study={study.id} id={variable.id} />,
            })
          }
        >
          <Settings2 size={14} aria-hidden />
        </button>
      )}
    </span>
  );
}

function Row({
  study,
  respondent,
  index,
  top,
  template,
  at,
  editing,
  onPlace,
  onStop,
}: {
  study: StudyDetail;
  /** Not there yet while it is fetched. */
  respondent: RespondentRow | undefined;
  index: number;
  top: number;
  template: string;
  at: number | null;
  editing: boolean;
  onPlace: (column: number) => void;
  onStop: (focus: boolean) => void;
}) {
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute inset-x-0 grid border-b border-rule"
      style={{ gridTemplateColumns: template, height: ROW, transform: `translateY(${top}px)` }}
    >
      <span
        role="rowheader"
        className="sticky left-0 truncate border-b border-r border-rule bg-card px-3 py-2 font-medium"
      >
        {respondent?.externalId ?? ''}
      </span>
      {study.weighted && (
        <span role="gridcell" className="figures px-3 py-2 text-right text-soft">
          {respondent ? asNumber(respondent.weight ?? 1) : ''}
        </span>
      )}
      {study.variables.map((variable, v) => (
        <span
          key={variable.id}
          id={`cell-${index}-${v}`}
          role="gridcell"
          aria-selected={at === v}
          className={`min-w-0 truncate px-3 py-2 ${variable.kind === 'number' ? 'figures text-right' : ''} ${at === v ? 'bg-wash outline outline-1 -outline-offset-1 outline-thread' : ''}`}
          onClick={() => onPlace(v)}
        >
          {respondent &&
            (editing && at === v ? (
              <ValueEditor
                study={study.id}
                respondent={respondent}
                variable={variable}
                onStop={onStop}
              />
            ) : (
              nameIn(variable, respondent.background)
            ))}
        </span>
      ))}
    </div>
  );
}
