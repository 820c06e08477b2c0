import { findCodeNamed } from '@yellow-thread/core/codebook';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import {
  useChangeCodebook,
  useDrawnCodebook,
  useMentionsOfCodes,
  type DrawnCodebook,
} from '../data/codebook.js';
import { useKeyHelp } from '../frame/keys.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';
import { EmptyState, ProblemNote, Waiting } from '../parts/notices.js';
import { Pile } from './pile.js';
import { MentionCard } from './mentionCard.js';
import { usePiles } from './usePiles.js';
import { useSimilarity } from './useSimilarity.js';
import { sortHelp } from './commands.js';
import { sortPageTexts } from './texts.js';

/** Splits one code: its mentions are sorted into others. */
export function SplitPage() {
  const id = useParams()['code'] ?? '';
  const codebook = useDrawnCodebook(useStudyDetail().id);
  if (!codebook) return <Waiting what={sortPageTexts.code} />;
  const code = codebook.byId.get(id);
  if (!code)
    return <EmptyState title={sortPageTexts.codeGone}>{sortPageTexts.mergedRemoved}</EmptyState>;
  return (
    <Sort
      key={id}
      title={sortPageTexts.split(code.name)}
      hint={sortPageTexts.nameWhatFallsInto}
      codes={[id]}
      themeId={code.themeId}
      codebook={codebook}
    />
  );
}

/** Sorts a theme into new codes: the mentions of all its codes are gathered into piles, each of which becomes a code. */
export function SortThemePage() {
  const id = useParams()['theme'] ?? '';
  const codebook = useDrawnCodebook(useStudyDetail().id);
  if (!codebook) return <Waiting what={sortPageTexts.theme} />;
  const theme = codebook.themes.find((one) => one.id === id);
  if (!theme)
    return <EmptyState title={sortPageTexts.themeGone}>{sortPageTexts.removed}</EmptyState>;
  return (
    <Sort
      key={id}
      title={sortPageTexts.sortIntoNewCodes(theme.name)}
      hint={sortPageTexts.gatherWhatSaysSame}
      codes={codebook.codes.filter((code) => code.themeId === id).map((code) => code.id)}
      themeId={id}
      codebook={codebook}
    />
  );
}

/** Mentions that are shown to be sorted at a time. */
const MOST_SHOWN = 300;

interface SortProps {
  title: string;
  hint: string;
  codes: string[];
  /** The theme that new codes go under. */
  themeId: string | null;
  codebook: DrawnCodebook;
}

/** The mentions of some codes, in order, and the piles that they are put on. */
function useSorting({
  codes,
  themeId,
  codebook,
}: Pick<SortProps, 'codes' | 'themeId' | 'codebook'>) {
  const study = useStudyDetail();
  const navigate = useNavigate();
  const change = useChangeCodebook(study.id);
  const { mentions, isPending, error } = useMentionsOfCodes(study.id, codes);
  const [piles, changePiles] = usePiles(`${study.id} ${codes.join(' ')}`);
  const [order, setOrder] = useState<'similar' | 'likeLast' | 'asImported'>('similar');
  const [last, setLast] = useState<string | null>(null);
  const onLast = mentions.flatMap(({ id }) => (last && piles.pileOf[id] === last ? [id] : []));
  const ordered = useSimilarity(study.id, codes, mentions, { order, like: onLast });
  const open = ordered.filter((one) => !piles.pileOf[one.id]);
  const sorted = mentions.filter((one) => piles.pileOf[one.id]);
  const put = (mention: string, pile: string | null) => {
    changePiles({ do: 'put', mention, pile });
    if (pile) setLast(pile);
  };
  const on = (pile: string) => sorted.filter((one) => piles.pileOf[one.id] === pile);
  const apply = () => {
    const parts = piles.piles.flatMap((pile) => {
      const its = on(pile.id).map((one) => one.id);
      const known = findCodeNamed(codebook.codes, pile.name);
      const code = { id: known?.id ?? pile.id, name: pile.name, themeId };
      return its.length > 0 ? [{ code, mentions: its }] : [];
    });
    change.mutate(
      { do: 'sort', sort: { parts } },
      {
        onSuccess: () => {
          changePiles({ do: 'forget' });
          void navigate(`/studies/${study.id}/codebook?code=${parts[0]!.code.id}`);
        },
      },
    );
  };
  return {
    mentions,
    isPending,
    error,
    piles: piles.piles,
    changePiles,
    order,
    setOrder,
    hasLast: onLast.length > 0,
    open,
    sorted,
    on,
    put,
    apply,
    change,
  };
}

