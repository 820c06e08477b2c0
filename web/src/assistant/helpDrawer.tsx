import type { AnswerHelp, LedgerAnswer } from '@yellow-thread/contract';
import type { Span } from '@yellow-thread/core/text';
import { useEffect, useRef, useState } from 'react';
import { useAnswerHelp } from '../data/assistant.js';
import type { SeenCode, SeenCodebook } from '../data/codebook.js';
import { isKeyAlone } from '../frame/typing.js';
import { asChoice } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import { ExplainTerm } from './explainTerm.js';
import { helpDrawerTexts as texts } from './texts.js';

const MOST_NUMBERED = 9;

interface Offer {
  passage: Span;
  code: SeenCode;
  fits: AnswerHelp['passages'][number]['codes'][number];
}

/** What may help with an answer that is hard to code: what it says, and codes that may fit, each with its reasons. */
export function HelpDrawer({
  study,
  answer,
  codebook,
  onGive,
}: {
  study: number;
  answer: LedgerAnswer;
  codebook: SeenCodebook;
  onGive: (codeId: string, passage: Span) => void;
}) {
  const help = useAnswerHelp(study, answer.id);
  const [given, setGiven] = useState<ReadonlySet<string>>(new Set());
  const offers = (help.data?.passages ?? []).flatMap(({ codes, ...passage }) =>
    codes.flatMap((fits): Offer[] => {
      const code = codebook.byId.get(fits.codeId);
      return code ? [{ passage, code, fits }] : [];
    }),
  );
  const keyOf = ({ passage, code }: Offer) => `${passage.start} ${code.id}`;
  const isGiven = (offer: Offer) =>
    given.has(keyOf(offer)) ||
    answer.mentions.some(
      ({ codeId, start }) => codeId === offer.code.id && start === offer.passage.start,
    );
  const give = (offer: Offer) => {
    if (isGiven(offer)) return;
    onGive(offer.code.id, offer.passage);
    setGiven(new Set(given).add(keyOf(offer)));
  };
  const press = useRef<(digit: number) => void>(() => {});
  useEffect(() => {
    press.current = (digit) => {
      const offer = offers[digit - 1];
      if (offer) give(offer);
    };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      const isHere = target instanceof Element && target.closest('[role=dialog]') !== null;
      if (!isHere || target instanceof HTMLInputElement || !isKeyAlone(event)) return;
      if (!/^[1-9]$/u.test(event.key)) return;
      event.preventDefault();
      press.current(Number(event.key));
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  if (help.isError) return <ProblemNote error={help.error} />;
  if (!help.data) return <Waiting what={texts.help} />;
  const { passages, compared, isMeaning, assistant } = help.data;
  return (
    <div className="flex flex-col gap-5">
      <WhatItSays text={answer.text} help={help.data} />
      <section aria-label={texts.codes}>
        <h3 className="border-b border-rule pb-1 font-semibold">{texts.codes}</h3>
        {offers.length === 0 && <p className="mt-1 text-soft">{texts.none}</p>}
        {passages.map(({ start, end }) => (
          <div key={start} className="border-b border-rule py-2">
            <blockquote className="voice">{answer.text.slice(start, end)}</blockquote>
            <ul className="mt-1 flex flex-col gap-1.5">
              {offers
                .map((offer, o) => ({ offer, number: o + 1 }))
                .filter(({ offer }) => offer.passage.start === start)
                .map(({ offer, number }) => (
                  <OfferRow
                    key={offer.code.id}
                    offer={offer}
                    number={number <= MOST_NUMBERED ? number : null}
                    compared={compared}
                    isGiven={isGiven(offer)}
                    onGive={() => give(offer)}
                  />
                ))}
            </ul>
          </div>
        ))}
        {offers.length > 0 && <p className="mt-2 text-[13px] text-soft">{texts.keys}</p>}
      </section>
      <details>
        <summary>{texts.explain}</summary>
        <div className="mt-2">
          <ExplainTerm study={study} />
        </div>
      </details>
      <p className="text-[13px] text-soft">{texts.from(assistant, compared, isMeaning)}</p>
    </div>
  );
}

/** Its gist, its words, and what in it bears on the study. */
function WhatItSays({ text, help }: { text: string; help: AnswerHelp }) {
  const { gist, misspelt, terms, bearing } = help;
  const said = ({ start, end }: Span) => text.slice(start, end);
  return (
    <>
      {gist && (
        <section aria-label={texts.gist}>
          <h3 className="border-b border-rule pb-1 font-semibold">{texts.gist}</h3>
          <blockquote className="voice mt-1">{said(gist)}</blockquote>
          <p className="text-[13px] text-soft">{texts.gistWhy}</p>
        </section>
      )}
      {misspelt.length + terms.length > 0 && (
        <section aria-label={texts.words}>
          <h3 className="border-b border-rule pb-1 font-semibold">{texts.words}</h3>
          <ul className="mt-1 flex flex-col gap-1">
            {misspelt.map((one) => (
              <li key={one.start}>
                <span className="font-serif text-[16px]">{said(one)}</span>{' '}
                <span className="text-soft">{texts.perhaps(asChoice(one.suggestions))}</span>
              </li>
            ))}
            {terms.map((one) => (
              <li key={one.start}>
                <span className="font-serif text-[16px]">{said(one)}</span>{' '}
                <span className="text-soft">{one.meaning}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {bearing.length > 0 && (
        <section aria-label={texts.bearing}>
          <h3 className="border-b border-rule pb-1 font-semibold">{texts.bearing}</h3>
          {bearing.map((one) => (
            <div key={one.on} className="mt-1">
              <blockquote className="voice">{said(one)}</blockquote>
              <p className="text-[13px] text-soft">{texts.on[one.on]}</p>
            </div>
          ))}
        </section>
      )}
    </>
  );
}

/** A code that may fit a line, with what it was given to before. */
function OfferRow({
  offer: { code, fits },
  number,
  compared,
  isGiven,
  onGive,
}: {
  offer: Offer;
  number: number | null;
  compared: number;
  isGiven: boolean;
  onGive: () => void;
}) {
  return (
    <li>
      <span className="flex items-center gap-2">
        {number !== null && <kbd>{number}</kbd>}
        <StitchMark look={code.look} width={18} />
        <span className="min-w-0 flex-1 break-words font-medium" style={{ color: code.look.ink }}>
          {code.name}
        </span>
        {isGiven ? (
          <span className="text-[13px] text-soft">{texts.given}</span>
        ) : (
          <Button className="!px-2 !py-0.5" aria-label={texts.giveCode(code.name)} onClick={onGive}>
            {texts.give}
          </Button>
        )}
      </span>
      <span className="figures block text-[13px] text-soft">
        {texts.share(fits.share, compared)}
      </span>
      {fits.reasons.map(({ responseId, text }) => (
        <q key={`${responseId} ${text}`} className="block font-serif text-[15px] text-soft">
          {text}
        </q>
      ))}
    </li>
  );
}
