import type { Question, StudyDetail } from '@yellow-thread/contract';
import { FileText } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { asProblem } from '../data/client.js';
import { useRestriction } from '../data/restriction.js';
import { usePutTable, useWriteUps } from '../data/writeUps.js';
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
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-2.5 py-1 font-medium hover:border-soft">
        <FileText size={15} aria-hidden /> Write up
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 max-h-80 w-72 overflow-y-auto rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
        >
          <DropdownMenu.Item className={item} onSelect={() => into(null)}>
            This table in a new write-up
          </DropdownMenu.Item>
          {writeUps
            .filter(({ frozenAt }) => frozenAt === null)
            .map(({ id, name }) => (
              <DropdownMenu.Item key={id} className={item} onSelect={() => into(id)}>
                This table in “{name}”
              </DropdownMenu.Item>
            ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item
            className={item}
            onSelect={() => void navigate(`/studies/${study.id}/write-ups`)}
          >
            All write-ups
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const item = 'cursor-pointer rounded px-3 py-1 outline-none data-[highlighted]:bg-wash';
