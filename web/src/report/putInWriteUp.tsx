import type { Question, StudyDetail } from '@yellow-thread/contract';
import { FileText } from 'lucide-react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { asProblem } from '../data/client.js';
import { useRestriction } from '../data/restriction.js';
import { usePutTable, useWriteUps } from '../data/writeUps.js';
import { Menu, MenuItem, MenuRule } from '../parts/menu.js';
import { useTableChoice } from './tableChoice.js';

/** Puts the table that is shown into a write-up, a new one or one that is there. */
export function PutInWriteUp({ study, question }: { study: StudyDetail; question: Question }) {
  const writeUps = useWriteUps(study.id).data?.writeUps ?? [];
  const [choice] = useTableChoice(study.variables);
  const within = useRestriction(study.id);
  const put = usePutTable(study.id);
  const navigate = useNavigate();
  const into = (writeUp: string | null) => {
    const query = new URLSearchParams(choice.query);
    if (within) query.set('group', within);
    put.mutate(
      {
        writeUp,
        name: `Findings: ${question.label}`,
        questionId: question.id,
        query: query.toString(),
      },
      {
        onSuccess: ({ id, name }) => {
          const open = () => void navigate(`/studies/${study.id}/write-ups/${id}`);
          if (writeUp === null) open();
          else toast(`Put into “${name}”.`, { action: { label: 'Open it', onClick: open } });
        },
        onError: (error) => toast.error(asProblem(error).sentence),
      },
    );
  };
  return (
    <Menu
      name={
        <>
          <FileText size={15} aria-hidden /> Write up
        </>
      }
    >
      <MenuItem name="This table in a new write-up" onSelect={() => into(null)} />
      {writeUps
        .filter(({ frozenAt }) => frozenAt === null)
        .map(({ id, name }) => (
          <MenuItem key={id} name={`This table in “${name}”`} onSelect={() => into(id)} />
        ))}
      <MenuRule />
      <MenuItem
        name="All write-ups"
        onSelect={() => void navigate(`/studies/${study.id}/write-ups`)}
      />
    </Menu>
  );
}
