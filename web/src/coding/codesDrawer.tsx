import { foldForSearch } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDrawnCodebook, type DrawnCode } from '../data/codebook.js';
import { useCode } from '../data/coding.js';
import { useSession } from '../data/people.js';
import { inputBox } from '../parts/field.js';
import { Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import { useDraggable, useDropTarget, useMergedRefs, type Dragged } from '../parts/dragAndDrop.js';
import { mentionByHand } from './answerPlace.js';
import { codesDrawerTexts } from './texts.js';

/** The codebook beside the ledger: to look a code up, and to drag one onto a line. */
export function CodesDrawer({ study, question }: { study: number; question: number }) {
  const change = useCode(study, question);
  const account = useSession().data?.account?.id ?? 0;
  const codebook = useDrawnCodebook(study);
  const [typed, setTyped] = useState('');
  if (!codebook) return <Waiting what={codesDrawerTexts.codebook} />;
  const wanted = foldForSearch(typed);
  const codes = codebook.codes.filter(
    (code) =>
      !code.archived &&
      foldForSearch(`${code.name} ${code.themeName ?? ''} ${code.definition}`).includes(wanted),
  );
  const themes = [...codebook.themes, null];
  return (
    <div className="flex flex-col gap-4">
      <input
        aria-label={codesDrawerTexts.findCode}
        placeholder={codesDrawerTexts.findCode2}
        className={inputBox}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {themes.map((theme) => {
        const its = codes.filter((code) => code.themeId === (theme?.id ?? null));
        if (its.length === 0) return null;
        return (
          <section key={theme?.id ?? ''} aria-label={theme?.name ?? codesDrawerTexts.withoutTheme}>
            <h2
              className="flex items-baseline justify-between border-b border-rule pb-1"
              style={theme ? { color: theme.look.ink } : undefined}
            >
              {theme?.name ?? codesDrawerTexts.withoutTheme}
              {theme && <span className="figures text-[13px] text-soft">{theme.people}</span>}
            </h2>
            <ul>
              {its.map((code) => (
                <DraggedCode
                  key={code.id}
                  study={study}
                  code={code}
                  onWords={(words) =>
                    change({
                      do: 'add',
                      toSame: false,
                      mention: mentionByHand(
                        { responseId: words.responseId, codeId: code.id, coderId: account },
                        words,
                      ),
                    })
                  }
                />
              ))}
            </ul>
          </section>
        );
      })}
      <p className="text-[13px] text-soft">{codesDrawerTexts.dragCodeOntoLine}</p>
    </div>
  );
}

function DraggedCode({
  study,
  code,
  onWords,
}: {
  study: number;
  code: DrawnCode;
  /** Marked words were dropped on the code. */
  onWords: (words: Dragged['words']) => void;
}) {
  const dragged = useDraggable('code', { codeId: code.id });
  const [target, isOver] = useDropTarget('words', onWords);
  return (
    <li
      ref={useMergedRefs(dragged, target)}
      className={`cursor-grab py-1 ${isOver ? 'bg-wash' : ''}`}
    >
      <span className="flex items-baseline gap-2">
        <StitchMark look={code.look} width={18} />
        <Link to={`/studies/${study}/codebook?code=${code.id}`} className="min-w-0 flex-1 truncate">
          {code.name}
        </Link>
        <span className="figures text-[13px] text-soft">{code.people}</span>
      </span>
      {code.definition && <span className="block text-[13px] text-soft">{code.definition}</span>}
    </li>
  );
}
