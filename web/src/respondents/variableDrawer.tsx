import type { Band, ByRule, VariableDetail } from '@yellow-thread/contract';
import { ruleSentence } from '@yellow-thread/core/groups';
import { useRuleNames } from '../data/groups.js';
import {
  useChangeCategories,
  useRemoveVariable,
  useRenameVariable,
  useVariable,
} from '../data/respondents.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { EditedText } from '../parts/editedText.js';
import { moved, MoveButtons } from '../parts/moveButtons.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { BandMaker } from './bandMaker.js';
import { variableDrawerTexts } from './texts.js';

const kinds = {
  category: 'category',
  number: 'number',
  date: 'date',
  yes_no: variableDrawerTexts.yesNo,
};

/** A background variable: its name, what its categories are called and in which order, bands of it. */
export function VariableDrawer({ study, id }: { study: number; id: number }) {
  const { data, error } = useVariable(study, id);
  const rename = useRenameVariable(study, id);
  const remove = useRemoveVariable(study, id);
  const openDrawer = useDrawer();
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting what={variableDrawerTexts.variable} />;
  return (
    <div className="flex flex-col gap-6">
      <EditedText
        label={variableDrawerTexts.name}
        value={data.name}
        rows={1}
        maxLength={500}
        required
        hint={about(data)}
        onSave={(_, name) => rename.mutate(name)}
      />
      {rename.error && <ProblemNote error={rename.error} />}
      {data.kind === 'category' && !data.derived && data.categories.length > 0 && (
        <Categories study={study} variable={data} />
      )}
      {data.derived && (
        <section>
          {'bands' in data.derived ? (
            <Bands bands={data.derived.bands} />
          ) : (
            <ByRules study={study} by={data.derived} categories={data.categories} />
          )}
          <Button
            className="mt-3"
            disabled={remove.isPending}
            onClick={() => remove.mutate(undefined, { onSuccess: () => openDrawer(null) })}
          >
            {variableDrawerTexts.removeVariable}
          </Button>
          {remove.error && <ProblemNote error={remove.error} />}
        </section>
      )}
      {(data.kind === 'number' || data.kind === 'date') && (
        <BandMaker study={study} variable={data} />
      )}
    </div>
  );
}

const Bands = ({ bands }: { bands: readonly Band[] }) => (
  <>
    <h3 className="font-semibold">{variableDrawerTexts.bands2}</h3>
    <ul>
      {bands.map((band) => (
        <li key={band.label} className="border-b border-rule py-1">
          {band.label}
          <span className="text-soft">
            {band.from === null
              ? variableDrawerTexts.everythingBelow
              : variableDrawerTexts.from(band.from)}
          </span>
        </li>
      ))}
    </ul>
  </>
);

/** Categories with the rule that each is made by, and how many are in it now. */
function ByRules({
  study,
  by,
  categories,
}: {
  study: number;
  by: ByRule;
  categories: VariableDetail['categories'];
}) {
  const names = useRuleNames(study);
  // to mention and not to mention: nobody is in both
  const areMentions = by.rules.every(({ rule }) => rule.is === 'mentions');
  const meaning = (label: string): string => {
    const rules = by.rules.filter((one) => one.label === label);
    if (label === by.inSeveral) return variableDrawerTexts.several;
    if (label === by.inNone) return variableDrawerTexts.none;
    return names ? rules.map(({ rule }) => ruleSentence(rule, names)).join('; or ') : '…';
  };
  return (
    <>
      <h3 className="font-semibold">{variableDrawerTexts.categories}</h3>
      <p className="text-[13px] text-soft">
        {variableDrawerTexts.whoWhichFollowsRule}
        {by.inSeveral === null && !areMentions && variableDrawerTexts.whoSeveralCountsFirst}
      </p>
      <ul className="mt-2">
        {categories.map(({ label, count }) => (
          <li key={label} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <span className="min-w-0 flex-1">
              {label}
              <span className="block text-[13px] text-soft">{meaning(label)}</span>
            </span>
            <span className="figures text-soft">{asCount(count)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What kind a variable is, and what its values run from and to. */
function about({ derived, kind, stated, lowest, highest }: VariableDetail): string {
  const ranges = kind === 'number' || kind === 'date';
  const range = ranges && lowest !== null ? variableDrawerTexts.fromTo(lowest, highest) : '';
  const how = derived && ('bands' in derived ? 'bands' : variableDrawerTexts.workedOutRules);
  return variableDrawerTexts.stated(how, kinds[kind], stated, range);
}

function Categories({ study, variable }: { study: number; variable: VariableDetail }) {
  const { mutate: save, error } = useChangeCategories(study, variable.id);
  const { categories } = variable;
  const alike = (label: string) => categories.filter((one) => one.label === label).length > 1;
  return (
    <section>
      <h3 className="font-semibold">{variableDrawerTexts.categories}</h3>
      <p className="text-[13px] text-soft">{variableDrawerTexts.reportsFollowOrderNames}</p>
      <ul className="mt-2">
        {categories.map((category, c) => (
          <li key={category.value} className="flex items-center gap-2 border-b border-rule py-1.5">
            <MoveButtons
              what={category.label}
              index={c}
              count={categories.length}
              onMove={(from, to) => save(moved(categories, from, to))}
            />
            <span className="flex min-w-0 flex-1 flex-col">
              <input
                // what is being typed stays, unless this very name is changed
                key={category.label}
                aria-label={variableDrawerTexts.whatCalled(category.value)}
                list="category-labels"
                maxLength={120}
                defaultValue={category.label}
                className="w-full rounded border border-transparent px-1.5 py-0.5 hover:border-rule focus:border-rule"
                onBlur={(event) => {
                  const label = event.target.value.trim();
                  if (label && label !== category.label)
                    save(categories.with(c, { ...category, label }));
                }}
                onKeyDown={(event) => {
                  if (event.key === 'Enter') event.currentTarget.blur();
                }}
              />
              {category.label !== category.value && (
                <span className="px-1.5 text-[12px] text-soft">
                  {variableDrawerTexts.sheet(alike(category.label), category.value)}
                </span>
              )}
            </span>
            <span className="figures text-soft">{asCount(category.count)}</span>
          </li>
        ))}
      </ul>
      <datalist id="category-labels">
        {[...new Set(categories.map((one) => one.label))].map((label) => (
          <option key={label} value={label} />
        ))}
      </datalist>
      {error && <ProblemNote error={error} />}
    </section>
  );
}
