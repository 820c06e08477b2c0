import { useEditorState, type Editor } from '@tiptap/react';
import { Bold, Heading2, Heading3, Italic, List, ListOrdered, Quote } from 'lucide-react';
import type { ReactNode } from 'react';
import { toolbarTexts } from './texts.js';

/** What can be done to the text at the cursor. */
export function Toolbar({ editor, children }: { editor: Editor; children: ReactNode }) {
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      second: now.isActive('heading', { level: 2 }),
      third: now.isActive('heading', { level: 3 }),
      bullets: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
      quote: now.isActive('blockquote'),
    }),
  });
  const deed = () => editor.chain().focus();
  const buttons = [
    { name: toolbarTexts.bold, Icon: Bold, isOn: on.bold, act: () => deed().toggleBold().run() },
    {
      name: toolbarTexts.italic,
      Icon: Italic,
      isOn: on.italic,
      act: () => deed().toggleItalic().run(),
    },
    {
      name: toolbarTexts.heading,
      Icon: Heading2,
      isOn: on.second,
      act: () => deed().toggleHeading({ level: 2 }).run(),
    },
    {
      name: toolbarTexts.smallerHeading,
      Icon: Heading3,
      isOn: on.third,
      act: () => deed().toggleHeading({ level: 3 }).run(),
    },
    {
      name: toolbarTexts.list,
      Icon: List,
      isOn: on.bullets,
      act: () => deed().toggleBulletList().run(),
    },
    {
      name: toolbarTexts.numberedList,
      Icon: ListOrdered,
      isOn: on.numbers,
      act: () => deed().toggleOrderedList().run(),
    },
    {
      name: toolbarTexts.quote,
      Icon: Quote,
      isOn: on.quote,
      act: () => deed().toggleBlockquote().run(),
    },
  ];
  return (
    <div
      role="toolbar"
      aria-label={toolbarTexts.text}
      className="flex flex-wrap items-center gap-1 border-b border-rule px-6 py-1.5"
    >
      {buttons.map(({ name, Icon, isOn, act }) => (
        <button
          key={name}
          type="button"
          aria-label={name}
          title={name}
          aria-pressed={isOn}
          onClick={act}
          className={`rounded p-1.5 hover:bg-wash ${isOn ? 'bg-wash' : ''}`}
        >
          <Icon size={16} aria-hidden />
        </button>
      ))}
      <span className="ml-auto flex flex-wrap items-center gap-3">{children}</span>
    </div>
  );
}
