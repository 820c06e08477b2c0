import { isValidElement, useEffect, type ReactNode } from 'react';
import Markdown, { type Components } from 'react-markdown';
import { Link, NavLink, useLocation, useParams } from 'react-router';
import { EmptyState } from '../parts/notices.js';
import { anchorOf } from './anchors.js';
import { GUIDE } from './helpPath.js';
import { helpPageTexts } from './texts.js';

const pages = import.meta.glob<string>('../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const pictures = import.meta.glob<string>('../../../docs/screenshots/*.png', {
  query: '?url',
  import: 'default',
  eager: true,
});

function wordsIn(node: ReactNode): string {
  if (typeof node === 'string') return node;
  if (Array.isArray(node)) return node.map(wordsIn).join('');
  return isValidElement<{ children?: ReactNode }>(node) ? wordsIn(node.props.children) : '';
}

const components: Components = {
  h2: ({ children }) => (
    <h2 id={anchorOf(wordsIn(children))} className="scroll-mt-4 target:bg-wash">
      {children}
    </h2>
  ),
  a: ({ href = '', children }) =>
    /^https?:/u.test(href) ? (
      <a href={href} rel="noreferrer" target="_blank" className="underline">
        {children}
      </a>
    ) : (
      // pages stand beside each other in the folder as they do here
      <Link
        to={`../${href.replace(/^\.\//u, '').replace(/\.md/u, '')}`}
        relative="path"
        className="underline"
      >
        {children}
      </Link>
    ),
  img: ({ src = '', alt = '' }) => (
    <img
      src={pictures[`../../../docs/screenshots/${String(src).split('/').at(-1)}`]}
      alt={alt}
      className="my-4 w-full border border-rule"
    />
  ),
};

/** The user's guide: a page a stop. */
export function HelpPage() {
  const { page = 'start' } = useParams();
  const text = pages[`../../../docs/guide/${page}.md`];
  const { hash } = useLocation();
  useEffect(() => {
    const heading = hash ? document.getElementById(decodeURIComponent(hash.slice(1))) : null;
    heading?.scrollIntoView();
  }, [hash, page]);
  return (
    <main className="work grid grid-cols-[11rem_minmax(0,1fr)] gap-x-10 gap-y-4 px-8 py-6 max-sm:grid-cols-1 max-sm:px-4">
      <nav
        aria-label={helpPageTexts.pagesGuide}
        className="flex flex-col gap-1 max-sm:flex-row max-sm:flex-wrap max-sm:gap-x-4"
      >
        {GUIDE.map(({ key, name }) => (
          <NavLink
            key={key}
            to={`../${key}`}
            relative="path"
            className="text-soft hover:text-ink aria-[current=page]:font-semibold aria-[current=page]:text-ink"
          >
            {name}
          </NavLink>
        ))}
      </nav>
      {text === undefined ? (
        <EmptyState title={helpPageTexts.guideNoSuchPage}>
          <p>{helpPageTexts.chooseAnotherPageList}</p>
        </EmptyState>
      ) : (
        <article className="written max-w-[46rem] pb-16">
          <Markdown components={components}>{text}</Markdown>
        </article>
      )}
    </main>
  );
}
