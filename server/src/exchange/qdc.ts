import type { Codebook, ListedCode } from '@yellow-thread/contract';
import { escapeUTF8 } from 'entities';
import { SaxesParser } from 'saxes';
import { problems } from '../wording/problems.js';
import { qdcTexts } from '../wording/exchange.js';

// The REFI-QDA codebook exchange format (qdasoftware.org, version 1.0). No copy of its schema could be had
// here: names of elements and attributes are common practice.

const NAMESPACE = 'urn:QDA-XML:codebook:1.0';

/** For attributes, too, where line breaks and tabs would be read as spaces (XML 1.0, § 3.3.3). */
const escaped = (text: string) =>
  escapeUTF8(text).replaceAll('\n', '&#10;').replaceAll('\t', '&#9;');

/**
 * Writes a codebook as a `.qdc` file: themes as codes that are not coded with themselves, codes below them, bundles
 * as sets. What to include and leave out stands in the description, each after its own word.
 *
 * @throws Problem empty_codebook, as the format has no way to write one
 */
export function writeQdc({ themes, codes, bundles }: Codebook): string {
  if (themes.length + codes.length === 0) throw problems.emptyCodebook();
  const codeElement = (code: Codebook['codes'][number], ink: string | null, indent: string) => {
    const described = describe(code);
    const attributes = `guid="${code.id}" name="${escaped(code.name)}" isCodable="true"${ink ? ` color="${ink}"` : ''}`;
    return described === ''
      ? `${indent}<Code ${attributes}/>`
      : `${indent}<Code ${attributes}>\n${indent}  <Description>${escaped(described)}</Description>\n${indent}</Code>`;
  };
  const themed = themes.map((theme) =>
    [
      `    <Code guid="${theme.id}" name="${escaped(theme.name)}" isCodable="false" color="${theme.ink}">`,
      ...codes
        .filter((code) => code.themeId === theme.id)
        .map((code) => codeElement(code, theme.ink, '      ')),
      '    </Code>',
    ].join('\n'),
  );
  const loose = codes
    .filter((code) => code.themeId === null)
    .map((code) => codeElement(code, null, '    '));
  const filled = bundles.filter((bundle) => bundle.codeIds.length > 0);
  const sets = filled.map((bundle) =>
    [
      `    <Set guid="${bundle.id}" name="${escaped(bundle.name)}">`,
      ...bundle.codeIds.map((id) => `      <MemberCode guid="${id}"/>`),
      '    </Set>',
    ].join('\n'),
  );
  return [
    '<?xml version="1.0" encoding="utf-8"?>',
    `<CodeBook xmlns="${NAMESPACE}" origin="Yellow Thread">`,
    '  <Codes>',
    ...themed,
    ...loose,
    '  </Codes>',
    ...(sets.length > 0 ? ['  <Sets>', ...sets, '  </Sets>'] : []),
    '</CodeBook>',
    '',
  ].join('\n');
}

const describe = ({ definition, include, exclude }: ListedTexts) =>
  [definition, include && `Include: ${include}`, exclude && `Exclude: ${exclude}`]
    .filter((part) => part !== '')
    .join('\n\n');

type ListedTexts = Pick<ListedCode, 'definition' | 'include' | 'exclude'>;

/** Parts of a description that this program wrote, in the words of today or of older versions; all of any other is the definition. */
function undescribe(description: string): ListedTexts {
  const [, definition, include = '', exclude = ''] =
    /^([\s\S]*?)(?:(?:^|\n\n)Include: ([\s\S]*?))?(?:(?:^|\n\n)(?:Exclude|Leave out): ([\s\S]*))?$/u.exec(
      description.trim(),
    )!;
  return { definition: definition!.trim(), include: include.trim(), exclude: exclude.trim() };
}

/** No codebook that people work with is as deep. */
const DEEPEST = 50;

