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
import { counted } from '../parts/numbers.js';
import { CodePicker } from '../parts/codePicker.js';

type Deed = { do: 'merge'; into: DrawnCode } | { do: 'remove' };

/** Merging, splitting, moving aside and removing; what would be affected is said in numbers first. */
export function CodeDeeds({
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
  const [deed, setDeed] = useState<Deed | null>(null);
  const does = (what: CodebookChange, goes: boolean) =>
    change.mutate(what, {
      onSuccess: () => {
        setDeed(null);
        if (goes) onGone();
      },
    });
  return (
    <section
      aria-label="What to do with it"
      className="flex flex-col gap-3 border-t border-rule pt-4"
    >
      <div className="flex flex-wrap items-center gap-2">
        <CodePicker
          label="Merge into"
          placeholder="merge into …"
          codes={codebook.codes.filter((one) => one.id !== code.id)}
          onPick={(into) => setDeed({ do: 'merge', into })}
        />
        <Button
          disabled={code.mentions < 2}
          onClick={() => void navigate(`/studies/${study}/codebook/split/${code.id}`)}
        >
          Split …
        </Button>
        <Button onClick={() => does({ do: 'codeToTheme', id: code.id }, code.mentions === 0)}>
          Make it a theme
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
          {code.archived ? 'Bring back' : 'Archive'}
        </Button>
        <Button look="grave" onClick={() => setDeed({ do: 'remove' })}>
          Remove …
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
            {deed.do === 'merge' ? `Merge into “${deed.into.name}”` : `Remove “${code.name}”`}
          </Button>
          <Button look="bare" onClick={() => setDeed(null)}>
            Cancel
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
  deed: Deed;
  children: React.ReactNode;
}) {
  const impact = useCodeImpact(study, code.id, deed.do === 'merge' ? deed.into.id : null);
  if (impact.isError) return <ProblemNote error={impact.error} />;
  if (!impact.data) return <p className="text-soft">Counting what hangs on it …</p>;
  const { mentions, people, double, suggestions } = impact.data;
  const hanging = `${counted(mentions, 'mention')} by ${counted(people, 'person', 'people')}`;
  return (
    <div role="status" className="flex flex-col gap-2 rounded border border-rule bg-card p-4">
      <p>
        {deed.do === 'merge'
          ? `${hanging} go over to “${deed.into.name}”, and “${code.name}” is gone. The text of “${deed.into.name}” stays.`
          : `“${code.name}” goes with ${hanging}. Answers stay settled as they are.`}
        {double > 0 &&
          ` ${counted(double, 'mention')} would stand twice at the same place and become one.`}
        {suggestions > 0 &&
          ` ${counted(suggestions, 'open suggestion')} of it ${suggestions === 1 ? 'is' : 'are'} no longer offered.`}{' '}
        Ctrl Z takes it back as one.
      </p>
      <div className="flex gap-2">{children}</div>
    </div>
  );
}