type Sorting = ReturnType<typeof useSorting>;

function Sort({ title, hint, ...props }: SortProps) {
  const { codes, codebook } = props;
  const sorting = useSorting(props);
  const { mentions, open, order, piles } = sorting;
  useKeyHelp(sortHelp);
  if (sorting.error) return <ProblemNote error={sorting.error} />;
  if (sorting.isPending) return <Waiting what={sortPageTexts.whatPeopleSaid} />;
  return (
    <main className="work-list grid grid-cols-[minmax(0,1fr)_minmax(280px,380px)] grid-rows-[minmax(0,1fr)] max-[760px]:grid-cols-1 max-[760px]:grid-rows-[auto_auto]">
      <section
        aria-label={sortPageTexts.mentions}
        className="min-h-0 overflow-y-auto px-6 py-5 max-sm:px-3"
      >
        <header className="mb-3 flex max-w-3xl flex-col gap-1">
          <h1>{title}</h1>
          <p className="text-soft">{hint}</p>
          <p className="flex flex-wrap items-center justify-between gap-3">
            <span className="figures text-soft" role="status">
              {sortPageTexts.stillToSort(open.length, mentions.length)}
            </span>
            <Choice
              label={sortPageTexts.order}
              value={order}
              onChange={(event) => sorting.setOrder(event.target.value as typeof order)}
            >
              <option value="similar">{sortPageTexts.similarTogether}</option>
              <option value="likeLast" disabled={!sorting.hasLast}>
                {sortPageTexts.similarToLastPile}
              </option>
              <option value="asImported">{sortPageTexts.imported}</option>
            </Choice>
          </p>
        </header>
        <ul className="flex max-w-3xl flex-col gap-1">
          {open.slice(0, MOST_SHOWN).map((mention, place) => (
            <MentionCard
              key={mention.id}
              mention={mention}
              code={codebook.byId.get(mention.codeId)}
              showsCode={codes.length > 1}
              isFirst={place === 0}
              piles={piles}
              onPut={(pile) => sorting.put(mention.id, pile)}
            />
          ))}
        </ul>
      </section>
      <PileList sorting={sorting} codebook={codebook} />
    </main>
  );
}

/** The piles, and making codes of them. */
function PileList({ sorting, codebook }: { sorting: Sorting; codebook: DrawnCodebook }) {
  const { piles, changePiles, put, sorted, change } = sorting;
  const [name, setName] = useState('');
  const trimmed = name.trim();
  return (
    <section
      aria-label={sortPageTexts.piles}
      className="flex min-h-0 flex-col gap-3 overflow-y-auto border-l border-rule bg-card px-5 py-5 max-[760px]:border-l-0 max-[760px]:border-t"
    >
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (trimmed === '') return;
          changePiles({ do: 'add', pile: { id: crypto.randomUUID(), name: trimmed } });
          setName('');
        }}
      >
        <input
          aria-label={sortPageTexts.nameNewPile}
          placeholder={sortPageTexts.namePile}
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className={`${inputBox} min-w-0 flex-1`}
        />
        <Button type="submit" disabled={trimmed === ''}>
          {sortPageTexts.addPile}
        </Button>
      </form>
      {piles.map((pile, place) => (
        <Pile
          key={pile.id}
          pile={pile}
          number={place + 1}
          isCode={findCodeNamed(codebook.codes, pile.name) !== undefined}
          mentions={sorting.on(pile.id)}
          onPut={(mention) => put(mention, pile.id)}
          onTakeOff={(mention) => put(mention, null)}
          onRename={(to) => changePiles({ do: 'rename', pile: pile.id, name: to })}
          onRemove={() => changePiles({ do: 'remove', pile: pile.id })}
        />
      ))}
      {change.isError && <ProblemNote error={change.error} />}
      <Button
        look="main"
        className="self-start"
        disabled={sorted.length === 0 || change.isPending}
        onClick={sorting.apply}
      >
        {sortPageTexts.makeCodes(sorted.length)}
      </Button>
    </section>
  );
}

/** The words that a mention rests on. */
