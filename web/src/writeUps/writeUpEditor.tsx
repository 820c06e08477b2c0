import type { StudyDetail, WriteUp, WriteUpContent, WriteUpNode } from '@yellow-thread/contract';
import { useQueryClient } from '@tanstack/react-query';
import { EditorContent, useEditor, type Editor, type JSONContent } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useMay } from '../frame/access.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { redraft } from './draft/redraft.js';
import { toast } from 'sonner';
import { draftOf } from './draftOf.js';
import {
  CountedTables,
  DraftMarks,
  Figure,
  figureNow,
  Pictures,
  PictureSlot,
  refOf,
  TableSlot,
} from './nodes.js';
import { Toolbar } from './toolbar.js';
import { Tray } from './tray.js';
import { useAutosave } from './useAutosave.js';
import { WriteUpFiles } from './writeUpFiles.js';
import { writeUpEditorTexts } from './texts.js';

/** A write-up as it is written: the text, its tables and figures, and the quotes to choose from beside it. */
export function WriteUpEditor({ study, writeUp }: { study: StudyDetail; writeUp: WriteUp }) {
  const isFrozen = writeUp.frozenAt !== null;
  const mayWrite = useMay('research');
  const isReadOnly = isFrozen || !mayWrite;
  const [name, setName] = useState(writeUp.name);
  const [settings, setSettings] = useState<Omit<WriteUpContent, 'body'>>(writeUp.content);
  const { keep, flush, isWaiting, error } = useAutosave(study.id, writeUp);
  const client = useQueryClient();
  const contentNow = (editor: Editor, next = settings): WriteUpContent => {
    const { tables, pictures, background, masked, names, drafted } = next;
    return { tables, pictures, background, masked, names, drafted, body: asNode(editor.getJSON()) };
  };
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ link: false, codeBlock: false, code: false }),
      DraftMarks,
      Figure,
      TableSlot,
      PictureSlot,
    ],
    content: writeUp.content.body ?? '',
    editable: !isReadOnly,
    editorProps: {
      attributes: { 'aria-label': writeUpEditorTexts.textWriteUp, class: 'outline-none' },
    },
    onUpdate: ({ editor: now }) => keep({ name, content: contentNow(now) }),
  });
  const change = (next: Partial<Omit<WriteUpContent, 'body'>>) => {
    const all = { ...settings, ...next };
    setSettings(all);
    keep({ name, content: contentNow(editor, all) });
    // tables are counted and quotes are masked by the server
    void flush().then(() =>
      client.invalidateQueries({ queryKey: ['write-up', study.id, writeUp.id] }),
    );
  };
  const sheet = useRef<HTMLDivElement>(null);
  const isEmpty = editor.isEmpty;
  const pictures = useMemo(
    () => ({ study: study.id, pictures: settings.pictures }),
    [study.id, settings.pictures],
  );
  return (
    <Pictures.Provider value={pictures}>
      <CountedTables.Provider value={writeUp.counted}>
        <main
          className={`work-list grid grid-rows-[auto_minmax(var(--list),1fr)] max-[760px]:block ${mayWrite ? 'grid-cols-[minmax(0,1fr)_320px]' : 'grid-cols-[minmax(0,1fr)_0]'}`}
        >
          <header className="col-span-2 flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule bg-card px-6 py-3">
            <Link to=".." relative="path" className="text-soft underline">
              {writeUpEditorTexts.writeUps}
            </Link>
            <input
              aria-label={writeUpEditorTexts.nameWriteUp}
              className={`${inputBox} min-w-0 flex-1 !text-[16px] font-semibold`}
              value={name}
              maxLength={120}
              disabled={isReadOnly}
              onChange={(event) => {
                setName(event.target.value);
                if (event.target.value.trim() !== '')
                  keep({ name: event.target.value, content: contentNow(editor) });
              }}
            />
            {isFrozen ? (
              <span className="text-soft">{writeUpEditorTexts.frozen(writeUp.frozenAt!)}</span>
            ) : isWaiting && !error ? (
              <span role="status" className="w-20 text-right text-soft">
                {writeUpEditorTexts.saving}
              </span>
            ) : (
              <SaveStatus />
            )}
            <WriteUpFiles study={study.id} writeUp={writeUp} beforeFile={flush} />
          </header>
          <div className="flex min-h-0 flex-col border-r border-rule">
            {!isReadOnly && (
              <Toolbar editor={editor}>
                <Button
                  look={isEmpty ? 'main' : 'plain'}
                  className="!py-1"
                  disabled={writeUp.counted.length === 0}
                  onClick={() => {
                    const body = editor.isEmpty ? null : asNode(editor.getJSON());
                    const made = redraft(body, draftOf(study, writeUp), settings.drafted);
                    const next = { ...settings, drafted: made.drafted };
                    setSettings(next);
                    editor.commands.setContent(made.doc, { emitUpdate: false });
                    keep({ name, content: contentNow(editor, next) });
                    if (made.kept > 0) toast(writeUpEditorTexts.draftedAnewYouWrote(made.kept));
                    editor.commands.setTextSelection(0);
                    editor.commands.focus(null, { scrollIntoView: false });
                    // a draft is read from its beginning
                    sheet.current?.scrollTo({ top: 0 });
                  }}
                >
                  {isEmpty ? writeUpEditorTexts.draftFindings : writeUpEditorTexts.draftAnew}
                </Button>
                <OldFigures editor={editor} writeUp={writeUp} />
              </Toolbar>
            )}
            {error && (
              <div className="px-8 pt-3">
                <ProblemNote error={error} />
              </div>
            )}
            {writeUp.lost.map(({ id, why }) => (
              <p key={id} role="alert" className="px-8 pt-3 text-brick">
                {writeUpEditorTexts.tableCouldCounted(why)}
              </p>
            ))}
            <div ref={sheet} className="list px-8 py-6 max-sm:px-3">
              {writeUp.counted.length === 0 && !isReadOnly && (
                <p className="mb-4 text-soft">{writeUpEditorTexts.noTableYetReport}</p>
              )}
              <EditorContent editor={editor} className="written mx-auto max-w-[760px]" />
            </div>
          </div>
          {mayWrite && (
            <Tray
              study={study}
              writeUp={writeUp}
              settings={settings}
              onChange={change}
              editor={isFrozen ? null : editor}
            />
          )}
        </main>
      </CountedTables.Provider>
    </Pictures.Provider>
  );
}

