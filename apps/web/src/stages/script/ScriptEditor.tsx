import { Chip, Stack, Typography } from '@mui/material';
import { Node } from '@tiptap/core';
import { Document } from '@tiptap/extension-document';
import { Paragraph } from '@tiptap/extension-paragraph';
import { Text } from '@tiptap/extension-text';
import type { EditorState } from '@tiptap/pm/state';
import { EditorContent, useEditor } from '@tiptap/react';
import { LIMITS, makeCue, type Block } from '@zest/core/lesson';
import { spokenShare } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef } from 'react';
import { makeId } from '../../app/ids.ts';
import { useBlockNow } from '../../app/use-lesson.ts';
import { pointStage } from '../../stage/pointing.ts';
import { AddButton } from '../../ui/AddButton.tsx';
import { useChange } from '../../ui/use-change.ts';
import { fromDocument, tablesAsLines, tagNode, toDocument, wordBorder } from './script-document.ts';
import './script.css';

/** A cue where it is spoken. */
const CueTag = Node.create({
  name: 'cueTag',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  draggable: true,
  addAttributes: () => ({ cueId: { default: '' }, label: { default: '' } }),
  parseHTML: () => [
    {
      tag: 'span[data-cue]',
      getAttrs: (element) => ({ cueId: element.dataset['cue'] ?? '', label: element.textContent }),
    },
  ],
  renderHTML: ({ node }) => [
    'span',
    { 'data-cue': String(node.attrs['cueId']), class: 'cue-tag' },
    String(node.attrs['label']) || 'cue',
  ],
});

/** What decides how the editor looks: it is set anew only when this differs from what it holds. */
function stateOf(
  script: string,
  cues: Block['cues'],
  anchors: (id: string) => number | null | undefined,
): string {
  return JSON.stringify([
    script,
    cues
      .flatMap(({ id, text }) => (typeof anchors(id) === 'number' ? [[id, text, anchors(id)]] : []))
      .sort(),
  ]);
}

/** The stage shows what is said at the cursor. */
function pointAtCursor({ id, script }: Block, { doc, selection }: EditorState): void {
  const anchor = doc.textBetween(0, selection.from, '\n', '').length;
  pointStage(id, spokenShare(script, { anchor }) ?? 0);
}

/** The words of a block, with its cues as tags in the sentences where they are spoken. */
export function ScriptEditor({ block: shown }: { block: Block }) {
  const block = useBlockNow(shown);
  const change = useChange(block);
  const latest = useRef({ block, change });
  useEffect(() => {
    latest.current = { block, change };
  });
  const editor = useEditor({
    injectCSS: false,
    extensions: [Document, Paragraph, Text, CueTag],
    content: toDocument(block.script, block.cues),
    editorProps: {
      transformPastedHTML: tablesAsLines,
      attributes: {
        'aria-label': teacherText('script.words-of', { title: block.title }),
        role: 'textbox',
        'aria-multiline': 'true',
        class: 'script-text',
      },
    },
    onSelectionUpdate: ({ editor: { state } }) => pointAtCursor(latest.current.block, state),
    onUpdate: ({ editor: changed }) => {
      const { script, anchors } = fromDocument(changed.getJSON());
      latest.current.change(teacherText('script.words'), (draft) => {
        draft.script = script.slice(0, LIMITS.script);
        for (const cue of draft.cues) cue.anchor = anchors.get(cue.id) ?? null;
      });
    },
  });
  useEffect(() => {
    if (!editor) return;
    const { script, anchors } = fromDocument(editor.getJSON());
    const labels = new Map<string, string>();
    editor.state.doc.descendants((node) => {
      if (node.type.name === 'cueTag')
        labels.set(String(node.attrs['cueId']), String(node.attrs['label']));
    });
    const held = stateOf(
      script,
      block.cues.map((cue) => ({ ...cue, text: labels.get(cue.id) ?? '' })),
      (id) => anchors.get(id),
    );
    const wanted = stateOf(
      block.script,
      block.cues,
      (id) => block.cues.find((cue) => cue.id === id)?.anchor,
    );
    if (held === wanted) return;
    // Undone, or changed beside the editor.
    const { from } = editor.state.selection;
    editor.commands.setContent(toDocument(block.script, block.cues), { emitUpdate: false });
    editor.commands.setTextSelection(Math.min(from, editor.state.doc.content.size));
  }, [editor, block.script, block.cues]);

  /** A place in the document that tears no word. */
  const border = (at: number, way?: 'nearest' | 'before' | 'after'): number => {
    if (!editor) return at;
    const place = editor.state.doc.resolve(at);
    // A tag stands for one letter that belongs to no word.
    const text = place.parent.textBetween(0, place.parent.content.size, undefined, ' ');
    return place.start() + wordBorder(text, place.parentOffset, way);
  };
  const putTag = (cueId: string, label: string) =>
    editor
      ?.chain()
      .focus()
      .setTextSelection(border(editor.state.selection.from))
      .insertContent(tagNode(cueId, label))
      .run();
  const addHere = () => {
    if (!editor) return;
    const { selection } = editor.state;
    // Words that are marked in part are meant as a whole.
    const [from, to] = selection.empty
      ? [border(selection.from), border(selection.from)]
      : [border(selection.from, 'before'), border(selection.to, 'after')];
    const words = editor.state.doc.textBetween(from, to, ' ').trim().slice(0, LIMITS.line);
    const cue = makeCue(words, makeId);
    change(teacherText('common.cues'), (draft) => void draft.cues.push(cue), false);
    // The words stay: the tag stands before them.
    editor.chain().focus().setTextSelection(from).insertContent(tagNode(cue.id, words)).run();
  };
  const unspoken = block.cues.filter(({ anchor, text }) => anchor === null && text.trim() !== '');
  const full = block.script.length >= LIMITS.script;
  return (
    <Stack spacing={1}>
      <EditorContent editor={editor} />
      {full && (
        <Typography color="error">
          {teacherText('script.most-characters-what-goes', { script: LIMITS.script })}
        </Typography>
      )}
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <AddButton
          label={teacherText('script.add-cue-here')}
          keepsFocus
          count={block.cues.length}
          most={LIMITS.cues}
          full={teacherText('script.block-has-cues-most', { cues: LIMITS.cues })}
          onAdd={addHere}
        />
        {unspoken.length > 0 && (
          <Typography variant="body2">{teacherText('script.not-spoken-yet-put')}</Typography>
        )}
        {unspoken.map(({ id, text }) => (
          <Chip
            key={id}
            size="small"
            label={text}
            variant="outlined"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => putTag(id, text)}
          />
        ))}
      </Stack>
    </Stack>
  );
}
