import type { CountedGroup, GroupFields, StudyDetail } from '@yellow-thread/contract';
import { ruleSubject } from '@yellow-thread/core/groups';
import { Plus } from 'lucide-react';
import { useAddressPart } from '../frame/address.js';
import { restrictTo, useGroups, useRemoveGroup, useRuleNames } from '../data/groups.js';
import { useRestriction } from '../data/restriction.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { Button } from '../parts/button.js';
import { EmptyState, PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { GroupEditor } from './groupEditor.js';
import { Size } from './size.js';
import { VariableMaker } from './variableMaker.js';
import { groupsPageTexts } from './texts.js';

const blank: GroupFields = { name: '', description: '', rule: { is: 'all_of', rules: [] } };

/** Groups: saved rules that pick respondents, always up to date. */
export function GroupsPage() {
  const study = useStudyDetail();
  const groups = useGroups(study.id);
  const openDrawer = useDrawer();
  const [edited, edit] = useAddressPart('edit');
  if (groups.isError) return <PageProblem error={groups.error} />;
  if (!groups.data) return <Waiting what={groupsPageTexts.groups} />;
  const { respondents, groups: list } = groups.data;
  const isNew = edited !== null && !list.some(({ id }) => id === edited);
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-5 flex items-end justify-between gap-6">
        <div>
          <h1>{groupsPageTexts.groups2}</h1>
          <p className="max-w-prose text-soft">{groupsPageTexts.groupRuleWhoBelongs}</p>
        </div>
        <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <SaveStatus />
          <Button
            onClick={() =>
              openDrawer({
                title: groupsPageTexts.newVariable,
                body: <VariableMaker study={study} groups={list} />,
              })
            }
          >
            {groupsPageTexts.makeVariable}
          </Button>
          <Button look="main" disabled={isNew} onClick={() => edit(crypto.randomUUID())}>
            <Plus size={15} aria-hidden /> {groupsPageTexts.newGroup}
          </Button>
        </span>
      </header>
      {isNew && (
        <GroupEditor
          key={edited}
          study={study}
          id={edited}
          group={blank}
          onClose={() => edit(null)}
        />
      )}
      {list.length === 0 && !isNew && (
        <EmptyState title={groupsPageTexts.noGroupsYet}>
          <p>{groupsPageTexts.groupsCompareKindsRespondents}</p>
        </EmptyState>
      )}
      <ul className="max-w-[980px]">
        {list.map((group) =>
          group.id === edited ? (
            <li key={group.id}>
              <GroupEditor study={study} id={group.id} group={group} onClose={() => edit(null)} />
            </li>
          ) : (
            <GroupRow
              key={group.id}
              study={study}
              group={group}
              of={respondents}
              onEdit={() => edit(group.id)}
            />
          ),
        )}
      </ul>
    </main>
  );
}

function GroupRow({
  study,
  group,
  of,
  onEdit,
}: {
  study: StudyDetail;
  group: CountedGroup;
  of: number;
  onEdit: () => void;
}) {
  const names = useRuleNames(study.id);
  const remove = useRemoveGroup(study.id);
  const within = useRestriction(study.id);
  const isWithin = within === group.id;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_150px_auto] items-baseline gap-x-6 gap-y-2 border-b border-rule py-3 max-[760px]:grid-cols-1">
      <div className="min-w-0">
        <h2 className={isWithin ? 'inline border-b-2 border-thread' : ''}>{group.name}</h2>
        <p className="text-soft">{names ? `${ruleSubject(group.rule, names)}.` : '…'}</p>
        {group.description && <p className="mt-0.5">{group.description}</p>}
        {remove.error && <ProblemNote error={remove.error} />}
      </div>
      <Size people={group.people} of={of} />
      <span className="flex flex-wrap gap-1">
        <Button
          look="bare"
          aria-pressed={isWithin}
          onClick={() => restrictTo(study.id, isWithin ? null : group.id)}
        >
          {isWithin ? groupsPageTexts.lookEverybody : groupsPageTexts.lookOnly}
        </Button>
        <Button look="bare" onClick={onEdit} aria-label={groupsPageTexts.change2(group.name)}>
          {groupsPageTexts.change}
        </Button>
        <Button
          look="bare"
          aria-label={groupsPageTexts.remove2(group.name)}
          onClick={() =>
            remove.mutate(group.id, {
              onSuccess: () => {
                if (isWithin) restrictTo(study.id, null);
              },
            })
          }
        >
          {groupsPageTexts.remove}
        </Button>
      </span>
    </li>
  );
}