/** What the editor keeps, as the contract has it. */
function asNode({ type = 'doc', attrs, content, text, marks }: JSONContent): WriteUpNode {
  return {
    type,
    ...(attrs && { attrs: plain(attrs) }),
    ...(content && { content: content.map(asNode) }),
    ...(text !== undefined && { text }),
    ...(marks && { marks: marks.map((mark) => ({ type: mark.type })) }),
  };
}
const plain = (attrs: Record<string, unknown>): NonNullable<WriteUpNode['attrs']> =>
  Object.fromEntries(
    Object.entries(attrs).flatMap(([key, value]) =>
      typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
        ? [[key, value]]
        : [],
    ),
  );

/** Offers to bring figures up to date that have changed since they were written. */
function OldFigures({ editor, writeUp }: { editor: Editor; writeUp: WriteUp }) {
  const old: { at: number; now: string }[] = [];
  editor.state.doc.descendants((node, at) => {
    if (node.type.name !== 'figure') return;
    const now = figureNow(writeUp.counted, refOf(node.attrs));
    if (now !== null && now !== node.attrs['shown']) old.push({ at, now });
  });
  if (old.length === 0) return null;
  return (
    <span role="status" className="flex items-center gap-2">
      <span className="text-brick">{writeUpEditorTexts.changedSince(old.length)}</span>
      <Button
        className="!py-1"
        onClick={() =>
          editor
            .chain()
            .command(({ tr }) => {
              for (const { at, now } of old) tr.setNodeAttribute(at, 'shown', now);
              return true;
            })
            .run()
        }
      >
        {writeUpEditorTexts.bringUpDate}
      </Button>
    </span>
  );
}
