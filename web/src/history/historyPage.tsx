import { useDrawnCodebook } from '../data/codebook.js';
import { useMembers } from '../data/people.js';
import { useHistory } from '../data/studies.js';
import { useAddress } from '../frame/address.js';
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
  const [search, changeAddress] = useAddress();
  const code = search.get('code') ?? '';
  const by = Number(search.get('by')) || 0;
  const choose = (name: string, value: string) =>
    changeAddress((next) => {
      if (value === '' || value === '0') next.delete(name);
      else next.set(name, value);
      return next;
    });
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-4 flex max-w-4xl flex-wrap items-center justify-between gap-4">
        <h1>{historyPageTexts.history}</h1>
        <span className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <Choice
            label={historyPageTexts.about}
            value={code}
            onChange={(event) => choose('code', event.target.value)}
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
              value={by}
              onChange={(event) => choose('by', event.target.value)}
            >
              <option value={0}>{historyPageTexts.anybody}</option>
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
      <ChangeList study={study.id} {...(code && { code })} {...(by > 0 && { by })} />
    </main>
  );
}
