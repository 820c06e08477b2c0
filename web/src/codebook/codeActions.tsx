import { useState } from 'react';
import { useNavigate } from 'react-router';
import {
  useChangeCodebook,
  useCodeImpact,
  type CodebookChange,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { CodePicker } from '../studyParts/codePicker.js';
import { codeActionsTexts } from './texts.js';

type CodeAction = { do: 'merge'; into: DrawnCode } | { do: 'remove' };

/** Merging, splitting, moving aside and removing; what would be affected is said in numbers first. */
export function CodeActions({
  study,
  code,
  codebook,
  onGone,
}: {
  study: number;
  code: DrawnCode;
  codebook: DrawnCodebook;
  onGone: () => void;
}) {
  const change = useChangeCodebook(study);
  const navigate = useNavigate();
  const [deed, setDeed] = useState<CodeAction | null>(null);
  const does = (what: CodebookChange, goes: boolean) =>
    change.mutate(what, {
      onSuccess: () => {
        setDeed(null);
        if (goes) onGone();
      },
    });
  return (
    <section
      aria-label={codeActionsTexts.what}
      className="flex flex-col gap-3 border-t border-rule pt-4"
    >
      <div className="flex flex-wrap items-center gap-2">
        <CodePicker
          label={codeActionsTexts.mergeInto}
          placeholder={codeActionsTexts.mergeInto2}
          codes={codebook.codes.filter((one) => one.id !== code.id)}
          onPick={(into) => setDeed({ do: 'merge', into })}
        />
        <Button
          disabled={code.mentions < 2}
          onClick={() => void navigate(`/studies/${study}/codebook/split/${code.id}`)}
        >
          {codeActionsTexts.split}
        </Button>
        <Button onClick={() => does({ do: 'codeToTheme', id: code.id }, code.mentions === 0)}>
          {codeActionsTexts.makeTheme}
        </Button>
        <Button
          onClick={() =>
            does(
              {
                do: 'editCode',
                id: code.id,
                edit: { from: { archived: code.archived }, to: { archived: !code.archived } },
              },
              false,
            )
          }
        >
          {code.archived ? codeActionsTexts.bringBack : codeActionsTexts.archive}
        </Button>
        <Button look="grave" onClick={() => setDeed({ do: 'remove' })}>
          {codeActionsTexts.remove}
        </Button>
      </div>
      {change.isError && <ProblemNote error={change.error} />}
      {deed && (
        <Impact study={study} code={code} deed={deed}>
          <Button
            look={deed.do === 'remove' ? 'grave' : 'main'}
            onClick={() =>
              does(
                deed.do === 'merge'
                  ? { do: 'mergeCode', id: code.id, into: deed.into.id }
                  : { do: 'removeCode', code },
                true,
              )
            }
          >
            {deed.do === 'merge'
              ? codeActionsTexts.mergeInto3(deed.into.name)
              : codeActionsTexts.remove2(code.name)}
          </Button>
          <Button look="bare" onClick={() => setDeed(null)}>
            {codeActionsTexts.cancel}
          </Button>
        </Impact>
      )}
    </section>
  );
}

/** What a merge or removal would do, in numbers. */
function Impact({
  study,
  code,
  deed,
  children,
}: {
  study: number;
  code: DrawnCode;
  deed: CodeAction;
  children: React.ReactNode;
}) {
  const impact = useCodeImpact(study, code.id, deed.do === 'merge' ? deed.into.id : null);
  if (impact.isError) return <ProblemNote error={impact.error} />;
  if (!impact.data) return <p className="text-soft">{codeActionsTexts.countingWhatHangs}</p>;
  const { mentions, people, double, suggestions } = impact.data;
  const hanging = codeActionsTexts.by(
    codeActionsTexts.mentionCounted(mentions),
    codeActionsTexts.peopleCounted(people),
  );
  return (
    <div role="status" className="flex flex-col gap-2 rounded border border-rule bg-card p-4">
      <p>
        {deed.do === 'merge'
          ? codeActionsTexts.goOverGoneText(hanging, deed.into.name, code.name)
          : codeActionsTexts.goesAnswersStaySettled(code.name, hanging)}
        {double > 0 && codeActionsTexts.wouldStandTwiceSame(double)}
        {suggestions > 0 && codeActionsTexts.noLongerOffered(suggestions)}{' '}
        {codeActionsTexts.ctrlZTakesBack}
      </p>
      <div className="flex gap-2">{children}</div>
    </div>
  );
}
