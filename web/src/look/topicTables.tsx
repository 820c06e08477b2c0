import type { WordNetwork } from '@yellow-thread/contract';
import { useState } from 'react';
import { Term } from '../help/term.js';
import { asCount, asNumber, asPercent, asShare } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { topicTablesTexts } from './texts.js';
import { useHitsOf } from './useHitsOf.js';

const head = 'py-1 pl-3 text-right font-normal';
const wordButton = 'min-h-6 min-w-6 break-words text-left font-serif text-[16px] hover:underline';

const wordsOf = (network: WordNetwork, topic: number): string =>
  network.topics[topic]!.words.map((word) => network.words[word]!.word).join(' ');

/** What people speak of: the words of each topic, how many people, by column, and typical answers. */
export function TopicTable({ network }: { network: WordNetwork }) {
  const { topics, columns, answered, modularity } = network;
  const openHits = useHitsOf();
  return (
    <section aria-label={topicTablesTexts.topics}>
      <h2>{topicTablesTexts.topics}</h2>
      <p className="mt-1 max-w-prose text-[13px] text-soft">
        {topicTablesTexts.topicsAbout}{' '}
        <Term of="modularity">{topicTablesTexts.modularity(asShare(modularity))}</Term>
      </p>
      <div className="overflow-x-auto">
        <table className="mt-2 w-full">
          <thead className="text-left align-bottom text-[13px] text-soft">
            <tr>
              <th className="py-1 font-normal">{topicTablesTexts.topic}</th>
              <th className={head}>
                {topicTablesTexts.people}
                <br />
                {topicTablesTexts.out(answered)}
              </th>
              {columns.map(({ label, answers }) => (
                <th key={label} className={head}>
                  {label}
                  <br />
                  {topicTablesTexts.out(answers)}
                </th>
              ))}
              <th className="py-1 pl-6 font-normal">{topicTablesTexts.typical}</th>
            </tr>
          </thead>
          <tbody className="align-top">
            {topics.map((topic, t) => (
              <tr key={topic.name} className="border-t border-rule">
                <th scope="row" className="max-w-[320px] py-1.5 text-left font-normal">
                  <button
                    type="button"
                    className={wordButton}
                    onClick={() =>
                      openHits({ title: topic.name, words: wordsOf(network, t), match: 'any' })
                    }
                  >
                    {wordsOf(network, t).replaceAll(' ', ', ')}
                  </button>
                </th>
                <td className="figures whitespace-nowrap py-1.5 pl-3 text-right">
                  {asCount(topic.answers)}{' '}
                  <span className="text-soft">{asPercent(topic.answers / answered, answered)}</span>
                </td>
                {topic.byColumn.map((count, c) => {
                  const of = columns[c]!.answers;
                  return (
                    <td
                      key={columns[c]!.label}
                      className="figures whitespace-nowrap py-1.5 pl-3 text-right"
                    >
                      {asCount(count)}{' '}
                      <span className="text-soft">
                        {of === 0 ? '–' : asPercent(count / of, of)}
                      </span>
                    </td>
                  );
                })}
                <td className="min-w-[260px] py-1.5 pl-6">
                  <Quotes answers={topic.typical} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const SHORT = 160;

/** Answers in their own words; a long one is opened out on wish. */
function Quotes({ answers }: { answers: readonly { id: number; text: string }[] }) {
  const [opened, setOpened] = useState<number | null>(null);
  return (
    <ul className="flex flex-col gap-0.5">
      {answers.map(({ id, text }) => (
        <li key={id} className="break-words font-serif text-[15px] leading-snug">
          {text.length <= SHORT || opened === id ? (
            text
          ) : (
            <button
              type="button"
              className="text-left hover:underline"
              onClick={() => setOpened(id)}
            >
              {text.slice(0, SHORT)}…
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Frequent topics that seldom meet, and what those say who join them. */
export function GapList({ network }: { network: WordNetwork }) {
  const { gaps, topics } = network;
  const openHits = useHitsOf();
  return (
    <section aria-label={topicTablesTexts.gaps}>
      <h2>{topicTablesTexts.gaps}</h2>
      <p className="mt-1 max-w-prose text-[13px] text-soft">
        {gaps.length === 0 ? topicTablesTexts.noGaps : topicTablesTexts.gapsAbout}
      </p>
      <ul className="mt-1">
        {gaps.map(({ one, other, both, expected, joined }) => {
          const [a, b] = [topics[one]!.name, topics[other]!.name];
          return (
            <li key={`${one} ${other}`} className="border-t border-rule py-2">
              <button
                type="button"
                className={wordButton}
                disabled={both === 0}
                onClick={() =>
                  openHits({
                    title: topicTablesTexts.and(a, b),
                    words: `${wordsOf(network, one)} + ${wordsOf(network, other)}`,
                    match: 'any',
                  })
                }
              >
                {topicTablesTexts.and(a, b)}
              </button>{' '}
              <span className="figures text-soft">
                {topicTablesTexts.both(both, asNumber(Math.round(10 * expected) / 10))}
              </span>
              <Quotes answers={joined} />
              <p className="text-[13px] text-soft">{topicTablesTexts.question(a, b)}</p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const SHOWN = 20;

/** The links of the picture, strongest first. */
export function LinkTable({ network }: { network: WordNetwork }) {
  const { words, links } = network;
  const openHits = useHitsOf();
  const [all, setAll] = useState(false);
  return (
    <section aria-label={topicTablesTexts.links}>
      <h2>{topicTablesTexts.links}</h2>
      <p className="mt-1 max-w-prose text-[13px] text-soft">
        {topicTablesTexts.linksAbout} <Term of="npmi">{topicTablesTexts.npmi}</Term>
      </p>
      <table className="mt-2">
        <thead className="text-left text-[13px] text-soft">
          <tr>
            <th className="py-1 font-normal">{topicTablesTexts.words}</th>
            <th className={head}>{topicTablesTexts.people}</th>
            <th className={head}>{topicTablesTexts.lines}</th>
            <th className={head}>{topicTablesTexts.npmi}</th>
          </tr>
        </thead>
        <tbody>
          {links.slice(0, all ? undefined : SHOWN).map(({ from, to, answers, lines, npmi }) => {
            const [one, other] = [words[from]!.word, words[to]!.word];
            return (
              <tr key={`${from} ${to}`} className="border-t border-rule">
                <td className="py-0.5">
                  <button
                    type="button"
                    className={wordButton}
                    onClick={() =>
                      openHits({
                        title: `${one} · ${other}`,
                        words: `${one} ${other}`,
                        match: 'line',
                      })
                    }
                  >
                    {one} · {other}
                  </button>
                </td>
                <td className="figures py-0.5 pl-3 text-right">{asCount(answers)}</td>
                <td className="figures py-0.5 pl-3 text-right">{asCount(lines)}</td>
                <td className="figures py-0.5 pl-3 text-right">{asShare(npmi)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {!all && links.length > SHOWN && (
        <Button look="plain" className="mt-2" onClick={() => setAll(true)}>
          {topicTablesTexts.all(links.length)}
        </Button>
      )}
    </section>
  );
}