interface Node {
  guid: string;
  name: string;
  isCodable: boolean;
  description: string;
  children: Node[];
}

/**
 * Reads the codes of a `.qdc` file. A code with codes below it is a theme; one that is coded with itself too is a
 * code of that theme besides. Deeper levels are joined to the second, and told of. Sets are bundles.
 *
 * @throws Problem unreadable_sheet
 */
export function readQdc(xml: string, fileName: string): { codes: ListedCode[]; joined: string[] } {
  const root: Node = { guid: '', name: '', isCodable: false, description: '', children: [] };
  const bundles: Bundles = new Map();
  let set = '';
  const open: Node[] = [root];
  let isCodeBook = false;
  let describing = false;
  const parser = new SaxesParser({ xmlns: true });
  const wrong = (why: string) =>
    problems.unreadableSheet(qdcTexts.noCodebookCanRead(fileName, why));
  parser.on('error', (error) => {
    throw wrong(qdcTexts.xmlBroken(error.message.slice(0, 80)));
  });
  // a document type could name things outside the file; codebooks have none
  parser.on('doctype', () => {
    throw wrong(qdcTexts.documentType);
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    if (local === 'CodeBook') isCodeBook = uri === NAMESPACE;
    const value = (name: string) =>
      Object.values(attributes).find((attribute) => attribute.local === name)?.value;
    const guid = (value('guid') ?? '').replaceAll(/[{}]/gu, '').toLowerCase();
    const name = (value('name') ?? '').replaceAll(/\s+/gu, ' ').trim().slice(0, 120);
    if (local === 'Set') set = name;
    if (local === 'MemberCode' && set !== '') addToBundle(bundles, guid, set);
    if (local === 'Code') {
      const node: Node = {
        guid,
        name,
        isCodable: value('isCodable') !== 'false',
        description: '',
        children: [],
      };
      open.at(-1)!.children.push(node);
      open.push(node);
      if (open.length > DEEPEST) throw wrong(qdcTexts.codesNestedDeeperLevels(DEEPEST));
    }
    describing = local === 'Description' && open.length > 1;
  });
  const describe = (text: string) => {
    if (describing) open.at(-1)!.description += text;
  };
  parser.on('text', describe);
  parser.on('cdata', describe);
  parser.on('closetag', ({ local }) => {
    if (local === 'Code') open.pop();
    describing = false;
  });
  parser.write(xml).close();
  if (!isCodeBook) throw wrong(qdcTexts.sayCodebook);
  return {
    codes: root.children.flatMap((node) =>
      node.children.length > 0 ? themeCodes(node, bundles) : [listed(node, null, bundles)],
    ),
    joined: root.children.flatMap((theme) =>
      theme.children.flatMap((code) => joinedBelow(code, theme.name)),
    ),
  };
}

/** A sentence for each code that stood deeper than a codebook here is. */
const joinedBelow = (code: Node, theme: string): string[] =>
  code.children.flatMap((deeper) => [
    qdcTexts.joined(deeper.name, code.name, theme),
    ...joinedBelow(deeper, theme),
  ]);

/** Names of the bundles that a code is in, by its id in the file. */
type Bundles = Map<string, string[]>;

function addToBundle(bundles: Bundles, guid: string, name: string): void {
  const names = bundles.get(guid);
  if (names) names.push(name);
  else bundles.set(guid, [name]);
}

function themeCodes(theme: Node, bundles: Bundles): ListedCode[] {
  const below = (node: Node): Node[] => [node, ...node.children.flatMap(below)];
  const codes = theme.children.flatMap(below);
  return (theme.isCodable ? [theme, ...codes] : codes).map((node) =>
    listed(node, theme.name, bundles),
  );
}

const listed = (
  { guid, name, description }: Node,
  theme: string | null,
  bundles: Bundles,
): ListedCode => ({
  theme,
  name,
  ...undescribe(description),
  bundles: bundles.get(guid) ?? [],
});
