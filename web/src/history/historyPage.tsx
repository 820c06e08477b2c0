import { useDrawnCodebook } from '../data/codebook.js';
import { useMembers } from '../data/people.js';
import { useHistory } from '../data/studies.js';
import { useAddressPart } from '../frame/address.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { ChangeList } from './changeList.js';
import { historyPageTexts } from './texts.js';

/** What was changed in a study, when and by whom; of one code, or by one person. */
export function HistoryPage() {
  const study = useStudyDetail();
  const codebook = useDrawnCodebook(study.id);
  const members = useMembers(study.id).data?.members ?? [];
  const { undo, redo } = useHistory(study.id);
  const [code, setCode] = useAddressPart('code');
  const [by, setBy] = useAddressPart('by');
  const person = Number(by);
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-4 flex max-w-4xl flex-wrap items-center justify-between gap-4">
        <h1>{historyPageTexts.history}</h1>
        <span className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <Choice
            label={historyPageTexts.about}
            value={code ?? ''}
            onChange={(event) => setCode(event.target.value)}
          >
            <option value="">{historyPageTexts.everything}</option>
            {codebook?.codes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
          {members.length > 1 && (
            <Choice
              label={historyPageTexts.by}
              value={by ?? ''}
              onChange={(event) => setBy(event.target.value)}
            >
              <option value="">{historyPageTexts.anybody}</option>
              {members.map((member) => (
                <option key={member.id} value={member.id}>
                  {member.name}
                </option>
              ))}
            </Choice>
          )}
          <Button onClick={undo}>{historyPageTexts.undoMyLast}</Button>
          <Button onClick={redo}>{historyPageTexts.redo}</Button>
        </span>
      </header>
      <p className="mb-4 max-w-prose text-soft">{historyPageTexts.everybodyUndoesOwnChanges}</p>
      <ChangeList study={study.id} {...(code && { code })} {...(person > 0 && { by: person })} />
    </main>
  );
}
