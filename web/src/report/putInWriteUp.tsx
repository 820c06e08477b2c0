import type { Question, StudyDetail } from '@yellow-thread/contract';
import { FileText } from 'lucide-react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { asProblem } from '../lib/problem.js';
import { useMay } from '../frame/access.js';
import { useReport } from '../data/report.js';
import { useRestriction } from '../data/restriction.js';
import { usePutIn, useWriteUps, type PutIn } from '../data/writeUps.js';
import { Menu, MenuItem, MenuRule } from '../parts/menu.js';
import { useTableChoice } from './tableChoice.js';
import { putInWriteUpTexts } from './texts.js';

/** Puts the table that is shown into a write-up, a new one or one that is there. */
export function PutTableIn({ study, question }: { study: StudyDetail; question: Question }) {
  const [choice] = useTableChoice(study.variables);
  const within = useRestriction(study.id);
  const counts = useReport(study.id, question.id, choice.query).data?.counts;
  const table = () => {
    const query = new URLSearchParams(choice.query);
    // what is written about a table stays true only as long as it counts the same
    if (counts) query.set('counts', counts);
    if (within) query.set('group', within);
    return Promise.resolve({ table: { questionId: question.id, query: query.toString() } });
  };
  return (
    <PutInWriteUp study={study} question={question} name={putInWriteUpTexts.table} what={table} />
  );
}

/** Puts something of the report into a write-up, a new one or one that is there. */
export function PutInWriteUp({
  study,
  question,
  name,
  what,
}: {
  study: StudyDetail;
  question: Question;
  /** What it is called, as in "This table". */
  name: string;
  what: () => Promise<PutIn>;
}) {
  const mayWrite = useMay('research');
  const writeUps = useWriteUps(study.id).data?.writeUps ?? [];
  const put = usePutIn(study.id);
  const navigate = useNavigate();
  const into = async (writeUp: string | null) => {
    try {
      const done = await put.mutateAsync({
        writeUp,
        name: `Findings: ${question.label}`,
        what: await what(),
      });
      const open = () => void navigate(`/studies/${study.id}/write-ups/${done.id}`);
      if (writeUp === null) open();
      else
        toast(putInWriteUpTexts.putInto(done.name), {
          action: { label: putInWriteUpTexts.open, onClick: open },
        });
    } catch (error) {
      toast.error(asProblem(error).sentence);
    }
  };
  if (!mayWrite) return null;
  return (
    <Menu
      name={
        <>
          <FileText size={15} aria-hidden /> {putInWriteUpTexts.writeUp}
        </>
      }
    >
      <MenuItem name={putInWriteUpTexts.newWriteUp(name)} onSelect={() => void into(null)} />
      {writeUps
        .filter(({ frozenAt }) => frozenAt === null)
        .map((one) => (
          <MenuItem
            key={one.id}
            name={putInWriteUpTexts.in(name, one.name)}
            onSelect={() => void into(one.id)}
          />
        ))}
      <MenuRule />
      <MenuItem
        name={putInWriteUpTexts.allWriteUps}
        onSelect={() => void navigate(`/studies/${study.id}/write-ups`)}
      />
    </Menu>
  );
}
